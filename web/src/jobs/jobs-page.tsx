import type { JobSummary } from '@nobbet/contract'
import { schemes } from '@nobbet/core'
import { useQueryClient } from '@tanstack/react-query'
import { Clock } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { errorText } from '../api/client'
import { useJobs, useLocalJobs, type LocalJob } from '../api/hooks'
import { momentText } from '../drawing/dates'
import { lastPlace } from '../shell/last-place'
import { Failed, Loading } from '../shell/notes'
import { storeOf } from '../store/stores'
import { kindWords } from './words'

/** What needs me today: open jobs, each one press from where it was left. */
export function JobsPage() {
  const { data, error, isPending, refetch } = useJobs()
  const [closedToo, setClosedToo] = useState(false)
  const { data: local = [] } = useLocalJobs(data?.readAt)
  if (isPending) return <Loading what="the jobs" />
  // What is known stays, whatever a later answer was.
  if (error && !data && local.length === 0) return <Failed error={error} retry={() => void refetch()} />
  const jobs = withLocal(data?.jobs ?? [], local)
  const closed = jobs.filter((job) => job.status === 'closed')
  const shown = closedToo ? jobs : jobs.filter((job) => job.status === 'open')
  return (
    <main className="page">
      <div className="jobs-head">
        <h1 className="m-0">{shown.length === 1 ? '1 job' : `${shown.length} jobs`}</h1>
        <Link to="/jobs/new" className="btn btn-primary">
          New job
        </Link>
      </div>
      {error && !data && (
        <p className="age" role="status">
          <Clock size={16} aria-hidden /> Only the jobs this browser knows. {errorText(error)}
        </p>
      )}
      {data?.stale && (
        <p className="age" role="status">
          <Clock size={16} aria-hidden /> As of {momentText(new Date(data.readAt).toISOString())}. {data.stale}
        </p>
      )}
      {shown.length === 0 ? (
        <div className="sheet panel-note">
          <h2>No open jobs</h2>
          <p>A job takes a site and what is fitted. The wiring is laid out from that, and you can trace it at once.</p>
          <Link to="/jobs/new" className="btn btn-primary">
            Make the first one
          </Link>
        </div>
      ) : (
        <ul className="job-list">
          {shown.map((job) => (
            <JobRow key={job.id} job={job} />
          ))}
        </ul>
      )}
      {closed.length > 0 && (
        <button className="btn btn-link px-0 mt-3" onClick={() => setClosedToo(!closedToo)}>
          {closedToo ? 'Hide closed jobs' : `Show ${closed.length} closed`}
        </button>
      )}
    </main>
  )
}

type Row = JobSummary & { unsent?: boolean }

/** The list as the server has it, with what stands otherwise here. */
function withLocal(jobs: readonly JobSummary[], local: readonly LocalJob[]): Row[] {
  const here = new Map(local.map((one) => [one.job, one]))
  const known = new Set(jobs.map((job) => job.id))
  const now = new Date().toISOString()
  const made = local
    .filter(({ job }) => !known.has(job))
    .map(({ job, summary, unsent }) => ({ id: job, ...summary, createdAt: now, updatedAt: now, unsent }))
  return [...made, ...jobs.map((job) => ({ ...job, ...here.get(job.id)?.summary, unsent: here.get(job.id)?.unsent }))]
}

function JobRow({ job }: { job: Row }) {
  const { brief } = job
  const queries = useQueryClient()
  const place = lastPlace(job.id, brief.kind)
  const other = job.status === 'open' ? 'closed' : 'open'
  const change = async () => {
    const store = storeOf(job.id)
    await store.load()
    await store.edit(other === 'closed' ? 'Job closed' : 'Job opened again', (d) => ({ ...d, status: other }))
    await queries.invalidateQueries({ queryKey: ['local-jobs'] })
  }
  return (
    <li className={`sheet ${brief.kind} ${job.status}`}>
      <div>
        <div className="site">
          <Link to={`/jobs/${job.id}/${place}`}>{brief.site}</Link>
        </div>
        <div>
          <span className={`kind ${brief.kind}`}>{kindWords[brief.kind]}</span>
          <span className="meta">
            {schemes[brief.fitted.scheme].name}: {brief.fitted.circuits.map((c) => c.name).join(', ')}
            {job.findings > 0 && ` · ${job.findings} finding${job.findings === 1 ? '' : 's'}`} · changed{' '}
            {momentText(job.updatedAt)}
          </span>
        </div>
        {brief.symptom && <div className="symptom">“{brief.symptom}”</div>}
        {job.unsent && <div className="unsent">Kept in this browser, not sent yet</div>}
      </div>
      <div className="go">
        <button className="btn btn-link" onClick={() => void change()}>
          {job.status === 'open' ? 'Close' : 'Open again'}
        </button>
        <Link className="btn btn-primary" to={`/jobs/${job.id}/${place}`}>
          Go on: {place[0].toUpperCase() + place.slice(1)}
        </Link>
      </div>
    </li>
  )
}
