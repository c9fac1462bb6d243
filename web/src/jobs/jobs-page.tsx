import type { JobSummary } from '@nobbet/contract'
import { schemes } from '@nobbet/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { errorText } from '../api/client'
import { useJobs, useSaveJob } from '../api/hooks'
import { momentText } from '../drawing/dates'
import { lastPlace } from '../shell/last-place'
import { Failed, Loading } from '../shell/notes'
import { kindWords } from './words'

/** What needs me today: open jobs, each one press from where it was left. */
export function JobsPage() {
  const { data, error, isPending, refetch } = useJobs()
  const [closedToo, setClosedToo] = useState(false)
  if (isPending) return <Loading what="the jobs" />
  if (error) return <Failed error={error} retry={() => void refetch()} />
  const closed = data.filter((job) => job.status === 'closed')
  const shown = closedToo ? data : data.filter((job) => job.status === 'open')
  return (
    <main className="page">
      <div className="jobs-head">
        <h1 className="m-0">{shown.length === 1 ? '1 job' : `${shown.length} jobs`}</h1>
        <Link to="/jobs/new" className="btn btn-primary">
          New job
        </Link>
      </div>
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

function JobRow({ job }: { job: JobSummary }) {
  const { brief } = job
  const save = useSaveJob()
  const place = lastPlace(job.id, brief.kind)
  const other = job.status === 'open' ? 'closed' : 'open'
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
        {save.error && (
          <div role="alert" className="text-danger">
            {errorText(save.error)}
          </div>
        )}
      </div>
      <div className="go">
        <button
          className="btn btn-link"
          disabled={save.isPending}
          onClick={() => save.mutate({ job: job.id, write: { brief, status: other }, over: job.version })}
        >
          {job.status === 'open' ? 'Close' : 'Open again'}
        </button>
        <Link className="btn btn-primary" to={`/jobs/${job.id}/${place}`}>
          Go on: {place[0].toUpperCase() + place.slice(1)}
        </Link>
      </div>
    </li>
  )
}
