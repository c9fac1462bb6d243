import {
  controlStateText,
  methodText,
  observableText,
  questionText,
  resultWords,
  suspectText,
  type Circuit,
  type ControlState,
  type Diagnosis,
  type FindingResult,
  type NextReading,
  type Observable,
} from '@nobbet/core'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { useHotkeys } from 'react-hotkeys-hook'
import { IsolationStep, useIsolation } from '../shell/isolation-step'

interface NextCardProps {
  job: string
  circuit: Circuit
  diagnosis: Diagnosis
  working: boolean
  onLog: (asking: ControlState, observable: Observable, result: FindingResult) => void
  onOwn: () => void
}

/** What to do next, where, and what each answer would mean; or, at the end, what it comes down to. */
export function NextCard(props: NextCardProps) {
  const { circuit, diagnosis } = props
  const [choice, setChoice] = useState<string>()
  const [on, setOn] = useState(false)
  const { next, enough } = diagnosis
  if (next.length === 0 || (enough && !on)) return <Conclusion {...props} onFurther={() => setOn(true)} />
  const keyOf = (reading: NextReading) => JSON.stringify([reading.asking, reading.observable])
  const reading = next.find((r) => keyOf(r) === choice) ?? next[0]
  return (
    <section className="sheet next-card" aria-label="Next reading">
      <Reading key={keyOf(reading)} {...props} reading={reading} />
      <div className="others">
        {next.length > 1 && (
          <details>
            <summary>Other readings that would tell</summary>
            <ul>
              {next
                .filter((r) => r !== reading)
                .map((r) => (
                  <li key={keyOf(r)}>
                    <button className="btn btn-link" onClick={() => setChoice(keyOf(r))}>
                      {observableText(circuit, r.observable)}
                    </button>
                    <span className="quiet">
                      {controlStateText(circuit, r.asking)}; {r.minutes} min
                    </span>
                  </li>
                ))}
            </ul>
          </details>
        )}
        <Button variant="outline-primary" onClick={props.onOwn}>
          Log something else
        </Button>
      </div>
    </section>
  )
}

function Reading({ job, circuit, working, reading, onLog }: NextCardProps & { reading: NextReading }) {
  const { asking, observable, outcomes, minutes } = reading
  const [isolated] = useIsolation(job)
  const live = observable.kind === 'terminal'
  const answer = (result: FindingResult) => onLog(asking, observable, result)
  useHotkeys('1', () => answer(outcomes[0].answer), { enabled: !working })
  useHotkeys('2', () => answer(outcomes[1].answer), { enabled: !working })
  return (
    <>
      <p className="step">
        <span>Set</span> {controlStateText(circuit, asking)}. Let valves and overrun come to rest.
      </p>
      <h2 className="question">{questionText(circuit, observable)}</h2>
      <p className="method">{methodText(circuit, observable)}</p>
      {live && (
        <>
          {!isolated && <IsolationStep job={job} before="the cover comes off" />}
          <p className="caution">
            Live reading: only if you are competent to work live. Can’t? Say so below, another way is found.
          </p>
        </>
      )}
      <div className="answers">
        {outcomes.map(({ answer: result, remaining }, i) => (
          <button
            key={result}
            className="answer"
            disabled={working}
            onClick={() => answer(result)}
            title={`Key ${i + 1}`}
          >
            <span className="answer-word">{resultWords[result]}</span>
            <span>leaves {remaining} above 1 %</span>
          </button>
        ))}
        <button className="answer less" disabled={working} onClick={() => answer('cannot-do')}>
          {resultWords['cannot-do']}
        </button>
        <button className="answer less" disabled={working} onClick={() => answer('cannot-tell')}>
          {resultWords['cannot-tell']}
        </button>
      </div>
      <p className="quiet mb-0">About {minutes} min. Chosen because it tells most for each minute.</p>
    </>
  )
}

/** What it comes down to, and what cures it; further readings tell nothing, or cost more than they save. */
function Conclusion({ diagnosis, onOwn, onFurther }: NextCardProps & { onFurther: () => void }) {
  const { suspects, next, enough } = diagnosis
  const cured = enough ? suspects.filter(({ id }) => enough.suspects.includes(id)) : suspects.slice(0, mostTold)
  const share = cured.reduce((sum, one) => sum + one.share, 0)
  const sure = <span className="quiet">{Math.round(share * 100)} % sure</span>
  return (
    <section className="sheet next-card conclusion" aria-label="Conclusion">
      {enough && cured.length > 0 ? (
        <>
          <p className="step">It comes down to {sure}</p>
          {cured.slice(0, mostTold).map((one) => (
            <h2 className="question" key={one.id}>
              {suspectText(one)}
            </h2>
          ))}
          <p className="method">{enough.text || 'Nothing to mend: say how it works.'}</p>
        </>
      ) : (
        <>
          <p className="step">No further reading tells these apart</p>
          <ul className="left-over">
            {cured.map((one) => (
              <li key={one.id}>
                <strong>{suspectText(one)}</strong> <span className="quiet">{Math.round(one.share * 100)} %</span>
                {one.remedy && <div>{one.remedy}</div>}
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="quiet">
        {next.length > 0 && 'Looking on would cost more than it saves. '}Something that is not in the list is never
        ruled out.
      </p>
      {next.length > 0 && (
        <Button variant="outline-primary" className="me-2" onClick={onFurther}>
          Look on
        </Button>
      )}
      <Button variant="outline-primary" onClick={onOwn}>
        Log another finding
      </Button>
    </section>
  )
}
/** So many suspects are told at the end; the others stand in the list. */
const mostTold = 6
