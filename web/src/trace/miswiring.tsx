import { culpritBasis, culpritText, findingKey, type Circuit } from '@nobbet/core'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { useCures, useVerdict } from '../workers/use-verdict'

/**
 * Where there is no plan to compare with: single changes of the wiring are tried, as Checks tries them, and what puts it right names
 * what is wrong.
 */
export function Miswiring({ circuit, job }: { circuit: Circuit; job?: string }) {
  const [looking, setLooking] = useState(false)
  return looking ? (
    <Tried circuit={circuit} job={job} />
  ) : (
    <p>
      <Button size="sm" variant="outline-dark" onClick={() => setLooking(true)}>
        Try what in the wiring would put it right
      </Button>
    </p>
  )
}

function Tried({ circuit, job }: { circuit: Circuit; job?: string }) {
  const { installation } = circuit
  const verdict = useVerdict(installation)
  const cures = useCures(installation, verdict, undefined)
  const findings = cures.findings ?? verdict.findings
  const culprits = (findings ?? []).flatMap((f) => (f.culprit ? [{ key: findingKey(f), culprit: f.culprit }] : []))
  const texts = [...new Set(culprits.map(({ culprit }) => culpritText(circuit, culprit)))]
  const busy = verdict.progress !== undefined || cures.trying
  return (
    <div className="miswiring" role="status">
      <h3>Tried in the wiring</h3>
      {verdict.error && <p>It could not be tried: the check could not be run.</p>}
      {busy && <p className="quiet">Every state is looked at, and what would put it right tried out.</p>}
      {texts.map((text) => (
        <p key={text}>
          <strong>✕ {text}.</strong> <span className="quiet">{culpritBasis}</span>
        </p>
      ))}
      {!busy && !verdict.error && texts.length === 0 && (
        <p>
          {findings?.length === 0
            ? 'Checks finds nothing wrong in this wiring.'
            : 'No single change of the wiring was found that puts it right.'}
        </p>
      )}
      {job && (
        <p>
          <Link to={`/jobs/${job}/checks`}>All of it in Checks</Link>
        </p>
      )}
    </div>
  )
}
