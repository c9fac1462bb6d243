import {
  addCable,
  cableSizes,
  moveEnd,
  ownerOfSide,
  removeCable,
  type Cable,
  type EndRef,
  type Installation,
} from '@nobbet/core'
import { Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Conductor } from '../drawing/conductor'
import { endKey, isPicked, useHand } from './hand'
import { fieldLabel, PlaceField } from './place-field'

const ownerName = (doc: Installation, id: string): string =>
  doc.devices.find((d) => d.id === id)?.name ?? doc.wiringCentres.find((c) => c.id === id)?.name ?? id

/** Cables as bundles: every conductor, and where its ends are, to be typed or picked. */
export function Cables() {
  const { doc, alter } = useHand()
  const [adding, setAdding] = useState<string>()
  const [size, setSize] = useState<(typeof cableSizes)[number]>(5)
  return (
    <>
      {adding === undefined ? (
        <Button variant="outline-primary" className="mb-2" onClick={() => setAdding('')}>
          Add a cable
        </Button>
      ) : (
        <Form
          className="bench-add"
          onSubmit={(event) => {
            event.preventDefault()
            if (!adding.trim()) return
            alter(addCable(doc, adding.trim(), size))
            setAdding(undefined)
          }}
        >
          <Form.Control
            autoFocus
            aria-label="Name of the cable"
            placeholder="Name, for example Landing thermostat cable"
            value={adding}
            onChange={(e) => setAdding(e.target.value)}
          />
          <Form.Select aria-label="Cores" value={size} onChange={(e) => setSize(Number(e.target.value) as typeof size)}>
            {cableSizes.map((n) => (
              <option key={n} value={n}>
                {n}-core
              </option>
            ))}
          </Form.Select>
          <Button type="submit">Add</Button>
          <Button variant="outline-dark" onClick={() => setAdding(undefined)}>
            Cancel
          </Button>
        </Form>
      )}
      <p className="quiet entry-help">
        Type a terminal’s number or letters, then Tab. <kbd>x</kbd> cut back, <kbd>-</kbd> loose, <kbd>?</kbd> not
        found.
      </p>
      {doc.cables.map((cable) => (
        <Bundle key={cable.id} cable={cable} />
      ))}
    </>
  )
}

function Bundle({ cable }: { cable: Cable }) {
  const { doc, alter, net, picked, pick } = useHand()
  const [chosen, setChosen] = useState<[string?, string?]>([])
  const owners = [doc.devices, doc.wiringCentres].flatMap((all) => all.map((x) => x.id))
  const sides = ([0, 1] as const).map((end) => ownerOfSide(doc, cable.id, end) ?? chosen[end])
  const choose = (end: 0 | 1, owner: string) => setChosen((c) => (end === 0 ? [owner, c[1]] : [c[0], owner]))
  const lit = cable.cores.some((k) => net?.conductors.includes(`${cable.id}.${k.id}`))
  return (
    <section className={lit ? 'bundle lit' : 'bundle'} aria-label={cable.label} data-cable={cable.id}>
      <header>
        <h3>{cable.label}</h3>
        <span className="quiet">
          {cable.leadOf ? 'its own lead' : `${cable.cores.length}-core`}
          {cable.lengthM !== undefined && `, ${cable.lengthM} m`}
        </span>
        <button
          type="button"
          className="icon-press"
          aria-label={`Take ${cable.label} out`}
          title="Take the cable out"
          disabled={doc.cables.length < 2}
          onClick={() => alter(removeCable(doc, cable.id))}
        >
          <Trash2 size={16} aria-hidden />
        </button>
      </header>
      <div className="bundle-sides">
        <span />
        {([0, 1] as const).map((end) =>
          ownerOfSide(doc, cable.id, end) !== undefined ? (
            <span key={end} className="quiet">
              {ownerName(doc, sides[end]!)}
            </span>
          ) : (
            <Form.Select
              key={end}
              size="sm"
              aria-label={`End ${end + 1} of ${cable.label} goes to`}
              value={sides[end] ?? ''}
              onChange={(e) => choose(end, e.target.value)}
            >
              <option value="">Goes to</option>
              {owners.map((id) => (
                <option key={id} value={id}>
                  {ownerName(doc, id)}
                </option>
              ))}
            </Form.Select>
          ),
        )}
      </div>
      {cable.cores.map((core) => {
        const ref = (end: 0 | 1): EndRef => ({ cable: cable.id, core: core.id, end })
        const inNet = net?.conductors.includes(`${cable.id}.${core.id}`)
        const here = isPicked(picked, ref(0)) || isPicked(picked, ref(1))
        return (
          <div key={core.id} className={['bundle-core', inNet ? 'in-net' : '', here ? 'here' : ''].join(' ')}>
            <button
              type="button"
              className="core-name"
              aria-label={`Pick ${core.colour} of ${cable.label}`}
              data-core={`${cable.id}.${core.id}`}
              onClick={() =>
                pick(
                  here
                    ? undefined
                    : { kind: 'end', end: ref(doc.wiringCentres.some((c) => c.id === sides[0]) ? 0 : 1) },
                )
              }
            >
              <Conductor colour={core.colour} sleeve={core.sleeve} />
            </button>
            {([0, 1] as const).map((end) => (
              <PlaceField
                key={endKey(ref(end))}
                label={`${cable.label}, ${fieldLabel(ref(end), core.colour)}`}
                owner={sides[end]}
                at={core.ends[end]}
                onPlace={(to) => alter(moveEnd(ref(end), to))}
              />
            ))}
          </div>
        )
      })}
    </section>
  )
}
