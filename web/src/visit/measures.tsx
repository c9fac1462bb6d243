import { openMeasures, type Measure } from '@nobbet/contract'
import { Hourglass } from 'lucide-react'
import { Button } from 'react-bootstrap'
import { dayText } from '../drawing/dates'
import { dueText, isOver } from './due-text'
import { putBack } from './put-back'
import type { RecordHandle } from './use-record'

/** What is left for now, with its limits and its day. */
export function Measures({ handle }: { handle: RecordHandle }) {
  const { record, store } = handle
  const measures = record ? openMeasures(record) : []
  if (measures.length === 0) return null
  const end = async ({ id, puts }: Measure) => {
    await store.record({ do: 'measure-ends', measure: id })
    if (puts === undefined) return
    const ofRecord = record?.disturbed.some((one) => one.id === puts)
    await putBack(store, { id: puts, by: ofRecord ? 'wiring' : 'hunt' })
  }
  return (
    <section className="sheet measures" aria-label="Left for now">
      <h2>
        <Hourglass size={20} aria-hidden /> Left for now
      </h2>
      <ul>
        {measures.map((measure) => (
          <li key={measure.id} className={isOver(measure.until) ? 'over' : ''} data-measure={measure.id}>
            <p className="until">
              <strong>{dueText(measure.until)}</strong> until {dayText(new Date(measure.until))}
            </p>
            <p>{measure.what}</p>
            <dl>
              {(
                [
                  ['Why', measure.why],
                  ['Limits', measure.limits],
                  ['May happen', measure.risk],
                  ['Told', measure.told],
                ] as const
              ).map(
                ([name, text]) =>
                  text && (
                    <div key={name}>
                      <dt>{name}</dt>
                      <dd>{text}</dd>
                    </div>
                  ),
              )}
            </dl>
            <Button variant="outline-primary" onClick={() => void end(measure)}>
              Put back, ended
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
