import { resultWords, suspectText, type Circuit, type Diagnosis } from '@nobbet/core'
import type { Finding } from '@nobbet/contract'
import { Link } from 'react-router'
import { traceAddress } from '../trace/use-session'

interface SuspectsProps {
  job: string
  circuit: Circuit
  diagnosis: Diagnosis
  findings: readonly Finding[]
  working: boolean
}

/** The suspects, most likely first; below them who was ruled out, and by which finding. */
export function Suspects({ job, diagnosis, findings, working }: SuspectsProps) {
  const { suspects, excluded } = diagnosis
  const number = (id: string) => findings.findIndex((f) => f.id === id) + 1
  const heaviest = suspects[0]?.share ?? 1
  return (
    <aside className="sheet suspects" aria-label="Suspects" aria-busy={working}>
      <h2>
        <span className="count">{suspects.length}</span> {suspects.length === 1 ? 'suspect' : 'suspects'}
        <span className="quiet fw-normal"> of {suspects.length + excluded.length}</span>
      </h2>
      <ol>
        {suspects.map(({ fault, share }) => (
          <li key={fault?.name ?? 'nothing'} data-suspect={fault?.name ?? 'nothing'}>
            <span className="weight" style={{ width: `${(share / heaviest) * 100}%` }} aria-hidden />
            <span className="label">{suspectText(fault)}</span>
            <span className="share">{share < 0.01 ? 'under 1 %' : `${Math.round(share * 100)} %`}</span>
            {fault && (
              <Link
                to={traceAddress(job, [{ do: 'fault', fault: fault.name }])}
                aria-label={`Watch in Trace: ${fault.label}`}
              >
                Watch
              </Link>
            )}
          </li>
        ))}
        <li className="beyond">
          <span className="label">Something not in this list</span>
        </li>
      </ol>
      {excluded.length > 0 && (
        <details>
          <summary>{excluded.length} ruled out</summary>
          <ul>
            {excluded.map(({ fault, by }) => (
              <li key={fault?.name ?? 'nothing'}>
                {suspectText(fault)}
                <span className="quiet">
                  {' '}
                  by{' '}
                  {by
                    .map(
                      (b) =>
                        `finding ${number(b.finding)}: would have shown “${resultWords[b.expected].toLowerCase()}”`,
                    )
                    .join('; ')}
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </aside>
  )
}
