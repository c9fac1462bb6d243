import { daysInBin, type JobSummary } from '@nobbet/contract'
import { schemes, type SchemeId } from '@nobbet/core'
import { useQueryClient } from '@tanstack/react-query'
import { Clock, Search } from 'lucide-react'
import { useDeferredValue, useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { call, errorText } from '../api/client'
import { useJobs, useLocalJobs, type LocalJob } from '../api/hooks'
import { momentText } from '../drawing/dates'
import { lastPlace } from '../shell/last-place'
import { Failed, Loading } from '../shell/notes'
import { Bin } from './bin'
import { kindWords } from './words'

/** From so many jobs on they are looked for by their site. */
const many = 8

/** What needs me today: open jobs, each one press from where it was left. */
export function JobsPage() {
  const [closedToo, setClosedToo] = useState(false)
  const [find, setFind] = useState('')
  const [binOpen, setBinOpen] = useState(false)
  const [deleted, setDeleted] = useState<Pick<JobSummary, 'id' | 'site'>>()
  const [problem, setProblem] = useState<string>()
  const sought = useDeferredValue(find.trim())
  const queries = useQueryClient()
  const { data, error, isPending, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = useJobs({
    status: closedToo ? 'all' : 'open',
    find: sought,
  })
  const first = data?.pages[0]
  const { data: local = [] } = useLocalJobs(first?.readAt)
  if (isPending) return <Loading what="the jobs" />
  // What is known stays, whatever a later answer was.
  if (error && !data && local.length === 0) return <Failed error={error} retry={() => void refetch()} />
  const read = data?.pages.flatMap((page) => page.jobs) ?? []
  const jobs = withLocal(read, local, sought).filter((job) => job.id !== deleted?.id)
  const shown = closedToo ? jobs : jobs.filter((job) => job.status === 'open')
  const here = new Map(local.map((one) => [one.job, one.summary.status]))
  const closedHere = [...here].filter(
    ([id, s]) => s === 'closed' && !first?.jobs.some((j) => j.id === id && j.status === 'closed'),
  )
  const closed =
    (first?.counts?.closed ?? read.filter((j) => j.status === 'closed' && !here.has(j.id)).length) + closedHere.length
  const total = first?.counts && !sought && !closedToo && hasNextPage ? first.counts.open : shown.length
  const all = (first?.counts?.open ?? 0) + closed
  const changed = () => queries.invalidateQueries({ queryKey: ['jobs'] })
  const remove = async (job: Row) => {
    try {
      setProblem(undefined)
      await call('deleteJob', { params: { job: job.id }, over: job.number })
      setDeleted(job)
      await changed()
    } catch (failure) {
      setProblem(`“${job.site}” was not deleted. ${errorText(failure as Error)}`)
    }
  }
  const back = async (id: string) => {
    try {
      await call('restoreJob', { params: { job: id }, body: {} })
      setDeleted(undefined)
      await changed()
    } catch (failure) {
      setProblem(errorText(failure as Error))
    }
  }
  return (
    <main className="page">
      <div className="jobs-head">
        <h1 className="m-0">{total === 1 ? '1 job' : `${total} jobs`}</h1>
        {(all >= many || find) && (
          <label className="jobs-find">
            <Search size={18} aria-hidden />
            <Form.Control
              type="search"
              aria-label="Find a job"
              placeholder="Site or symptom"
              value={find}
              maxLength={120}
              onChange={(e) => setFind(e.target.value)}
            />
          </label>
        )}
        <span className="jobs-begin">
          <Link to="/jobs/start" className="btn btn-primary">
            Start a hunt
          </Link>
          <Link to="/jobs/new" className="btn btn-outline-primary">
            New job
          </Link>
        </span>
      </div>
      {deleted && (
        <p className="condition age" role="status">
          <span>
            “{deleted.site}” is in the bin, and gone for good in {daysInBin} days.
          </span>
          <button className="btn btn-sm btn-outline-primary" onClick={() => void back(deleted.id)}>
            Undo
          </button>
        </p>
      )}
      {problem && (
        <p className="condition stopped" role="alert">
          {problem}
        </p>
      )}
      {error && !data && (
        <p className="age" role="status">
          <Clock size={16} aria-hidden /> Only the jobs this browser knows. {errorText(error)}
        </p>
      )}
      {first?.stale && (
        <p className="age" role="status">
          <Clock size={16} aria-hidden /> As of {momentText(new Date(first.readAt).toISOString())}. {first.stale}
        </p>
      )}
      {shown.length === 0 && sought ? (
        <div className="sheet panel-note">
          <h2>No job has “{sought}” in its site or symptom</h2>
          {!closedToo && closed > 0 && <p>Closed jobs were not looked through.</p>}
        </div>
      ) : shown.length === 0 ? (
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
            <JobRow key={job.id} job={job} remove={() => void remove(job)} refuse={setProblem} />
          ))}
        </ul>
      )}
      {hasNextPage && (
        <button
          className="btn btn-outline-dark mt-3 me-3"
          disabled={isFetchingNextPage}
          onClick={() => void fetchNextPage()}
        >
          {isFetchingNextPage ? 'Fetching' : 'Show more'}
        </button>
      )}
      {closed > 0 && (
        <button className="btn btn-link px-0 mt-3 me-3" onClick={() => setClosedToo(!closedToo)}>
          {closedToo ? 'Hide closed jobs' : `Show ${closed} closed`}
        </button>
      )}
      {(first?.counts?.deleted ?? 0) > 0 && (
        <button className="btn btn-link px-0 mt-3" aria-expanded={binOpen} onClick={() => setBinOpen(!binOpen)}>
          {binOpen ? 'Hide the bin' : `Bin: ${first!.counts!.deleted}`}
        </button>
      )}
      {binOpen && <Bin back={(id) => void back(id)} />}
    </main>
  )
}

