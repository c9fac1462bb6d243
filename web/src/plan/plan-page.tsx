import { errorText } from '../api/client'
import { basisText, isGrave, nobodyLooked, same, verdictText, type Installation } from '@nobbet/core'
import { Button, Form } from 'react-bootstrap'
import { Link, useParams, useSearchParams } from 'react-router'
import { v4 as newId } from 'uuid'
import { useJob } from '../store/use-job'
import { dayText, momentText } from '../drawing/dates'
import { IsolationStep } from '../shell/isolation-step'
import { Failed, Loading } from '../shell/notes'
import { useVerdict } from '../workers/use-verdict'
import { Departures } from './departures'
import { DeviceTypes } from './device-types'
import { Papers } from './papers'
import { CableSchedule, TerminalSchedule } from './schedules'

/** The wiring as schedules, under the check's verdict. */
export function PlanPage() {
  const { job = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  const { state, error, store } = useJob(job)
  const shownRevision = search.get('revision')
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the wiring" />

  const { revisions, document } = state
  const revision = revisions.find((r) => r.id === shownRevision)
  const installation = revision?.installation ?? document.wiring
  const put = (key: string, value: string | undefined) => {
    const next = new URLSearchParams(search)
    if (value === undefined) next.delete(key)
    else next.set(key, value)
    setSearch(next, { replace: true })
  }
  const keep = (ends: Record<string, string>) => {
    const fitted = { ...document.brief.fitted, kept: Object.keys(ends).length > 0 ? ends : undefined }
    const wanted = { ...document, brief: { ...document.brief, fitted } }
    void store.editFrom(
      Object.keys(ends).length > 0 ? 'Conductors kept where they are' : 'Conductors let go',
      document,
      wanted,
    )
  }
  const kept = revisions.some((r) => same(r.installation, document.wiring))
  return (
    <main className="page plan">
      <h1 className="d-none d-print-block">
        {installation.name}: {revision ? revision.name.toLowerCase() : 'the wiring as it stands'}
      </h1>
      <Verdict installation={installation} job={job} />
      <div className="plan-tools d-flex flex-wrap gap-2 align-items-center mb-3 no-print">
        {revisions.length > 0 && (
          <Form.Select
            aria-label="Which state of the wiring"
            style={{ width: 'auto' }}
            value={revision?.id ?? ''}
            onChange={(event) => put('revision', event.target.value || undefined)}
          >
            <option value="">The wiring as it stands</option>
            {revisions.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}, kept {momentText(r.createdAt)}
              </option>
            ))}
          </Form.Select>
        )}
        {!revision && (
          <Button
            variant="outline-primary"
            disabled={kept}
            onClick={() => void store.record({ do: 'keep', revision: newId(), kind: 'planned', name: 'As planned' })}
          >
            {kept ? 'Kept as planned' : 'Keep as planned'}
          </Button>
        )}
        {!revision && (
          <Link className="btn btn-primary" to="../plan/steps">
            Steps to terminate it
          </Link>
        )}
        <Button
          variant="outline-primary"
          aria-expanded={search.has('papers')}
          onClick={() => put('papers', search.has('papers') ? undefined : 'open')}
        >
          Papers, labels, lid sheet
        </Button>
        <Button variant="outline-primary" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      {search.has('papers') && (
        <Papers
          installation={installation}
          job={document.brief.site}
          attends={document.brief.engineer}
          stepsFrom={document.brief.fitted.first}
          revision={
            revision
              ? `${revision.name}, kept ${dayText(new Date(revision.createdAt))}`
              : kept
                ? 'The wiring as it stands, kept as a revision'
                : 'The wiring as it stands, not kept yet'
          }
        />
      )}
      {/* On the screen it stands with the steps, where the hand goes to work. */}
      <div className="d-none d-print-block mb-3">
        <IsolationStep job={job} before="any conductor is moved" />
      </div>
      <div className="plan-grid">
        {installation.wiringCentres.map((centre) => (
          <TerminalSchedule key={centre.id} installation={installation} centre={centre} />
        ))}
        <CableSchedule installation={installation} />
      </div>
      {!revision && <Departures document={document} onKeep={keep} />}
      {!revision && (
        <div className="no-print mt-3">
          <DeviceTypes job={job} />
        </div>
      )}
    </main>
  )
}

/** The verdict in one line; the findings stand in Checks. */
function Verdict({ installation, job }: { installation: Installation; job: string }) {
  const { findings, states, known, error } = useVerdict(installation)
  if (error) return <p className="sheet verdict bad">The check could not be run: {errorText(error)}</p>
  if (!findings || !known || !states) return <p className="sheet verdict">Checking the wiring</p>
  const unseen = nobodyLooked(known)
  return (
    <section
      className={`sheet verdict ${findings.some(isGrave) ? 'bad' : unseen ? 'unseen' : ''}`}
      aria-label="Verdict of the check"
    >
      <div>
        <div className="says">{verdictText({ findings, known, states })}</div>
        <div>{basisText(known, states)}</div>
      </div>
      <span />
      <div className="d-flex gap-2 no-print">
        <Link className="btn btn-outline-primary" to={`/jobs/${job}/checks`}>
          See the findings
        </Link>
        <Link className="btn btn-primary" to={`/jobs/${job}/${unseen ? 'hunt' : 'trace'}`}>
          {unseen ? 'Start the hunt' : 'Trace it'}
        </Link>
      </div>
    </section>
  )
}
