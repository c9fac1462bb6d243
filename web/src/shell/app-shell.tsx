import { useSyncExternalStore } from 'react'
import { Link, NavLink, Outlet, useLocation, useMatch } from 'react-router'
import { useJob } from '../api/hooks'

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
  const elsewhere = pathname.startsWith('/kit') || pathname.startsWith('/examples')
  const job = match?.params.job
  const online = useSyncExternalStore(subscribe, () => navigator.onLine)
  return (
    <>
      <header className="topbar">
        <Link to="/" className="wordmark">
          <img src="/mark.svg" alt="" />
          Nobbet
        </Link>
        <div className="where">{job && job !== 'new' ? <JobName job={job} /> : null}</div>
        {(match || elsewhere) && (
          <Link to="/" className="to-jobs">
            All jobs
          </Link>
        )}
        <NavLink to="/kit" className="to-jobs">
          Kit
        </NavLink>
      </header>
      {!online && (
        <div className="offline" role="status">
          No connection. Trace and Hunt go on; what you log is sent when it is back. Keep this page open.
        </div>
      )}
      <Outlet />
    </>
  )
}

function JobName({ job }: { job: string }) {
  const { data } = useJob(job)
  return <>{data?.brief.site}</>
}
