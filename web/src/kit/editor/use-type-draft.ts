import { readDeviceType, type DeviceType, type TypeProblem } from '@nobbet/core'
import { useCallback, useEffect, useMemo, useState } from 'react'

/** A device type under the hand: everything done to it can be undone, and none of it is lost by a reload. */
export interface TypeDraft {
  type: DeviceType
  /** The type once it is whole; else what is wrong with it or missing. */
  whole?: DeviceType
  problems: TypeProblem[]
  change(type: DeviceType): void
  canUndo: boolean
  canRedo: boolean
  undo(): void
  redo(): void
  /** It has been saved, or given up: nothing is kept of it here. */
  forget(): void
}

interface Steps {
  past: DeviceType[]
  now: DeviceType
  future: DeviceType[]
}

const kept = (key: string) => `nobbet-type ${key}`

function remembered(key: string): DeviceType | undefined {
  try {
    const text = localStorage.getItem(kept(key))
    return text ? (JSON.parse(text) as DeviceType) : undefined
  } catch {
    return undefined
  }
}

/** A draft that begins from `start`, or from what was left unsaved under the same key. */
export function useTypeDraft(key: string, start: DeviceType): TypeDraft {
  const [steps, setSteps] = useState<Steps>(() => ({ past: [], now: remembered(key) ?? start, future: [] }))
  const { past, now, future } = steps
  useEffect(() => {
    if (past.length + future.length === 0) return
    try {
      localStorage.setItem(kept(key), JSON.stringify(now))
    } catch {
      // Without room or permission the draft lives as long as the page.
    }
  }, [key, now, past.length, future.length])
  const read = useMemo(() => readDeviceType(JSON.parse(JSON.stringify(now))), [now])
  return {
    type: now,
    ...('type' in read ? { whole: read.type, problems: [] } : { problems: read.problems }),
    change: useCallback(
      (type) => setSteps((s) => ({ past: [...s.past.slice(-200), s.now], now: type, future: [] })),
      [],
    ),
    canUndo: past.length > 0,
    canRedo: future.length > 0,
    undo: useCallback(
      () =>
        setSteps((s) =>
          s.past.length === 0
            ? s
            : { past: s.past.slice(0, -1), now: s.past[s.past.length - 1], future: [s.now, ...s.future] },
        ),
      [],
    ),
    redo: useCallback(
      () =>
        setSteps((s) =>
          s.future.length === 0 ? s : { past: [...s.past, s.now], now: s.future[0], future: s.future.slice(1) },
        ),
      [],
    ),
    forget: useCallback(() => localStorage.removeItem(kept(key)), [key]),
  }
}
