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
  /** What is seen: as it stands, or at the earlier moment that is looked back at. */
  session: TraceSession
  /** The whole of it, to its end. */
  whole: TraceSession
  /** The moment that is looked back at, ms since the start; undefined at the end. */
  lookedAt?: number
  /** Looks back at a moment; at none, forward to the end again. What is done there goes on from that moment. */
  lookAt(ms: number | undefined): void
  /** What came after a moment from which somebody went on another way: undone, it is there again. */
  dropped: boolean
  running: boolean
  speed: Speed
  setRunning(running: boolean): void
  setSpeed(speed: Speed): void
  act(...actions: Action[]): void
  step(): void
  undo(): void
  /** Begins anew with these acts. */
  open(acts: readonly string[]): void
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
  const [looked, setLooked] = useState<TraceSession>()
  const [dropped, setDropped] = useState<readonly Action[]>()

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
    setLooked(undefined)
    setDropped(undefined)
    setSession(open(text ? text.split('\n') : []))
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only other actions or another circuit open a session anew
  }, [text, circuit])
  // Left with the clock running: the time that has passed is not forgotten.
  const latest = useRef(session)
  useEffect(() => void (latest.current = session), [session])
  useEffect(() => () => write(latest.current), [write])

  useEffect(() => {
    if (!running || looked) return
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
  }, [running, speed, session, looked, write])

  const after = (of: TraceSession) => {
    write(of)
    repaint((n) => n + 1)
  }
  const begin = (acts: readonly string[]) => {
    const next = open(acts)
    setLooked(undefined)
    setDropped(undefined)
    setSession(next)
    after(next)
  }
  const replace = (actions: readonly Action[]) => begin(actions.map(formatAction))
  const lookAt = (ms: number | undefined) => {
    setRunning(false)
    write(session)
    const end = session.rig.simulation.time
    setLooked(ms === undefined || ms >= end ? undefined : session.at(ms))
  }
  /** What is done at an earlier moment goes on from there. */
  const goOn = (): TraceSession => {
    if (!looked) return session
    setDropped([...session.actions])
    setLooked(undefined)
    setSession(looked)
    return looked
  }
  return {
    session: looked ?? session,
    whole: session,
    lookedAt: looked?.rig.simulation.time,
    lookAt,
    dropped: dropped !== undefined,
    running,
    speed,
    setRunning(on) {
      if (on) setLooked(undefined)
      setRunning(on)
      if (!on) write(session)
    },
    setSpeed,
    act(...actions) {
      const on = goOn()
      if (!looked) setDropped(undefined)
      on.problem = undefined
      for (const action of actions) if (!on.act(action)) break
      after(on)
    },
    step() {
      setRunning(false)
      if (looked) {
        const now = looked.rig.simulation.time
        const next = session.rig.simulation.history.find((event) => event.time > now)
        return lookAt(next?.time)
      }
      session.stepToEvent()
      after(session)
    },
    address() {
      const params = new URLSearchParams(location.search)
      params.delete('do')
      for (const action of session.written) params.append('do', action)
      return `${location.origin}${location.pathname}?${params}`
    },
    open: begin,
    undo: () => replace(dropped ?? session.withoutLast()),
    reset: () => replace([]),
  }
}

/** The address of a trace with these actions done. */
export const traceAddress = (job: string, actions: readonly Action[]): string =>
  `/jobs/${job}/trace?${new URLSearchParams(actions.map((a) => ['do', formatAction(a)]))}`
