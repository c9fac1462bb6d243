import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { MemoryRouter, Route, Routes, useLocation, useNavigate } from 'react-router'

/** Shows an element at an address, as a route of the application would. */
export function showAt(path: string, address: string, element: ReactNode) {
  let location: ReturnType<typeof useLocation>
  let navigate: ReturnType<typeof useNavigate>
  function Probe() {
    location = useLocation()
    navigate = useNavigate()
    return null
  }
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const shown = render(
    <QueryClientProvider client={queries}>
      <MemoryRouter initialEntries={[address]}>
        <Probe />
        <Routes>
          <Route path={path} element={element} />
          <Route path="*" element={<p>elsewhere</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
  return {
    ...shown,
    /** Where the page is now. */
    at: () => location,
    /** Follows a link. */
    go: (to: string) => act(async () => void (await navigate(to))),
  }
}
