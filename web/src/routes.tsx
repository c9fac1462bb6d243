import { createBrowserRouter } from 'react-router'
import { JobsPage } from './jobs/jobs-page'
import { AppShell } from './shell/app-shell'
import { Loading } from './shell/notes'
import { LostPage, RouteFailed } from './shell/lost-page'

/** Views that come after the first screen, each by itself. */
const later = {
  job: () => import('./shell/job-shell').then((m) => ({ Component: m.JobShell })),
  start: () => import('./start/start-page').then((m) => ({ Component: m.StartPage })),
  newJob: () => import('./brief/new-job-page').then((m) => ({ Component: m.NewJobPage })),
  brief: () => import('./brief/brief-page').then((m) => ({ Component: m.BriefPage })),
  plan: () => import('./plan/plan-page').then((m) => ({ Component: m.PlanPage })),
  steps: () => import('./plan/steps-page').then((m) => ({ Component: m.StepsPage })),
  change: () => import('./change/change-page').then((m) => ({ Component: m.ChangePage })),
  survey: () => import('./survey/survey-page').then((m) => ({ Component: m.SurveyPage })),
  bench: () => import('./bench/bench-page').then((m) => ({ Component: m.BenchPage })),
  checks: () => import('./checks/checks-page').then((m) => ({ Component: m.ChecksPage })),
  trace: () => import('./trace/trace-page').then((m) => ({ Component: m.TracePage })),
  compare: () => import('./trace/compare-page').then((m) => ({ Component: m.ComparePage })),
  week: () => import('./week/week-page').then((m) => ({ Component: m.WeekPage })),
  hunt: () => import('./hunt/hunt-page').then((m) => ({ Component: m.HuntPage })),
  commission: () => import('./commission/commission-page').then((m) => ({ Component: m.CommissionPage })),
  visit: () => import('./visit/visit-page').then((m) => ({ Component: m.VisitPage })),
  handover: () => import('./handover/handover-page').then((m) => ({ Component: m.HandoverPage })),
  kit: () => import('./kit/kit-page').then((m) => ({ Component: m.KitPage })),
  editor: () => import('./kit/editor/editor-page').then((m) => ({ Component: m.EditorPage })),
  example: () => import('./kit/example-page').then((m) => ({ Component: m.ExamplePage })),
  server: () => import('./server/server-page').then((m) => ({ Component: m.ServerPage })),
  exampleWeek: () => import('./week/example-week').then((m) => ({ Component: m.ExampleWeek })),
}

/** Brings all views once the first one stands, so that every station can be gone to when the connection is gone. */
export async function fetchAhead(): Promise<void> {
  for (const view of Object.values(later)) await view().catch(() => undefined)
}

/** Every view has an address. */
export const router = createBrowserRouter([
  {
    Component: AppShell,
    HydrateFallback: () => <Loading what="Nobbet" />,
    errorElement: <RouteFailed />,
    children: [
      { index: true, Component: JobsPage },
      { path: 'jobs/start', lazy: later.start },
      { path: 'jobs/new', lazy: later.newJob },
      {
        path: 'jobs/:job',
        lazy: later.job,
        errorElement: <RouteFailed />,
        children: [
          { path: 'brief', lazy: later.brief },
          { path: 'plan', lazy: later.plan },
          { path: 'plan/steps', lazy: later.steps },
          { path: 'change', lazy: later.change },
          { path: 'survey', lazy: later.survey },
          { path: 'bench', lazy: later.bench },
          { path: 'checks', lazy: later.checks },
          { path: 'trace', lazy: later.trace },
          { path: 'trace/compare', lazy: later.compare },
          { path: 'week', lazy: later.week },
          { path: 'hunt', lazy: later.hunt },
          { path: 'commission', lazy: later.commission },
          { path: 'visit', lazy: later.visit },
          { path: 'visit/handover', lazy: later.handover },
        ],
      },
      { path: 'kit', lazy: later.kit },
      { path: 'kit/new', lazy: later.editor },
      { path: 'kit/:type/edit', lazy: later.editor },
      { path: 'kit/:type', lazy: later.kit },
      { path: 'examples/:example', lazy: later.example },
      { path: 'examples/:example/week', lazy: later.exampleWeek },
      { path: 'server', lazy: later.server },
      { path: '*', Component: LostPage },
    ],
  },
])
