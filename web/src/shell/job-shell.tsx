import {
  huntOf,
  looksIn,
  openMeasures,
  openRun,
  openVisit,
  outcomes,
  recordOf,
  runsOf,
  unsettled,
  type PlannedChange,
  type SiteRecord,
} from '@nobbet/contract'
import { findingKey, shortVerdictText, type Installation } from '@nobbet/core'
import { useEffect } from 'react'
import { NavLink, Navigate, Outlet, useLocation, useParams } from 'react-router'
import { useAttended, useJob } from '../store/use-job'
import { useVerdict, type Verdict } from '../workers/use-verdict'
import { Clashes } from './clashes'
import { Condition } from './condition'
import { lastPlace, rememberPlace } from './last-place'
import { Failed, Loading } from './notes'

/** A job's workspaces as stations of one journey, each showing its own state. */
export function JobShell() {
  const { job = '' } = useParams()
  const { pathname } = useLocation()
  const workspace = pathname.split('/')[3]
  const view = useJob(job)
  const { state, error, store } = view
  const doc = state?.document.wiring
  useAttended(job)
  const verdict = useVerdict(doc)

  // Where the stations are too many for a phone, the one that is open is in view.
  useEffect(() => {
    document.querySelector('.journey a.active')?.scrollIntoView({ block: 'nearest', inline: 'center' })
  }, [workspace, state === undefined]) // eslint-disable-line react-hooks/exhaustive-deps -- once it is there

  const site = state?.document.brief.site
  useEffect(() => {
    if (workspace) rememberPlace(job, workspace)
  }, [job, workspace])
  useEffect(() => {
    const station = workspace && workspace.charAt(0).toUpperCase() + workspace.slice(1)
    document.title = [station, site, 'Nobbet'].filter(Boolean).join(' · ')
  }, [site, workspace])

  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the job" />
  const { brief } = state.document
  if (!workspace) return <Navigate to={lastPlace(job, brief.kind)} replace />

  const circuits = brief.fitted.circuits.map((c) => c.name).join(', ')
  const looks = looksIn(state.findings.length, huntOf(state))
  const { finding } = huntOf(state)
  const { change } = recordOf(state)
  const stations: { to: string; name: string; short?: string; state: string }[] = [
    { to: 'brief', name: 'Brief', state: circuits },
    { to: 'survey', name: 'Survey', state: surveyState(recordOf(state)) },
    { to: 'plan', name: 'Plan', state: doc?.scheme || 'Schedules, devices' },
    ...(brief.kind === 'change-of-controls' || change || workspace === 'change'
      ? [{ to: 'change', name: 'Change', state: changeState(change) }]
      : []),
    { to: 'bench', name: 'Bench', state: conductorsText(doc) },
    { to: 'checks', name: 'Checks', state: checkState(verdict, doc) },
    { to: 'trace', name: 'Trace', state: 'Signals, live' },
    { to: 'week', name: 'Week', state: 'Clocks and heat' },
    {
      to: 'hunt',
      name: 'Hunt',
      state: finding
        ? `Found: ${finding.causes[0].label}`
        : looks === 0
          ? 'Nothing looked at yet'
          : `${looks} look${looks === 1 ? '' : 's'} so far`,
    },
    { to: 'commission', name: 'Commission', short: 'Run', state: runState(recordOf(state)) },
    { to: 'visit', name: 'Visit', state: visitState(recordOf(state)) },
  ]
  return (
    <>
      <nav className={workspace === 'trace' ? 'journey low' : 'journey'} aria-label="Workspaces of this job">
        <ol>
          {stations.map(({ to, name, short, state }) => (
            <li key={to}>
              <NavLink to={to} title={state}>
                <span className="stop" aria-hidden />
                <span className="name">{name}</span>
                {short && (
                  <span className="short" aria-label={name}>
                    {short}
                  </span>
                )}
                <span className="state">{state}</span>
              </NavLink>
            </li>
          ))}
        </ol>
      </nav>
      <Condition view={view} store={store} />
      <Clashes view={view} store={store} />
      <Outlet />
    </>
  )
}

const surveyState = ({ survey }: SiteRecord): string => {
  const seen = survey?.seen.cables.reduce((sum, { cores }) => sum + cores.length, 0) ?? 0
  if (seen === 0) return 'What is there'
  return survey?.taken ? 'The wiring as found' : `${seen} cores seen`
}

const conductorsText = (doc: Installation | undefined): string =>
  doc ? `${doc.cables.reduce((n, c) => n + c.cores.length, 0)} conductors` : 'The wiring itself'

const changeState = (change: PlannedChange | undefined): string =>
  change ? (change.done ? 'Done' : 'Planned, to be done') : 'What moves'

/** The run that is under way or came last, in a few words. */
function runState(record: SiteRecord): string {
  const run = openRun(runsOf(record)) ?? runsOf(record).at(-1)
  if (!run) return 'The run, step by step'
  const wrong = [...outcomes(run).values()].filter(({ how }) => how === 'otherwise').length
  if (wrong > 0) return `${wrong} not as expected`
  const when = run.purpose === 'arrival' ? 'On arrival' : 'On leaving'
  return run.ended ? `${when}: done` : `${when}: ${outcomes(run).size} steps so far`
}

function visitState(record: SiteRecord): string {
  const left = unsettled(record).length
  const measures = openMeasures(record).length
  if (left > 0) return `${left} to put back`
  if (measures > 0) return measures === 1 ? '1 left for now' : `${measures} left for now`
  return openVisit(record) ? 'Open' : `${record.visits.length} so far`
}

function checkState({ findings, known }: Verdict, doc: Installation | undefined): string {
  if (!findings) return 'Checking'
  const waived = new Set(doc?.waivers?.map((w) => w.id))
  return shortVerdictText({ findings: findings.filter((f) => !waived.has(findingKey(f))), known })
}
