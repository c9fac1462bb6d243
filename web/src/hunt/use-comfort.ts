import { useEffect, useState } from 'react'
import { useNight } from '../shell/look'

/** How the screen is read here, in this browser. */
export interface Comfort {
  large: boolean
  setLarge: (on: boolean) => void
  night: boolean
  setNight: (on: boolean) => void
  /** Does the screen stay on, in a sentence? */
  awake: string
}

function useKept(name: string): [boolean, (on: boolean) => void] {
  const key = `nobbet.${name}`
  const [on, setOn] = useState(() => {
    try {
      return localStorage.getItem(key) === 'on'
    } catch {
      return false
    }
  })
  return [
    on,
    (next) => {
      setOn(next)
      try {
        localStorage.setItem(key, next ? 'on' : 'off')
      } catch {
        // Without storage it is so until the page is loaded again.
      }
    },
  ]
}

/** Large text and a dark screen, as they were chosen here; and a screen that stays on for as long as the hunt is looked at. */
export function useComfort(): Comfort {
  const [large, setLarge] = useKept('large-text')
  const [night, setNight] = useNight()
  const awake = useAwake()
  useEffect(() => {
    const { dataset } = document.documentElement
    if (large) dataset.text = 'large'
    else delete dataset.text
    return () => void delete dataset.text
  }, [large])
  return { large, setLarge, night, setNight, awake }
}

/** Keeps the screen on where the browser can; a page that was hidden asks again. */
function useAwake(): string {
  // Only over a secure connection, or on this machine: a phone in the house's network has none.
  const lock = (navigator as { wakeLock?: WakeLock }).wakeLock
  const [state, setState] = useState('')
  useEffect(() => {
    if (!lock) return
    let held: WakeLockSentinel | undefined
    let left = false
    const ask = async () => {
      if (document.visibilityState !== 'visible') return
      try {
        held = await lock.request('screen')
        if (left) await held.release()
        else setState('The screen stays on while the hunt is open.')
      } catch {
        setState('The screen may go dark by itself: the device did not allow it to stay on.')
      }
    }
    const again = () => void ask()
    again()
    document.addEventListener('visibilitychange', again)
    return () => {
      left = true
      document.removeEventListener('visibilitychange', again)
      void held?.release().catch(() => undefined)
    }
  }, [lock])
  return lock ? state : 'This browser cannot keep the screen on here: set its own time-out longer.'
}
