import { eventText, isTold } from '@nobbet/core'
import { lazy, Suspense } from 'react'
import { errorText } from '../api/client'
import { Progress } from '../shell/progress'
import { useRecording } from './use-recording'
import type { SessionHandle } from './use-session'

const Signals = lazy(() => import('./signals').then((m) => ({ default: m.Signals })))
/** Of a long time, the latest of what happened. */
const mostEvents = 200

interface WhatHappenedProps {
  handle: SessionHandle
  /** As a list, or as signals over time. */
  as: 'list' | 'signals'
  onAs: (as: 'list' | 'signals') => void
  when: (ms: number) => string
}

/** All that happened: as a list, or as signals; either leads to its moment. */
export function WhatHappened({ handle, as, onAs, when }: WhatHappenedProps) {
  return (
    <div className="what-happened">
      <div className="side-tabs" role="tablist" aria-label="What happened">
        <button role="tab" aria-selected={as === 'list'} onClick={() => onAs('list')}>
          List
        </button>
        <button role="tab" aria-selected={as === 'signals'} onClick={() => onAs('signals')}>
          Signals
        </button>
      </div>
      {as === 'list' ? <EventList handle={handle} when={when} /> : <SignalsOf handle={handle} />}
    </div>
  )
}

function EventList({ handle, when }: Pick<WhatHappenedProps, 'handle' | 'when'>) {
  const { simulation, faults } = handle.whole.rig
  const { circuit } = simulation
  const told = simulation.history.filter((event) => isTold(circuit, event))
  const events = told.slice(-mostEvents).reverse()
  return (
    <ol className="events" aria-label="What happened, newest first">
      {events.length === 0 && (
        <li className="quiet">Nothing has happened yet. Switch the programmer on and turn a thermostat up.</li>
      )}
      {events.map((event, i) => (
        <li key={told.length - i} className={event.time === handle.lookedAt ? 'looked' : ''}>
          <button className="claim" onClick={() => handle.lookAt(event.time)} title="Look at this moment">
            <span className="mono">{when(event.time)}</span> {eventText(circuit, event, faults)}
          </button>
        </li>
      ))}
    </ol>
  )
}

/** Worked out apart, as things stood when the time was stopped last. */
function SignalsOf({ handle }: Pick<WhatHappenedProps, 'handle'>) {
  const { whole, running } = handle
  const { circuit } = whole
  const moving = running && (whole.underWay || whole.lives)
  const { data, error } = useRecording(circuit.installation, moving ? undefined : whole.written)
  if (error && error.message !== 'left') return <p>The signals could not be worked out: {errorText(error)}</p>
  if (!data)
    return moving ? (
      <p className="quiet m-2">Signals are drawn once the time is paused.</p>
    ) : (
      <Progress label="Signals" />
    )
  const { simulation } = whole.rig
  const fromMinute =
    simulation.minuteOfWeek === undefined
      ? undefined
      : (((simulation.minuteOfWeek - simulation.time / 60_000) % 10_080) + 10_080) % 10_080
  return (
    <Suspense fallback={<Progress label="Signals" />}>
      <Signals
        circuit={circuit}
        recording={data}
        fromMinute={fromMinute}
        cursor={handle.lookedAt}
        onMoment={handle.lookAt}
      />
    </Suspense>
  )
}
