import { useSyncExternalStore } from 'react'

/** Is the window narrower than so many px? Followed as it is turned or drawn. */
export function useNarrow(px: number): boolean {
  const query = `(max-width: ${px}px)`
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query)
      list.addEventListener('change', changed)
      return () => list.removeEventListener('change', changed)
    },
    () => window.matchMedia(query).matches,
  )
}
