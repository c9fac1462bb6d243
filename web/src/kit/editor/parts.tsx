import { partKinds, type DeviceType, type Primitive } from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Choice, Rows, Text } from './fields'
import { freeId } from './ids'
import { newPart, PartForm } from './part-form'

interface PartsProps {
  type: DeviceType
  under: (path: string) => string[]
  onType: (type: DeviceType) => void
}

/** Every part, one of them open, and the calls that the device hears. */
export function Parts({ type, under, onType }: PartsProps) {
  const [open, setOpen] = useState(0)
  const put = (primitives: Primitive[]) => onType({ ...type, primitives })
  return (
    <>
      <ul className="part-list">
        {type.primitives.map((part, i) => {
          const wrong = under(`primitives.${i}`)
          return (
            <li key={i} className={wrong.length > 0 ? 'bad' : ''} data-part={part.id}>
              <div className="part-head">
                <button aria-expanded={open === i} onClick={() => setOpen(open === i ? -1 : i)}>
                  <b>{part.label || part.id}</b> <span className="quiet">{partKinds[part.kind].name}</span>
                  {wrong.length > 0 && <span className="count">{wrong.length}</span>}
                </button>
                <Button
                  size="sm"
                  variant="outline-dark"
                  aria-label={`Take out ${part.label}`}
                  onClick={() => put(type.primitives.filter((_, k) => k !== i))}
                >
                  ×
                </Button>
              </div>
              {wrong.map((w) => (
                <p key={w} className="wrong">
                  {w}
                </p>
              ))}
              {open === i && (
                <PartForm
                  type={type}
                  part={part}
                  onPart={(next) => put(type.primitives.map((p, k) => (k === i ? next : p)))}
                />
              )}
            </li>
          )
        })}
      </ul>
      <Form.Select
        aria-label="Add a part"
        value=""
        onChange={(e) => {
          put([...type.primitives, newPart(e.target.value as Primitive['kind'], type)])
          setOpen(type.primitives.length)
        }}
      >
        <option value="">Add a part …</option>
        {Object.entries(partKinds).map(([kind, { name, about }]) => (
          <option key={kind} value={kind}>
            {name}: {about}
          </option>
        ))}
      </Form.Select>
      <h2 className="mt-3">Calls it hears</h2>
      <Rows
        title="Call"
        rows={type.inputs}
        wrong={(i) => under(`inputs.${i}`)}
        add={{
          label: 'Add a call',
          make: () => ({
            id: freeId('call', type.inputs),
            terminal: type.terminals[0]?.id ?? '',
            load: type.primitives.find((p) => p.kind === 'load')?.id ?? '',
          }),
        }}
        onRows={(inputs) => onType({ ...type, inputs })}
      >
        {(input, change) => (
          <>
            <Text label="Id" mono value={input.id} onValue={(id) => change({ ...input, id })} />
            <Choice
              label="On terminal"
              value={input.terminal}
              options={type.terminals.map((t) => [t.id, `${t.id}: ${t.legend}`] as const)}
              onValue={(terminal) => change({ ...input, terminal: terminal ?? '' })}
            />
            <Choice
              label="Heard by load"
              value={input.load}
              options={type.primitives.filter((p) => p.kind === 'load').map((p) => [p.id, p.label] as const)}
              onValue={(load) => change({ ...input, load: load ?? '' })}
            />
          </>
        )}
      </Rows>
    </>
  )
}