type Row = JobSummary & { unsent?: boolean }

/** The list as the server has it, with what stands otherwise here. */
function withLocal(jobs: readonly JobSummary[], local: readonly LocalJob[], sought: string): Row[] {
  const here = new Map(local.map((one) => [one.job, one]))
  const known = new Set(jobs.map((job) => job.id))
  const now = new Date().toISOString()
  const made = local
    .filter(({ job, summary }) => !known.has(job) && summary.site.toLowerCase().includes(sought.toLowerCase()))
    .map(({ job, summary, unsent }) => ({ id: job, number: 0, ...summary, createdAt: now, updatedAt: now, unsent }))
  return [...made, ...jobs.map((job) => ({ ...job, ...here.get(job.id)?.summary, unsent: here.get(job.id)?.unsent }))]
}

interface JobRowProps {
  job: Row
  remove: () => void
  /** Says why something is not done. */
  refuse: (why: string) => void
}

function JobRow({ job, remove, refuse }: JobRowProps) {
  const queries = useQueryClient()
  const place = lastPlace(job.id, job.kind)
  const other = job.status === 'open' ? 'closed' : 'open'
  const change = async () => {
    const { storeOf } = await import('../store/stores')
    const store = storeOf(job.id)
    await store.load()
    const { state } = store.current()
    if (other === 'closed' && state) {
      const { leftOpen } = await import('@nobbet/contract')
      const left = leftOpen(state)
      if (left.length > 0)
        return refuse(
          `“${job.site}” is not closed: there is something to put back. ${left.map(({ text }) => text).join('; ')}. Put it back, or leave it until a day, under Visit.`,
        )
    }
    await store.edit(other === 'closed' ? 'Job closed' : 'Job opened again', (d) => ({ ...d, status: other }))
    await queries.invalidateQueries({ queryKey: ['local-jobs'] })
  }
  return (
    <li className={`sheet ${job.kind} ${job.status}`}>
      <div>
        <div className="site">
          <Link to={`/jobs/${job.id}/${place}`}>{job.site}</Link>
        </div>
        <div>
          <span className={`kind ${job.kind}`}>{kindWords[job.kind]}</span>
          <span className="meta">
            {schemes[job.scheme as SchemeId]?.name ?? job.scheme}: {job.circuits.join(', ')}
            {job.findings > 0 && ` · ${job.findings} finding${job.findings === 1 ? '' : 's'}`} · changed{' '}
            {momentText(job.updatedAt)}
          </span>
        </div>
        {job.symptom && <div className="symptom">“{job.symptom}”</div>}
        {job.unsent && <div className="unsent">Kept in this browser, not sent yet</div>}
      </div>
      <div className="go">
        {job.status === 'closed' && !job.unsent && job.number > 0 && (
          <button className="btn btn-link" aria-label={`Delete ${job.site}`} onClick={remove}>
            Delete
          </button>
        )}
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
