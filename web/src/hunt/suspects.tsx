import { expectedText, suspectText, type Diagnosis } from '@nobbet/core'
import type { Finding } from '@nobbet/contract'
import { Link } from 'react-router'
import { traceAddress } from '../trace/use-session'

interface SuspectsProps {
  job: string
  diagnosis: Diagnosis
  findings: readonly Finding[]
  working: boolean
}

/** The suspects, most likely first; below them who is unlikely, and by which finding. */
export function Suspects({ job, diagnosis, findings, working }: SuspectsProps) {
  const { suspects, unlikely, doubtful } = diagnosis
  const number = (id: string) => findings.findIndex((f) => f.id === id) + 1
  const heaviest = suspects[0]?.share ?? 1
  const [mistaken] = doubtful
  return (
    <aside className="sheet suspects" aria-label="Suspects" aria-busy={working}>
      <h2>
        <span className="count">{suspects.length}</span> {suspects.length === 1 ? 'suspect' : 'suspects'}
        <span className="quiet fw-normal"> of {suspects.length + unlikely.length}</span>
      </h2>
      {mistaken && (
        <p className="doubtful">
          Finding {number(mistaken)} does not go with the rest. Look again, or take it back if it was not sure.
        </p>
      )}
      <ol>
        {suspects.map(({ id, label, share, fault }) => (
          <li key={id} data-suspect={id}>
            <span className="weight" style={{ width: `${(share / heaviest) * 100}%` }} aria-hidden />
            <span className="label">{suspectText({ id, label })}</span>
            <span className="share">{share < 0.01 ? 'under 1 %' : `${Math.round(share * 100)} %`}</span>
            {fault && (
              <Link to={traceAddress(job, [{ do: 'fault', fault }])} aria-label={`Watch in Trace: ${label}`}>
                Watch
              </Link>
            )}
          </li>
        ))}
      </ol>
      {unlikely.length > 0 && (
        <details>
          <summary>{unlikely.length} unlikely</summary>
          <ul>
            {unlikely.map(({ id, label, against }) => (
              <li key={id}>
                {suspectText({ id, label })}
                <span className="quiet">
                  {against.length === 0
                    ? ': nothing speaks against it, others are likelier'
                    : ` by ${against
                        .map((b) => `finding ${number(b.finding)}: would have shown “${expectedText(b.expected)}”`)
                        .join('; ')}`}
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </aside>
  )
}
