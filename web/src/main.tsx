import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import './theme/nobbet.scss'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { z } from 'zod'
import { ApiError } from './api/client'
import { fetchAhead, router } from './routes'
import { followLook } from './shell/look'
import { OnTheWay } from './shell/on-the-way'

// Compiled validators need eval, which the server's content policy forbids.
z.config({ jitless: true })

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      // What the server has refused stays refused; what did not arrive is tried again.
      retry: (failures, error) => !(error instanceof ApiError) && failures < 2,
    },
  },
})

// What this browser keeps of jobs comes beside the first screen, not before it.
void import('./store/stores').then(({ sendWhatWasLeft, wakeAll }) => {
  void sendWhatWasLeft()
  window.addEventListener('online', wakeAll)
  window.addEventListener('focus', wakeAll)
})
window.addEventListener('load', () => setTimeout(() => void fetchAhead(), 1500))

followLook()
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <OnTheWay value={() => router.state.navigation.state !== 'idle'}>
        <RouterProvider router={router} />
      </OnTheWay>
    </QueryClientProvider>
  </StrictMode>,
)
