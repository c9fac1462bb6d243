import { controlStateText, observableText, resultWords, type Circuit } from '@nobbet/core'
import type { Finding } from '@nobbet/contract'
import { momentText } from '../drawing/dates'

interface FindingLogProps {
  circuit: Circuit
  findings: readonly Finding[]
  fits: (finding: Finding) => boolean
  onTakeBack: (finding: Finding) => void
  /** The finding that was taken back last, while it can be put back. */
  taken?: Finding
  onPutBack: () => void
}

/** What was found, in order; each can be taken back. */
export function FindingLog({ circuit, findings, fits, onTakeBack, taken, onPutBack }: FindingLogProps) {
  let number = 0
  return (
    <section className="sheet finding-log" aria-label="Findings">
      <h2>Findings</h2>
      {taken && (
        <p className="taken" role="status">
          Finding taken back.{' '}
          <button className="btn btn-link" onClick={onPutBack}>
            Put it back
          </button>
        </p>
      )}
      {findings.length === 0 && (
        <p className="quiet">None yet. Answer the card above, or log what you have seen already.</p>
      )}
      <ol>
        {findings.map((finding) => {
          const fitting = fits(finding)
          if (fitting) number++
          return (
            <li key={finding.id} className={fitting ? '' : 'aside'}>
              <span className="no">{fitting ? number : '–'}</span>
              <span className="what">
                <strong>
                  {fitting ? observableText(circuit, finding.observable) : 'Something no longer there'}:{' '}
                  {resultWords[finding.result]}
                </strong>
                <span className="quiet">
                  {fitting
                    ? controlStateText(circuit, finding.asking)
                    : 'Set aside: the present wiring does not have it'}{' '}
                  · {momentText(finding.at)}
                </span>
              </span>
              <button
                className="btn btn-link"
                onClick={() => onTakeBack(finding)}
                aria-label={`Take back finding ${number}`}
              >
                Take back
              </button>
            </li>
          )
        })}
      </ol>
    </section>
  )
}
