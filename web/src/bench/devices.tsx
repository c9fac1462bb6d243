import {
  addDevice,
  changeDevice,
  deviceTypes,
  duplicateZone,
  families,
  fittingTypes,
  neededFor,
  outsideTerminals,
  removeDevice,
  replaceWith,
  typeIn,
  withType,
  type Device,
} from '@nobbet/core'
import { Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { asType, useOwnTypes } from '../kit/own-types'
import { useHand } from './hand'
import { Places } from './places'
import { TerminalRow } from './strip'

/** The devices with their own terminals, types and settings; zones to duplicate. */
export function Devices() {
  const { doc } = useHand()
  return (
    <>
      <AddDevice />
      <Duplicate />
      <Places />
      {doc.devices.map((device) => (
        <DeviceCard key={device.id} device={device} />
      ))}
    </>
  )
}

function AddDevice() {
  const { doc, alter } = useHand()
  const { data = [] } = useOwnTypes()
  const types = [...deviceTypes, ...data.map(asType)]
  const [open, setOpen] = useState(false)
  const [type, setType] = useState(types[0].id)
  const [name, setName] = useState('')
  const [place, setPlace] = useState(doc.places[0].id)
  if (!open)
    return (
      <Button variant="outline-primary" className="mb-2" onClick={() => setOpen(true)}>
        Add a device
      </Button>
    )
  return (
    <Form
      className="bench-add"
      onSubmit={(event) => {
        event.preventDefault()
        const of = types.find((t) => t.id === type)!
        alter(addDevice(doc, of, name.trim() || of.name, place))
        setOpen(false)
        setName('')
      }}
    >
      <Form.Select aria-label="Type of the device" value={type} onChange={(e) => setType(e.target.value)}>
        {Object.entries(families).map(([family, label]) => (
          <optgroup key={family} label={label}>
            {types
              .filter((t) => t.family === family)
              .map((t) => (
                <option key={t.id} value={t.id}>
                  {t.name}
                </option>
              ))}
          </optgroup>
        ))}
      </Form.Select>
      <Form.Control
        aria-label="Name of the device"
        placeholder="Name"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Form.Select aria-label="Place" value={place} onChange={(e) => setPlace(e.target.value)}>
        {doc.places.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </Form.Select>
      <Button type="submit">Add</Button>
      <Button variant="outline-dark" onClick={() => setOpen(false)}>
        Cancel
      </Button>
    </Form>
  )
}

/** A second zone like one that is there. */
function Duplicate() {
  const { doc, alter } = useHand()
  const { demands } = doc.intent
  const [like, setLike] = useState<string>()
  const [name, setName] = useState('')
  const [problem, setProblem] = useState<string>()
  if (like === undefined)
    return (
      <Button
        variant="outline-primary"
        className="mb-2 ms-2"
        disabled={demands.length === 0}
        onClick={() => setLike(demands[0].id)}
      >
        Duplicate a zone
      </Button>
    )
  return (
    <Form
      className="bench-add"
      onSubmit={(event) => {
        event.preventDefault()
        if (!name.trim()) return
        const command = duplicateZone(doc, like, name.trim())
        if (!command) return setProblem('This one has no device of its own to duplicate.')
        alter(command)
        setLike(undefined)
        setName('')
      }}
    >
      <Form.Select aria-label="Zone to duplicate" value={like} onChange={(e) => setLike(e.target.value)}>
        {demands.map((d) => (
          <option key={d.id} value={d.id}>
            {d.name}
          </option>
        ))}
      </Form.Select>
      <Form.Control
        autoFocus
        aria-label="Name of the new zone"
        placeholder="Name of the new zone"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button type="submit">Duplicate</Button>
      <Button variant="outline-dark" onClick={() => setLike(undefined)}>
        Cancel
      </Button>
      {problem && (
        <span role="alert" className="text-danger">
          {problem}
        </span>
      )}
    </Form>
  )
}

function DeviceCard({ device }: { device: Device }) {
  const { doc, alter, net } = useHand()
  const { data = [] } = useOwnTypes()
  const type = typeIn(doc, device.type)
  const needed = neededFor(doc, device.id)
  const terminals = outsideTerminals(doc, device)
  const lit = terminals.some((t) => net?.terminals.includes(t.ref))
  const fitting = fittingTypes(doc, device.id, data.map(asType))
  return (
    <details className={lit ? 'device-card lit' : 'device-card'} data-device={device.id}>
      <summary>
        <strong>{device.name}</strong> <span className="quiet">{type.name}</span>
      </summary>
      <div className="device-fields">
        <Form.Label className="small-choice grow">
          Name
          <Form.Control
            size="sm"
            key={device.name}
            defaultValue={device.name}
            maxLength={120}
            onBlur={(e) =>
              e.target.value.trim() &&
              e.target.value !== device.name &&
              alter(changeDevice(doc, device.id, { name: e.target.value.trim() }))
            }
          />
        </Form.Label>
        {fitting.length > 1 && (
          <Form.Label className="small-choice grow">
            Type
            <Form.Select
              size="sm"
              aria-label={`Type of ${device.name}`}
              value={type.id}
              onChange={(e) => {
                const to = fitting.find((t) => t.id === e.target.value)!
                alter({ label: `${device.name}: ${to.name}`, changes: replaceWith(doc, withType(doc, device.id, to)) })
              }}
            >
              {fitting.map((t) => (
                <option key={t.id} value={t.id}>
                  {t.name}
                </option>
              ))}
            </Form.Select>
          </Form.Label>
        )}
        {type.settings.map((setting) => (
          <SettingField key={setting.id} device={device} setting={setting} />
        ))}
        <button
          type="button"
          className="icon-press"
          disabled={needed.length > 0}
          title={needed.length > 0 ? `Needed for ${needed.join(', ')}` : 'Take the device out'}
          aria-label={`Take ${device.name} out`}
          onClick={() => alter(removeDevice(doc, device.id))}
        >
          <Trash2 size={16} aria-hidden />
        </button>
      </div>
      {terminals.map((t) => (
        <TerminalRow key={t.ref} terminal={t.ref} number={t.id} legend={t.legend} first />
      ))}
    </details>
  )
}

type Setting = ReturnType<typeof typeIn>['settings'][number]

function SettingField({ device, setting }: { device: Device; setting: Setting }) {
  const { doc, alter } = useHand()
  const stands = Number(device.settings[setting.id] ?? setting.default)
  const [problem, setProblem] = useState<string>()
  const put = (value: number) => {
    if (!Number.isFinite(value) || value < setting.min || value > setting.max)
      return setProblem(`${setting.min} to ${setting.max} ${setting.unit}`)
    setProblem(undefined)
    if (value !== stands) alter(changeDevice(doc, device.id, { settings: { ...device.settings, [setting.id]: value } }))
  }
  return (
    <Form.Label className="small-choice" title={setting.origin}>
      {setting.label}
      {setting.choices ? (
        <Form.Select size="sm" value={stands} onChange={(e) => put(Number(e.target.value))}>
          {setting.choices.map((c) => (
            <option key={c.value} value={c.value}>
              {c.label}
            </option>
          ))}
        </Form.Select>
      ) : (
        <span className="with-unit">
          <Form.Control
            size="sm"
            inputMode="decimal"
            key={stands}
            defaultValue={stands}
            isInvalid={problem !== undefined}
            onBlur={(e) => put(Number(e.target.value))}
          />
          {setting.unit}
        </span>
      )}
      {problem && (
        <span role="alert" className="text-danger">
          {problem}
        </span>
      )}
    </Form.Label>
  )
}
