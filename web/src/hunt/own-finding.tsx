import {
  answers,
  askableContacts,
  controlStateText,
  observableKey,
  observables,
  observableText,
  resultWords,
  type Circuit,
  type ControlState,
  type FindingResult,
  type Observable,
} from '@nobbet/core'
import { useMemo, useState } from 'react'
import { Button, Form } from 'react-bootstrap'

interface OwnFindingProps {
  circuit: Circuit
  onLog: (asking: ControlState, observable: Observable, result: FindingResult) => void
  onCancel: () => void
}

const groups: { kind: Observable['kind']; label: string }[] = [
  { kind: 'boiler', label: 'Boiler' },
  { kind: 'pump', label: 'Pump' },
  { kind: 'valve', label: 'Valves' },
  { kind: 'terminal', label: 'Terminals' },
]

/** A finding of the engineer's own choosing: how the controls stood, what was looked at, what it showed. */
export function OwnFinding({ circuit, onLog, onCancel }: OwnFindingProps) {
  const contacts = useMemo(() => askableContacts(circuit), [circuit])
  const looks = useMemo(() => observables(circuit), [circuit])
  const [asking, setAsking] = useState<ControlState>([])
  const [chosen, setChosen] = useState(observableKey(looks.find((l) => l.kind === 'boiler') ?? looks[0]))
  const observable = looks.find((l) => observableKey(l) === chosen)!
  return (
    <section className="sheet next-card" aria-label="Log a finding">
      <h2 className="question">What did you find?</h2>
      <fieldset className="mb-3">
        <legend className="fs-6 fw-bold">The controls stood</legend>
        <div className="asking">
          {contacts.map(({ device, contact }) => {
            const key = `${device}.${contact}`
            const on = asking.includes(key)
            return (
              <button
                key={key}
                type="button"
                className={on ? 'toggle on' : 'toggle'}
                aria-pressed={on}
                onClick={() =>
                  setAsking(
                    contacts
                      .map((c) => `${c.device}.${c.contact}`)
                      .filter((k) => (k === key ? !on : asking.includes(k))),
                  )
                }
              >
                <span aria-hidden>{on ? '☑' : '☐'}</span> {controlStateText(circuit, [key])}
              </button>
            )
          })}
        </div>
        <p className="quiet mb-0">What is not ticked was off or turned down. Valves and overrun had come to rest.</p>
      </fieldset>
      <Form.Group className="mb-3" controlId="looked-at">
        <Form.Label className="fw-bold">Looked at</Form.Label>
        <Form.Select value={chosen} onChange={(event) => setChosen(event.target.value)}>
          {groups.map(({ kind, label }) => (
            <optgroup key={kind} label={label}>
              {looks
                .filter((l) => l.kind === kind)
                .map((l) => (
                  <option key={observableKey(l)} value={observableKey(l)}>
                    {observableText(circuit, l)}
                  </option>
                ))}
            </optgroup>
          ))}
        </Form.Select>
      </Form.Group>
      <div className="answers">
        {answers[observable.kind].map((result) => (
          <button key={result} className="answer" onClick={() => onLog(asking, observable, result)}>
            <span className="answer-word">{resultWords[result]}</span>
          </button>
        ))}
      </div>
      <Button variant="link" onClick={onCancel}>
        Back to the next reading
      </Button>
    </section>
  )
}
