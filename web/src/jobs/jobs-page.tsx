import { daysInBin, type JobSummary } from '@nobbet/contract'
import { useQueryClient } from '@tanstack/react-query'
import { Clock, Search } from 'lucide-react'
import { lazy, Suspense, useDeferredValue, useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { call, errorText } from '../api/client'
import { useJobs, useLocalJobs, type LocalJob, type Wanted } from '../api/hooks'
import { momentText } from '../drawing/dates'
import { download, fileStem } from '../shell/download'
import { lastJob } from '../shell/last-place'
import { Failed, Loading } from '../shell/notes'
import { AllDues } from './all-dues'
import { Bin } from './bin'
import { BringIn } from './bring-in'
import { JobRow, type Row } from './job-row'
import { kindWords } from './words'

/** What looks through a whole job is no part of the first screen. */
const CloseDialog = lazy(() => import('./close-dialog').then((m) => ({ default: m.CloseDialog })))

/** From so many jobs on there is something to look for and to choose among. */
const many = 8

/** What needs me today: what is due first, then the jobs by their last change, each one press from where it was left. */
export function JobsPage() {
  const [closedToo, setClosedToo] = useState(false)
  const [find, setFind] = useState('')
  const [site, setSite] = useState('')
  const [kind, setKind] = useState<Wanted['kind']>('all')
  const [binOpen, setBinOpen] = useState(false)
  const [deleted, setDeleted] = useState<Pick<JobSummary, 'id' | 'site'>>()
  const [closing, setClosing] = useState<Row>()
  const [closedNow, setClosedNow] = useState<Row>()
  const [problem, setProblem] = useState<string>()
  const sought = useDeferredValue(find.trim())
  const queries = useQueryClient()
  const history = site !== ''
  const wanted: Wanted = { status: closedToo || history ? 'all' : 'open', find: sought, site, kind }
  const { data, error, isPending, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = useJobs(wanted)
  const first = data?.pages[0]
  const { data: local = [] } = useLocalJobs(first?.readAt)
  if (isPending) return <Loading what="the jobs" />
  // What is known stays, whatever a later answer was.
  if (error && !data && local.length === 0) return <Failed error={error} retry={() => void refetch()} />
  const read = data?.pages.flatMap((page) => page.jobs) ?? []
  const jobs = withLocal(read, local, wanted).filter((job) => job.id !== deleted?.id)
  const shown = closedToo || history ? jobs : jobs.filter((job) => job.status === 'open')
  const here = new Map(local.map((one) => [one.job, one.summary.status]))
  const closedHere = [...here].filter(
    ([id, s]) => s === 'closed' && !first?.jobs.some((j) => j.id === id && j.status === 'closed'),
  )
  const closed =
    (first?.counts?.closed ?? read.filter((j) => j.status === 'closed' && !here.has(j.id)).length) + closedHere.length
  const narrowed = sought !== '' || history || kind !== 'all'
  const total = first?.counts && !narrowed && !closedToo && hasNextPage ? first.counts.open : shown.length
  const all = (first?.counts?.open ?? 0) + closed
  const last = lastJob()
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
  const openAgain = async (job: Row) => {
    const { storeOf } = await import('../store/stores')
    const store = storeOf(job.id)
    await store.load()
    await store.edit('Job opened again', (document) => ({ ...document, status: 'open' }))
    setClosedNow(undefined)
    await queries.invalidateQueries({ queryKey: ['local-jobs'] })
  }
  const asFile = async (job: Row) => {
    try {
      setProblem(undefined)
      const { fileOf } = await import('./job-file')
      const { site: name, bytes } = await fileOf(job.id)
      download(`${fileStem(name)}.nobbet.zip`, bytes, 'application/zip')
    } catch (failure) {
      setProblem(`“${job.site}” was not made a file. ${errorText(failure as Error)}`)
    }
  }
  return (
    <main className="page jobs-page">
      <div className="jobs-head">
        <h1 className="m-0">{total === 1 ? '1 job' : `${total} jobs`}</h1>
        {(all >= many || narrowed) && (
          <>
            <label className="jobs-find">
              <Search size={18} aria-hidden />
              <Form.Control
                type="search"
                aria-label="Find a job"
                placeholder="Site, symptom, part, note"
                value={find}
                maxLength={120}
                onChange={(e) => setFind(e.target.value)}
              />
            </label>
            <Form.Select
              className="jobs-kind"
              aria-label="Kind of work"
              value={kind}
              onChange={(e) => setKind(e.target.value as Wanted['kind'])}
            >
              <option value="all">All work</option>
              {(Object.keys(kindWords) as (keyof typeof kindWords)[]).map((one) => (
                <option key={one} value={one}>
                  {kindWords[one]}
                </option>
              ))}
            </Form.Select>
          </>
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
      {history && (
        <p className="condition age" role="status">
          <span>All jobs at “{site}”, closed ones too.</span>
          <button className="btn btn-sm btn-outline-primary" onClick={() => setSite('')}>
            All sites
          </button>
        </p>
      )}
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
      {closedNow && (
        <p className="condition age" role="status">
          <span>“{closedNow.site}” is closed.</span>
          <button className="btn btn-sm btn-outline-primary" onClick={() => void openAgain(closedNow)}>
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
      {shown.length === 0 && narrowed ? (
        <div className="sheet panel-note">
          <h2>{sought ? `No job has “${sought}” in anything that is written of it` : 'No job is of this kind'}</h2>
          {!closedToo && !history && closed > 0 && <p>Closed jobs were not looked through.</p>}
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
            <JobRow
              key={job.id}
              job={job}
              leftOff={job.id === last}
              onClose={() => setClosing(job)}
              onOpenAgain={() => void openAgain(job)}
              onDelete={() => void remove(job)}
              onSite={() => setSite(job.site)}
              onFile={() => void asFile(job)}
            />
          ))}
        </ul>
      )}
      {closing && (
        <Suspense fallback={null}>
          <CloseDialog
            job={closing}
            onLeave={() => setClosing(undefined)}
            onClosed={() => {
              setClosedNow(closing)
              setClosing(undefined)
              void queries.invalidateQueries({ queryKey: ['local-jobs'] })
            }}
          />
        </Suspense>
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
      {closed > 0 && !history && (
        <button className="btn btn-link px-0 mt-3 me-3" onClick={() => setClosedToo(!closedToo)}>
          {closedToo ? 'Hide closed jobs' : `Show ${closed} closed`}
        </button>
      )}
      {(first?.counts?.deleted ?? 0) > 0 && (
        <button className="btn btn-link px-0 mt-3 me-3" aria-expanded={binOpen} onClick={() => setBinOpen(!binOpen)}>
          {binOpen ? 'Hide the bin' : `Bin: ${first!.counts!.deleted}`}
        </button>
      )}
      <AllDues />
      <BringIn onDone={() => void changed()} />
      {binOpen && <Bin back={(id) => void back(id)} />}
    </main>
  )
}

/** The list as the server has it, with what stands otherwise here. */
function withLocal(jobs: readonly JobSummary[], local: readonly LocalJob[], { find, site, kind }: Wanted): Row[] {
  const here = new Map(local.map((one) => [one.job, one]))
  const known = new Set(jobs.map((job) => job.id))
  const now = new Date().toISOString()
  const made = local
    .filter(
      ({ job, summary }) =>
        !known.has(job) &&
        summary.site.toLowerCase().includes(find.toLowerCase()) &&
        (site === '' || summary.site === site) &&
        (kind === 'all' || summary.kind === kind),
    )
    .map(({ job, summary, unsent }) => ({ id: job, number: 0, ...summary, createdAt: now, updatedAt: now, unsent }))
  const stands = (job: JobSummary): Row => {
    const local = here.get(job.id)
    // What is known here may be newer than the list: it is over that that a job is deleted.
    return local
      ? { ...job, ...local.summary, number: Math.max(job.number, local.number), unsent: local.unsent }
      : { ...job, unsent: undefined }
  }
  return [...made, ...jobs.map(stands)]
}
