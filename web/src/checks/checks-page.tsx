import { errorText } from '../api/client'
import {
  basisText,
  compile,
  findingKey,
  findingText,
  isGrave,
  nobodyLooked,
  verdictText,
  type Command,
} from '@nobbet/core'
import { useMemo, useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { IsolationGate } from '../bench/isolation-gate'
import { useIsolation } from '../shell/isolation-step'
import { Failed, Loading } from '../shell/notes'
import { Progress } from '../shell/progress'
import { planOf } from '../wiring/plan-of'
import { WiringTools } from '../wiring/saving-note'
import { useWiring } from '../wiring/use-wiring'
import { useCures, useVerdict } from '../workers/use-verdict'
import { AllStatesView } from './all-states'
import { FaultEnds } from './fault-ends'
import { FindingCard } from './finding-card'

/** One verdict, then the findings in the order in which they would hurt; then all states. */
export function ChecksPage() {
  const { job = '' } = useParams()
  const wiring = useWiring(job)
  const { doc, view } = wiring
  const verdict = useVerdict(doc)
  const plan = planOf(view.state)
  const cures = useCures(doc, verdict, plan)
  const circuit = useMemo(() => doc && compile(doc), [doc])
  const [isolated, acknowledge] = useIsolation(job)
  const [waiting, setWaiting] = useState<Command>()
  if (view.error) return <Failed error={view.error} retry={wiring.again} />
  if (!doc || !circuit) return <Loading what="the wiring" />

  const waivers = new Map((doc.waivers ?? []).map((w) => [w.id, w.reason]))
  const findings = cures.findings ?? verdict.findings ?? []
  const standing = findings.filter((f) => !waivers.has(findingKey(f)))
  const waived = findings.filter((f) => waivers.has(findingKey(f)))
  const perform = (command: Command) => (isolated ? wiring.perform(command) : setWaiting(command))
  const waive = (id: string, label: string, reason: string): Command => ({
    label: `Let stand: ${label}`,
    changes: [{ do: 'put', in: 'waivers', value: { id, reason } }],
  })
  const grave = standing.some(isGrave)
  const unseen = verdict.known !== undefined && nobodyLooked(verdict.known)
  return (
    <main className="page checks">
      <header className="work-tools no-print">
        <WiringTools {...wiring} />
      </header>
      <section
        className={`sheet verdict ${grave ? 'bad' : unseen ? 'unseen' : ''}`}
        aria-label="Verdict of the check"
        aria-busy={verdict.progress !== undefined}
      >
        <div>
          {verdict.error ? (
            <div className="says">The check could not be run: {errorText(verdict.error)}</div>
          ) : !verdict.findings || (!verdict.states && !verdict.stopped) ? (
            <div className="says">
              {grave ? verdictText({ findings: standing, known: verdict.known }) : 'Looking at every state'}
            </div>
          ) : (
            <div className="says">
              {verdict.stopped
                ? 'Stopped before all states were looked at'
                : verdictText({ findings: standing, known: verdict.known, states: verdict.states })}
            </div>
          )}
          {verdict.known && <div className="basis">{basisText(verdict.known, verdict.states)}</div>}
        </div>
        <span />
        {unseen && (
          <Link className="btn btn-primary no-print" to={`/jobs/${job}/hunt`}>
            Start the hunt
          </Link>
        )}
        {verdict.progress !== undefined && (
          <div className="run-progress no-print">
            <Progress label="Looking at every state" />
            <span role="status">{verdict.progress} states</span>
            <Button size="sm" variant="outline-dark" onClick={verdict.stop}>
              Stop
            </Button>
          </div>
        )}
        {verdict.stopped && (
          <Button className="no-print" onClick={verdict.again}>
            Look at all states
          </Button>
        )}
      </section>
      {standing.length > 0 && (
        <ul className="finding-list" aria-label="Findings">
          {standing.map((finding) => (
            <FindingCard
              key={findingKey(finding)}
              job={job}
              circuit={circuit}
              finding={finding}
              trying={cures.trying}
              onApply={perform}
              onWaive={(reason) =>
                wiring.perform(waive(findingKey(finding), findingText(circuit, finding).title, reason))
              }
            />
          ))}
        </ul>
      )}
      {waived.length > 0 && (
        <section className="sheet waived" aria-label="Let stand">
          <h2>Let stand, with a reason</h2>
          <ul>
            {waived.map((finding) => {
              const id = findingKey(finding)
              const { title } = findingText(circuit, finding)
              return (
                <li key={id}>
                  <strong>{title}.</strong> {waivers.get(id)}{' '}
                  <Button
                    size="sm"
                    variant="outline-dark"
                    className="no-print"
                    onClick={() =>
                      wiring.perform({
                        label: `No longer let stand: ${title}`,
                        changes: [{ do: 'drop', in: 'waivers', id }],
                      })
                    }
                  >
                    Take back
                  </Button>
                </li>
              )
            })}
          </ul>
        </section>
      )}
      {verdict.states && verdict.known && (
        <AllStatesView circuit={circuit} states={verdict.states} known={verdict.known}>
          <FaultEnds job={job} installation={doc} />
        </AllStatesView>
      )}
      <IsolationGate
        job={job}
        show={waiting !== undefined}
        onAcknowledged={() => {
          acknowledge()
          if (waiting) wiring.perform(waiting)
          setWaiting(undefined)
        }}
        onLeave={() => setWaiting(undefined)}
      />
    </main>
  )
}
