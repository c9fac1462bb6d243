import type { Installation, WeekPlan, WeekResult } from '@nobbet/core'
import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { longRun } from '../workers/compute'

export interface WeekRun {
  result?: WeekResult
  /** 0 to 1 while it is worked out. */
  progress?: number
  error?: Error
  /** It was stopped by hand. */
  stopped: boolean
  stop(): void
  again(): void
}

/** What has been heard of the week that was asked for under this key. */
interface Heard {
  key: string
  progress?: number
  error?: Error
  stopped?: boolean
}

/** A week lived through in the worker whenever what it depends on changes; the last one stays until the next is there. */
export function useWeek(installation: Installation, plan: WeekPlan): WeekRun {
  const [result, setResult] = useState<WeekResult>()
  const [round, setRound] = useState(0)
  const leave = useRef(() => {})
  const key = JSON.stringify([round, installation, plan])
  const [heard, setHeard] = useState<Heard>({ key, progress: 0 })
  useEffect(() => {
    let mine = true
    // What was said before it was stopped may arrive after: stopped it stays.
    const hear = (said: Omit<Heard, 'key'>) =>
      mine && setHeard((before) => (before.key === key && before.stopped ? before : { key, ...said }))
    const run = new AbortController()
    leave.current = () => run.abort()
    const tell = proxy((progress: number) => hear({ progress }))
    void longRun('week', (api, number) => api.week(number, installation, plan, tell), run.signal)
      .then((week) => {
        if (!mine || !week) return
        setResult(week)
        hear({})
      })
      .catch((error: Error) => hear({ error }))
    return () => {
      mine = false
      leave.current()
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` holds what installation and plan say
  }, [key])
  const now: Heard = heard.key === key ? heard : { key, progress: 0 }
  return {
    result,
    progress: now.progress,
    error: now.error,
    stopped: now.stopped ?? false,
    stop() {
      leave.current()
      setHeard({ key, stopped: true })
    },
    again: () => setRound((n) => n + 1),
  }
}
