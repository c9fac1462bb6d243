import {
  freeId,
  typeIn,
  type Change,
  type Command,
  type ContactRef,
  type Demand,
  type Installation,
} from '@nobbet/core'
import { Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useHand } from './hand'

/** What the wiring is for: every verdict is judged by this. */
export function Demands() {
  const { doc } = useHand()
  return (
    <>
      <p className="quiet">What the installation is for. All states, Trace and Hunt judge by this.</p>
      <AddDemand />
      {doc.intent.demands.map((demand) => (
        <DemandCard key={demand.id} demand={demand} />
      ))}
    </>
  )
}

/** A demand more, like the last one but without valves of its own: the rest is set on its card. */
function AddDemand() {
  const { doc, alter } = useHand()
  const [name, setName] = useState('')
  const [kind, setKind] = useState<Demand['kind']>('heating')
  const inputs = doc.devices.flatMap((d) => typeIn(doc, d.type).inputs.map((i) => ({ boiler: d.id, input: i.id })))
  const like = doc.intent.demands[0]?.call ?? inputs[0]
  return (
    <Form
      className="bench-add"
      onSubmit={(event) => {
        event.preventDefault()
        if (!name.trim() || !like) return
        const value: Demand = {
          id: freeId(doc, name),
          name: name.trim(),
          kind,
          channel: null,
          thermostat: null,
          circuit: { valves: [] },
          call: like,
          companions: [],
          priority: 0,
        }
        alter({ label: `Demand ${value.name}`, changes: [{ do: 'put', in: 'demands', value }] })
        setName('')
      }}
    >
      <Form.Control
        aria-label="Name of the demand"
        placeholder="A demand more: its name"
        value={name}
        maxLength={120}
        onChange={(e) => setName(e.target.value)}
      />
      <Form.Select aria-label="Kind of demand" value={kind} onChange={(e) => setKind(e.target.value as Demand['kind'])}>
        <option value="heating">Heating</option>
        <option value="hot-water">Hot water</option>
      </Form.Select>
      <Button type="submit" disabled={!like}>
        Add
      </Button>
    </Form>
  )
}

/** Takes a demand out, and out of what others name as their companions. */
const withoutDemand = (doc: Installation, demand: Demand): Command => ({
  label: `Demand ${demand.name} out`,
  changes: [
    ...doc.intent.demands
      .filter((d) => d.companions.includes(demand.id))
      .map((d): Change => ({
        do: 'put',
        in: 'demands',
        value: { ...d, companions: d.companions.filter((id) => id !== demand.id) },
      })),
    { do: 'drop', in: 'demands', id: demand.id },
  ],
})

/** Contacts that could be a channel or a thermostat, named by their device. */
function contactsOf(doc: Installation): { value: string; label: string }[] {
  return doc.devices.flatMap((device) =>
    typeIn(doc, device.type).primitives.flatMap((p) =>
      p.kind === 'contact' || p.kind === 'changeover'
        ? [{ value: `${device.id}.${p.id}`, label: `${device.name}: ${p.label}` }]
        : [],
    ),
  )
}
const contactText = (at: ContactRef | null) => (at ? `${at.device}.${at.contact}` : '')
const readContact = (text: string): ContactRef | null => {
  const [device, contact] = text.split('.')
  return contact ? { device, contact } : null
}

function DemandCard({ demand }: { demand: Demand }) {
  const { doc, alter } = useHand()
  const put = (change: Partial<Demand>): void =>
    alter({
      label: `${change.name ?? demand.name}: what it is for`,
      changes: [{ do: 'put', in: 'demands', value: { ...demand, ...change } }],
    } satisfies Command)
  const contacts = contactsOf(doc)
  const valves = doc.devices.filter((d) => typeIn(doc, d.type).primitives.some((p) => p.kind === 'port'))
  const inputs = doc.devices.flatMap((d) =>
    typeIn(doc, d.type).inputs.map((i) => ({ value: `${d.id}.${i.id}`, label: `${d.name} ${i.id}` })),
  )
  const contact = (label: string, role: 'channel' | 'thermostat') => (
    <Form.Label className="small-choice grow">
      {label}
      <Form.Select
        size="sm"
        value={contactText(demand[role])}
        onChange={(e) => put({ [role]: readContact(e.target.value) })}
      >
        <option value="">none</option>
        {contacts.map((c) => (
          <option key={c.value} value={c.value}>
            {c.label}
          </option>
        ))}
      </Form.Select>
    </Form.Label>
  )
  return (
    <section className="device-card open" data-demand={demand.id} aria-label={demand.name}>
      <div className="device-fields">
        <Form.Label className="small-choice grow">
          Name
          <Form.Control
            size="sm"
            key={demand.name}
            defaultValue={demand.name}
            onBlur={(e) =>
              e.target.value.trim() && e.target.value !== demand.name && put({ name: e.target.value.trim() })
            }
          />
        </Form.Label>
        {contact('Channel', 'channel')}
        {contact('Thermostat', 'thermostat')}
        <Form.Label className="small-choice grow">
          Calls
          <Form.Select
            size="sm"
            value={`${demand.call.boiler}.${demand.call.input}`}
            onChange={(e) => {
              const [boiler, input] = e.target.value.split('.')
              put({ call: { boiler, input } })
            }}
          >
            {inputs.map((i) => (
              <option key={i.value} value={i.value}>
                {i.label}
              </option>
            ))}
          </Form.Select>
        </Form.Label>
        <Form.Label className="small-choice">
          Goes first
          <Form.Select size="sm" value={demand.priority} onChange={(e) => put({ priority: Number(e.target.value) })}>
            {[0, 1, 2, 3].map((n) => (
              <option key={n} value={n}>
                {n === 0 ? '0, first' : n}
              </option>
            ))}
          </Form.Select>
        </Form.Label>
        <button
          type="button"
          className="icon-press"
          aria-label={`Take ${demand.name} out`}
          title="Take the demand out"
          onClick={() => alter(withoutDemand(doc, demand))}
        >
          <Trash2 size={16} aria-hidden />
        </button>
      </div>
      <fieldset className="demand-valves">
        <legend>Circuits that may open with it</legend>
        {doc.intent.demands
          .filter((d) => d.id !== demand.id)
          .map((d) => {
            const has = demand.companions.includes(d.id)
            return (
              <Form.Check
                key={d.id}
                id={`${demand.id}-with-${d.id}`}
                label={d.name}
                checked={has}
                onChange={() =>
                  put({
                    companions: has ? demand.companions.filter((id) => id !== d.id) : [...demand.companions, d.id],
                  })
                }
              />
            )
          })}
      </fieldset>
      <fieldset className="demand-valves">
        <legend>Valves that open its circuit</legend>
        {valves.map((v) => {
          const has = demand.circuit.valves.some((x) => x.device === v.id)
          return (
            <Form.Check
              key={v.id}
              id={`${demand.id}-${v.id}`}
              label={v.name}
              checked={has}
              onChange={() =>
                put({
                  circuit: {
                    ...demand.circuit,
                    valves: has
                      ? demand.circuit.valves.filter((x) => x.device !== v.id)
                      : [...demand.circuit.valves, { device: v.id }],
                  },
                })
              }
            />
          )
        })}
      </fieldset>
    </section>
  )
}
