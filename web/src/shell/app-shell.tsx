import { Moon, Sun } from 'lucide-react'
import { useEffect, useState, useSyncExternalStore } from 'react'
import { Link, NavLink, Outlet, useLocation, useMatch } from 'react-router'
import { keepsThings } from '../store/stores'
import { useJob } from '../store/use-job'
import { VisitChip } from '../visit/visit-chip'
import { DataBanner } from './data-banner'
import { useNight } from './look'

const subscribe = (changed: () => void) => {
  window.addEventListener('online', changed)
  window.addEventListener('offline', changed)
  return () => {
    window.removeEventListener('online', changed)
    window.removeEventListener('offline', changed)
  }
}

export function AppShell() {
  const match = useMatch('/jobs/:job/*')
  const { pathname } = useLocation()
  const elsewhere = pathname.startsWith('/kit') || pathname.startsWith('/examples') || pathname.startsWith('/server')
  const job = match?.params.job
  const [lasting, setLasting] = useState(true)
  useEffect(() => void keepsThings.then(setLasting), [])
  const [night, setNight] = useNight()
  const online = useSyncExternalStore(subscribe, () => navigator.onLine)
  return (
    <>
      <header className={job && job !== 'new' && job !== 'start' ? 'topbar in-job' : 'topbar'}>
        <Link to="/" className="wordmark" aria-label="Nobbet">
          <img src="/mark.svg" alt="" />
          <span className="name">Nobbet</span>
        </Link>
        <div className="where">{job && job !== 'new' && job !== 'start' ? <JobName job={job} /> : null}</div>
        {job && job !== 'new' && job !== 'start' ? <VisitChip job={job} /> : null}
        {(match || elsewhere) && (
          <Link to="/" className="to-jobs">
            All jobs
          </Link>
        )}
        <NavLink to="/kit" className="to-jobs beside-job">
          Kit
        </NavLink>
        <NavLink to="/server" className="to-jobs beside-job">
          Server
        </NavLink>
        <button
          className="look"
          aria-label={night ? 'Day: light screen' : 'Night: dark screen'}
          title={night ? 'Day' : 'Night'}
          onClick={() => setNight(!night)}
        >
          {night ? <Sun size={20} aria-hidden /> : <Moon size={20} aria-hidden />}
        </button>
      </header>
      {!lasting && (
        <div className="offline" role="status">
          This browser keeps nothing for Nobbet: close other tabs of it and load this page again, or what is not sent
          yet goes with the page.
        </div>
      )}
      {!online && (
        <div className="offline" role="status">
          No connection. Everything goes on: what you do is kept in this browser, and sent when it is back.
        </div>
      )}
      <DataBanner />
      <Outlet />
    </>
  )
}

function JobName({ job }: { job: string }) {
  const { state } = useJob(job)
  return <>{state?.document.brief.site}</>
}
