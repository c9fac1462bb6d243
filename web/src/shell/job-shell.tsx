import { findingKey, shortVerdictText, type Installation } from '@nobbet/core'
import { useEffect } from 'react'
import { NavLink, Navigate, Outlet, useLocation, useParams } from 'react-router'
import { useFindings, useJob } from '../api/hooks'
import { useVerdict, type Verdict } from '../workers/use-verdict'
import { useWiring } from '../wiring/use-wiring'
import { lastPlace, rememberPlace } from './last-place'
import { Failed, Loading } from './notes'

/** A job's workspaces as stations of one journey, each showing its own state. */
export function JobShell() {
  const { job = '' } = useParams()
  const { pathname } = useLocation()
  const workspace = pathname.split('/')[3]
  const { data, error, isPending, refetch } = useJob(job)
  const findings = useFindings(job)
  const { doc } = useWiring(job)
  const verdict = useVerdict(doc)

  useEffect(() => {
    if (workspace) rememberPlace(job, workspace)
  }, [job, workspace])
  useEffect(() => {
    const site = data?.brief.site
    document.title = site ? `${site} · Nobbet` : 'Nobbet'
  }, [data])

  if (isPending) return <Loading what="the job" />
  if (error) return <Failed error={error} retry={() => void refetch()} />
  if (!workspace) return <Navigate to={lastPlace(job, data.brief.kind)} replace />

  const circuits = data.brief.fitted.circuits.map((c) => c.name).join(', ')
  const count = findings.data?.length ?? 0
  const stations = [
    { to: 'brief', name: 'Brief', state: circuits },
    { to: 'plan', name: 'Plan', state: doc?.scheme || 'Schedules, devices' },
    { to: 'bench', name: 'Bench', state: conductorsText(doc) },
    { to: 'checks', name: 'Checks', state: checkState(verdict, doc) },
    { to: 'trace', name: 'Trace', state: 'Set controls, watch the signal' },
    { to: 'week', name: 'Week', state: 'Clocks, rooms, hot water' },
    {
      to: 'hunt',
      name: 'Hunt',
      state: count === 0 ? 'No findings yet' : `${count} finding${count === 1 ? '' : 's'} logged`,
    },
  ]
  return (
    <>
      <nav className="journey" aria-label="Workspaces of this job">
        <ol>
          {stations.map(({ to, name, state }) => (
            <li key={to}>
              <NavLink to={to} title={state}>
                <span className="stop" aria-hidden />
                <span className="name">{name}</span>
                <span className="state">{state}</span>
              </NavLink>
            </li>
          ))}
        </ol>
      </nav>
      <Outlet />
    </>
  )
}

const conductorsText = (doc: Installation | undefined): string =>
  doc ? `${doc.cables.reduce((n, c) => n + c.cores.length, 0)} conductors` : 'The wiring itself'

function checkState({ findings, known }: Verdict, doc: Installation | undefined): string {
  if (!findings) return 'Checking'
  const waived = new Set(doc?.waivers?.map((w) => w.id))
  return shortVerdictText({ findings: findings.filter((f) => !waived.has(findingKey(f))), known })
}
