import {
  commandOf,
  deedText,
  culpritBasis,
  culpritText,
  findingKey,
  findingText,
  severityWords,
  type Circuit,
  type Command,
  type CheckFinding,
} from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { IntoRecord } from '../visit/into-record'
import { departedPlace } from '../wiring/departed-place'

interface FindingCardProps {
  job: string
  circuit: Circuit
  finding: CheckFinding
  /** What is behind it is still being looked for. */
  trying: boolean
  onApply: (remedy: Command) => void
  onWaive: (reason: string) => void
}

/** One finding: what, why it matters, what to do, and the press that does it. */
export function FindingCard({ job, circuit, finding, trying, onApply, onWaive }: FindingCardProps) {
  const [waiving, setWaiving] = useState<string>()
  const { title, reason, remedy } = findingText(circuit, finding)
  const { culprit } = finding
  const place = placeOf(finding)
  return (
    <li className={`finding ${finding.severity}`} data-rule={finding.rule} data-finding={findingKey(finding)}>
      <div className="finding-severity">{severityWords[finding.severity]}</div>
      <div className="finding-text">
        <h3>{title}</h3>
        {culprit && (
          <p className="culprit" data-culprit={culprit.what.kind}>
            <strong>{culpritText(circuit, culprit)}.</strong> <span className="quiet">{culpritBasis}</span>
          </p>
        )}
        <p>
          {reason} {!finding.remedy && remedy}
        </p>
        {trying && !finding.remedy && (
          <p className="quiet" role="status">
            Trying out what would put it right
          </p>
        )}
        {finding.reproduced === false && (
          <p className="quiet">
            In time it was not reproduced: with the times that these parts really take, the order of events is another.
          </p>
        )}
        <div className="finding-acts no-print">
          {finding.remedy && (
            <Button size="sm" onClick={() => onApply(commandOf(circuit.installation, finding.remedy!))}>
              {deedText(circuit.installation, finding.remedy.deed)}
            </Button>
          )}
          {finding.actions && (
            <Link
              className="btn btn-sm btn-outline-primary"
              to={`/jobs/${job}/trace?${new URLSearchParams(finding.actions.map((a) => ['do', a]))}`}
            >
              Play it back in Trace
            </Link>
          )}
          {place && (
            <Link className="btn btn-sm btn-outline-primary" to={`/jobs/${job}/bench?at=${encodeURIComponent(place)}`}>
              Show it on the Bench
            </Link>
          )}
          <IntoRecord
            job={job}
            kind="found"
            severity={finding.severity === 'danger' ? 'danger' : 'fault'}
            text={`${title}. ${culprit ? culpritText(circuit, culprit) : reason}`}
            part={finding.devices?.[0]}
            evidence={[]}
          />
          <Button size="sm" variant="link" onClick={() => setWaiving(waiving === undefined ? '' : undefined)}>
            Let it stand
          </Button>
        </div>
        {waiving !== undefined && (
          <Form
            className="waive"
            onSubmit={(event) => {
              event.preventDefault()
              if (waiving.trim().length >= 3) onWaive(waiving.trim())
            }}
          >
            <Form.Label htmlFor={`why-${findingKey(finding)}`}>Why it may stand</Form.Label>
            <div className="d-flex gap-2">
              <Form.Control
                id={`why-${findingKey(finding)}`}
                autoFocus
                value={waiving}
                onChange={(e) => setWaiving(e.target.value)}
                placeholder="Written down, and kept with the wiring"
              />
              <Button type="submit" disabled={waiving.trim().length < 3}>
                Keep
              </Button>
            </div>
          </Form>
        )}
      </div>
    </li>
  )
}

/** Where on the Bench a finding is looked at: what is behind it, else the conductor or terminal it names. */
function placeOf({ culprit, cores, terminals }: CheckFinding): string | undefined {
  const [core] = cores ?? []
  return (culprit && departedPlace(culprit.what)) ?? (core ? `${core.cable}.${core.core}` : terminals[0])
}
