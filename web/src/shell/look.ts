import { useSyncExternalStore } from 'react'

/** Day or night as somebody has chosen it in this browser; undefined where it goes by the system's wish. */
type Chosen = 'day' | 'night' | undefined

const key = 'nobbet.look'
/** What the system wishes for; undefined where it cannot say. */
const system = () => ('matchMedia' in window ? window.matchMedia('(prefers-color-scheme: dark)') : undefined)
const systemNight = () => system()?.matches ?? false
const listeners = new Set<() => void>()
let chosen: Chosen = kept()

function kept(): Chosen {
  try {
    const text = localStorage.getItem(key)
    return text === 'day' || text === 'night' ? text : undefined
  } catch {
    return undefined
  }
}

export const isNight = (): boolean => (chosen === undefined ? systemNight() : chosen === 'night')

/** Dresses the page as it is to look. */
function dress(): void {
  const { dataset } = document.documentElement
  if (isNight()) dataset.look = 'night'
  else delete dataset.look
  for (const listener of listeners) listener()
}

/** Dresses the page before anything is painted, and again whenever the system or another tab says otherwise. */
export function followLook(): void {
  dress()
  system()?.addEventListener('change', dress)
  window.addEventListener('storage', (event) => {
    if (event.key !== key) return
    chosen = kept()
    dress()
  })
}

/** Day or night from now on, in this browser; what the system wishes for anyway is left to it. */
export function chooseNight(night: boolean): void {
  chosen = night === systemNight() ? undefined : night ? 'night' : 'day'
  try {
    if (chosen) localStorage.setItem(key, chosen)
    else localStorage.removeItem(key)
  } catch {
    // Without storage it is so until the page is loaded again.
  }
  dress()
}

/** Is it night, and the way to change it. */
export function useNight(): [boolean, (night: boolean) => void] {
  const night = useSyncExternalStore((changed) => {
    listeners.add(changed)
    return () => void listeners.delete(changed)
  }, isNight)
  return [night, chooseNight]
}
