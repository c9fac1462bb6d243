import { formatAction, type Action, type Circuit } from '@nobbet/core'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Desk } from './desk'
import { actionsOf, TraceSession } from './session'

/** Longest step of the clock per frame: a tab that slept does not leap ahead. */
const longestFrameMs = 250
/** Between events only travel and the clock change: painting them this often is enough, and leaves a phone its battery. */
const paintEveryMs = 66

/** Times faster than life: the fast ones for heat, which takes hours. */
export const speeds = [1, 10, 60, 600, 3600] as const
export type Speed = (typeof speeds)[number]

export interface SessionHandle {
  session: TraceSession
  running: boolean
  speed: Speed
  setRunning(running: boolean): void
  setSpeed(speed: Speed): void
  act(...actions: Action[]): void
  step(): void
  undo(): void
  /** The whole address with everything done so far. */
  address(): string
  reset(): void
}

/** The trace session of a desk: what is done is laid on the desk, and what comes onto it from elsewhere is replayed. */
export function useSession(circuit: Circuit, desk: Desk): SessionHandle {
  const done = desk.all('do')
  const [running, setRunning] = useState(() => done.length === 0)
  const [speed, setSpeed] = useState<Speed>(1)
  const [, repaint] = useState(0)
  const written = useRef(done.join('\n'))

  const open = useCallback(
    (texts: readonly string[]) => {
      const { actions, problem } = actionsOf(texts)
      const session = new TraceSession(circuit, actions)
      session.problem ??= problem
      return session
    },
    [circuit],
  )
  const [session, setSession] = useState(() => open(done))

  const write = useCallback(
    (of: TraceSession) => {
      const texts = of.written
      written.current = texts.join('\n')
      desk.set({ do: texts })
    },
    [desk],
  )

  // From elsewhere (a link, back, forward), or on another installation: replay it.
  const text = done.join('\n')
  useEffect(() => {
    if (text === written.current && session.circuit === circuit) return
    written.current = text
    setSession(open(text ? text.split('\n') : []))
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only other actions or another circuit open a session anew
  }, [text, circuit])
  // Left with the clock running: the time that has passed is not forgotten.
  const latest = useRef(session)
  useEffect(() => void (latest.current = session), [session])
  useEffect(() => () => write(latest.current), [write])

  useEffect(() => {
    if (!running) return
    let last = performance.now()
    let painted = 0
    let frame = requestAnimationFrame(function tick(now) {
      const ms = Math.min(longestFrameMs, now - last)
      last = now
      if (session.underWay || session.lives) {
        const { simulation } = session.rig
        const events = simulation.history.length
        session.advance(Math.max(1, Math.round(ms * speed)))
        // At rest again: the address is brought up to date, so that a link shows what is seen.
        if (!session.underWay && !session.lives) write(session)
        if (simulation.history.length > events || !session.underWay || now - painted >= paintEveryMs) {
          painted = now
          repaint((n) => n + 1)
        }
      }
      frame = requestAnimationFrame(tick)
    })
    return () => cancelAnimationFrame(frame)
  }, [running, speed, session, write])

  const after = (of: TraceSession) => {
    write(of)
    repaint((n) => n + 1)
  }
  const replace = (actions: readonly Action[]) => {
    const next = open(actions.map(formatAction))
    setSession(next)
    after(next)
  }
  return {
    session,
    running,
    speed,
    setRunning(on) {
      setRunning(on)
      if (!on) write(session)
    },
    setSpeed,
    act(...actions) {
      session.problem = undefined
      for (const action of actions) if (!session.act(action)) break
      after(session)
    },
    step() {
      setRunning(false)
      session.stepToEvent()
      after(session)
    },
    address() {
      const params = new URLSearchParams(location.search)
      params.delete('do')
      for (const action of session.written) params.append('do', action)
      return `${location.origin}${location.pathname}?${params}`
    },
    undo: () => replace(session.withoutLast()),
    reset: () => replace([]),
  }
}

/** The address of a trace with these actions done. */
export const traceAddress = (job: string, actions: readonly Action[]): string =>
  `/jobs/${job}/trace?${new URLSearchParams(actions.map((a) => ['do', formatAction(a)]))}`
