import { actText } from '@nobbet/core'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { dayText } from '../drawing/dates'
import { storeOf } from '../store/stores'
import type { HuntScreen } from './hunt-screen'
import { leftToPutBack } from './left-behind'

/** What tests have disturbed and nobody has put back yet; each is put back, or left with the day on which that ends. */
export function PutBack({ screen }: { screen: HuntScreen }) {
  const { record, circuit, entries, writer, job } = screen
  const left = leftToPutBack(circuit, entries, record)
  const [leaving, setLeaving] = useState<string>()
  if (left.length + record.measures.length === 0) return null
  return (
    <section className="sheet put-back" aria-label="To put back">
      {/* While the hunt goes on the next look matters more. */}
      <details key={String(record.finding !== undefined)} open={record.finding !== undefined}>
        <summary>
          <h2>
            To put back: <span className="count">{left.length}</span>
          </h2>
        </summary>
        <ul>
          {left.map((act) => (
            <li key={act}>
              <span className="act">{actText(circuit, act, entries)}</span>
              <span className="buttons">
                <Button variant="outline-primary" onClick={() => void writer.add([{ do: act }])}>
                  Put back
                </Button>
                <Button
                  variant="link"
                  aria-expanded={leaving === act}
                  onClick={() => setLeaving(leaving === act ? undefined : act)}
                >
                  Leave it for now
                </Button>
              </span>
              {leaving === act && (
                <LeaveForNow
                  what={actText(circuit, act, entries)}
                  onCancel={() => setLeaving(undefined)}
                  onLeave={(what, limits, until) => {
                    setLeaving(undefined)
                    void storeOf(job).record({
                      do: 'measure',
                      measure: { id: newId(), what, limits, until, puts: act, at: new Date().toISOString() },
                    })
                  }}
                />
              )}
            </li>
          ))}
          {record.measures.map((measure) => (
            <li key={measure.id} className="measure">
              <span className="act">
                Left until <strong>{dayText(new Date(measure.until))}</strong>: {measure.what}
                {measure.limits && <span className="quiet"> {measure.limits}</span>}
              </span>
              <span className="buttons">
                <Button
                  variant="outline-primary"
                  onClick={() => void storeOf(job).record({ do: 'measure-ends', measure: measure.id })}
                >
                  Ended
                </Button>
              </span>
            </li>
          ))}
        </ul>
      </details>
    </section>
  )
}

interface LeaveForNowProps {
  what: string
  onLeave: (what: string, limits: string, until: string) => void
  onCancel: () => void
}

/** A temporary measure: what is left, within what limits, until when. */
function LeaveForNow({ what, onLeave, onCancel }: LeaveForNowProps) {
  const today = new Date()
  const inDays = (days: number) => new Date(today.getTime() + days * 86_400_000).toISOString().slice(0, 10)
  const [text, setText] = useState(`Not put back yet. ${what}`)
  const [limits, setLimits] = useState('')
  const [until, setUntil] = useState(inDays(7))
  return (
    <form
      className="leave-for-now"
      onSubmit={(event) => {
        event.preventDefault()
        if (text.trim() !== '' && until >= inDays(0)) onLeave(text.trim(), limits.trim(), until)
      }}
    >
      <label>
        What is left
        <input
          className="form-control"
          value={text}
          maxLength={300}
          required
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <label>
        Its limits
        <input
          className="form-control"
          value={limits}
          maxLength={300}
          placeholder="For example: only while somebody is in the house"
          onChange={(e) => setLimits(e.target.value)}
        />
      </label>
      <label>
        Ends on
        <input
          className="form-control"
          type="date"
          value={until}
          min={inDays(0)}
          required
          onChange={(e) => setUntil(e.target.value)}
        />
      </label>
      <span className="buttons">
        <Button type="submit">Leave it until then</Button>
        <Button variant="link" onClick={onCancel}>
          Back
        </Button>
      </span>
    </form>
  )
}
