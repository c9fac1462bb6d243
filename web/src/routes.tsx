import { createBrowserRouter } from 'react-router'
import { JobsPage } from './jobs/jobs-page'
import { AppShell } from './shell/app-shell'
import { JobShell } from './shell/job-shell'
import { Loading } from './shell/notes'
import { LostPage, RouteFailed } from './shell/lost-page'

/** Every view has an address; what is not needed at once comes by route. */
export const router = createBrowserRouter([
  {
    Component: AppShell,
    HydrateFallback: () => <Loading what="Nobbet" />,
    errorElement: <RouteFailed />,
    children: [
      { index: true, Component: JobsPage },
      { path: 'jobs/new', lazy: async () => ({ Component: (await import('./brief/new-job-page')).NewJobPage }) },
      {
        path: 'jobs/:job',
        Component: JobShell,
        errorElement: <RouteFailed />,
        children: [
          { path: 'brief', lazy: async () => ({ Component: (await import('./brief/brief-page')).BriefPage }) },
          { path: 'plan', lazy: async () => ({ Component: (await import('./plan/plan-page')).PlanPage }) },
          { path: 'bench', lazy: async () => ({ Component: (await import('./bench/bench-page')).BenchPage }) },
          { path: 'checks', lazy: async () => ({ Component: (await import('./checks/checks-page')).ChecksPage }) },
          { path: 'trace', lazy: async () => ({ Component: (await import('./trace/trace-page')).TracePage }) },
          { path: 'week', lazy: async () => ({ Component: (await import('./week/week-page')).WeekPage }) },
          { path: 'hunt', lazy: async () => ({ Component: (await import('./hunt/hunt-page')).HuntPage }) },
        ],
      },
      { path: 'kit', lazy: async () => ({ Component: (await import('./kit/kit-page')).KitPage }) },
      { path: 'kit/new', lazy: async () => ({ Component: (await import('./kit/editor/editor-page')).EditorPage }) },
      {
        path: 'kit/:type/edit',
        lazy: async () => ({ Component: (await import('./kit/editor/editor-page')).EditorPage }),
      },
      { path: 'kit/:type', lazy: async () => ({ Component: (await import('./kit/kit-page')).KitPage }) },
      {
        path: 'examples/:example',
        lazy: async () => ({ Component: (await import('./kit/example-page')).ExamplePage }),
      },
      {
        path: 'examples/:example/week',
        lazy: async () => ({ Component: (await import('./week/example-week')).ExampleWeek }),
      },
      { path: '*', Component: LostPage },
    ],
  },
])
