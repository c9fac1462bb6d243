import { actText, deviceSetOf, passes, settle, waitOf, waitText } from '@nobbet/core'
import { useEffect, useState } from 'react'
import { placeName, placeOf, type HuntScreen } from './hunt-screen'

interface SetFirstProps {
  screen: HuntScreen
  acts: readonly string[]
  /** Acts that were ticked as done. */
  ticked: ReadonlySet<string>
  onTick: (ticked: ReadonlySet<string>) => void
  /** Until everything is at rest, ms. */
  restsAfter?: number
  /** What can be looked at meanwhile. */
  meanwhile?: React.ReactNode
}

/** What is set before the look, switch by switch, where each stands; then the wait, with a clock that runs. */
export function SetFirst({ screen, acts, ticked, onTick, restsAfter, meanwhile }: SetFirstProps) {
  const { circuit, entries } = screen
  const last = acts.findLastIndex((act) => !passes(act))
  // What is waited for in between is ticked like a switch; after the last of them a clock runs.
  const deeds = acts.slice(0, last + 1)
  const waits = acts.slice(last + 1).filter((act) => act !== settle || (restsAfter ?? 0) >= 1000)
  const [from, setFrom] = useState<number>()
  const tick = (act: string) => {
    const after = new Set(ticked)
    if (!after.delete(act)) after.add(act)
    onTick(after)
    // With the last switch the clock runs by itself.
    if (after.size === deeds.length) setFrom((before) => before ?? Date.now())
  }
  if (deeds.length + waits.length === 0) return null
  return (
    <section className="set-first" aria-label="Set first">
      {deeds.length > 0 && (
        <ul>
          {deeds.map((act, i) => {
            const device = deviceSetOf(act)
            const before = [...entries, ...deeds.slice(0, i).map((text) => ({ id: text, do: text }))]
            return (
              <li key={act}>
                <label>
                  <input type="checkbox" checked={ticked.has(act)} onChange={() => tick(act)} />
                  <span className="act">{actText(circuit, act, before)}</span>
                  <span className="place">{device !== undefined && placeName(circuit, placeOf(circuit, device))}</span>
                </label>
              </li>
            )
          })}
        </ul>
      )}
      {waits.map((act) => (
        <Clock
          key={act}
          ms={waitOf(act) ?? restsAfter ?? 0}
          from={from}
          onStart={() => setFrom(Date.now())}
          rests={act === settle}
        >
          {meanwhile}
        </Clock>
      ))}
    </section>
  )
}

interface ClockProps {
  ms: number
  /** When it was started, ms since 1970; undefined while it stands. */
  from?: number
  onStart: () => void
  rests: boolean
  children?: React.ReactNode
}

/** Counts down what something takes; the answer can be given all the same. */
function Clock({ ms, from, onStart, rests, children }: ClockProps) {
  const [now, setNow] = useState(0)
  const running = from !== undefined
  useEffect(() => {
    if (!running) return
    const timer = setInterval(() => setNow(Date.now()), 250)
    return () => clearInterval(timer)
  }, [running])
  const left = running ? Math.max(0, ms - (Math.max(now, from) - from)) : ms
  const what = rests ? 'Until everything is at rest' : 'Then wait'
  return (
    <div className={running && left === 0 ? 'wait over' : 'wait'} role="timer" aria-live="off">
      <span className="wait-bar" style={{ width: `${ms === 0 ? 100 : ((ms - left) / ms) * 100}%` }} aria-hidden />
      <span className="wait-text">
        {running && left === 0 ? 'Time is up: look now' : `${what}: ${rests ? 'about ' : ''}${waitText(left)}`}
      </span>
      {!running && (
        <button className="btn btn-sm btn-outline-dark" onClick={onStart}>
          Start the clock
        </button>
      )}
      {running && left > 0 && children}
    </div>
  )
}
