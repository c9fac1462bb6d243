import type { KeptScenario } from '@nobbet/contract'
import { eventText, isTold, weekTimeText } from '@nobbet/core'
import {
  ChevronDown,
  ChevronUp,
  Ellipsis,
  FastForward,
  Link2,
  Pause,
  Play,
  RotateCcw,
  Search,
  SkipForward,
  Thermometer,
  Undo2,
  Wrench,
} from 'lucide-react'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { HeatDialog, heatText } from './heat-dialog'
import { ShareDialog } from './share-dialog'
import { PutInDialog } from './put-in-dialog'
import { WhatHappened } from './what-happened'
import { speeds, type SessionHandle } from './use-session'

const week = 7 * 1440
const speedWords = { 1: '1×', 10: '10×', 60: '1 min/s', 600: '10 min/s', 3600: '1 h/s' } as const

export type TimeDialog = 'find' | 'heat' | 'faults' | 'share'

interface TimeBarProps {
  handle: SessionHandle
  job?: string
  scenarios?: readonly KeptScenario[]
  /** What happened is open from the start. */
  happened?: boolean
  /** Which dialog is open: its own, or that of finding. */
  dialog?: TimeDialog
  onDialog: (dialog: TimeDialog | undefined) => void
}

/** Time in one line: run, the next event, speed, what happened last; all that happened opens above it, and so does the rest on a phone. */
export function TimeBar({ handle, job, scenarios = [], happened = false, dialog, onDialog }: TimeBarProps) {
  const { session, whole, running, speed } = handle
  const [as, setAs] = useState<'list' | 'signals'>('list')
  const { simulation, faultsIn, faults } = session.rig
  const { circuit } = simulation
  const [open, setOpen] = useState<'events' | 'rest' | undefined>(happened ? 'events' : undefined)
  const toggle = (what: 'events' | 'rest') => setOpen(open === what ? undefined : what)
  const { minuteOfWeek } = simulation
  const last = simulation.history.findLast((event) => isTold(circuit, event))
  const when = (ms: number) =>
    minuteOfWeek === undefined
      ? `${(ms / 1000).toFixed(2)} s`
      : weekTimeText((((minuteOfWeek + (ms - simulation.time) / 60_000) % week) + week) % week)
  return (
    <footer className="time-bar">
      {open === 'events' && <WhatHappened handle={handle} as={as} onAs={setAs} when={when} />}
      {handle.lookedAt !== undefined && (
        <div className="looking-back" role="status">
          <strong>Looking back at {when(handle.lookedAt)}</strong>
          <span className="quiet">What is done now goes on from here.</span>
          <Button size="sm" variant="dark" onClick={() => handle.lookAt(undefined)}>
            To the end
          </Button>
        </div>
      )}
      <div className={session.lives ? 'time-controls dense' : 'time-controls'}>
        <div className="clock" aria-label="Time since the start">
          {minuteOfWeek === undefined ? `${(simulation.time / 1000).toFixed(1)} s` : weekTimeText(minuteOfWeek)}
          <span className="doing">
            {handle.lookedAt !== undefined
              ? 'earlier'
              : session.underWay || session.lives
                ? running
                  ? 'running'
                  : 'paused'
                : 'at rest'}
          </span>
        </div>
        <Button variant="dark" onClick={() => handle.setRunning(!running)} aria-pressed={!running} title="Space">
          {running ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />}{' '}
          <span className="label">{running ? 'Pause' : 'Run'}</span>
        </Button>
        <Button
          variant="outline-dark"
          onClick={handle.step}
          disabled={handle.lookedAt === undefined && !session.underWay && !session.lives}
          title="N"
        >
          <SkipForward size={18} aria-hidden /> <span className="label">Next event</span>
        </Button>
        <button className="last-event" aria-expanded={open === 'events'} onClick={() => toggle('events')}>
          {open === 'events' ? <ChevronDown size={18} aria-hidden /> : <ChevronUp size={18} aria-hidden />}
          <span className="visually-hidden">What happened: </span>
          <span className="told">{last ? eventText(circuit, last, faults) : 'Nothing yet'}</span>
        </button>
        <Button
          variant="outline-dark"
          className="rest-open"
          aria-expanded={open === 'rest'}
          aria-label="Find, heat, faults, undo, share"
          onClick={() => toggle('rest')}
        >
          <Ellipsis size={18} aria-hidden />{' '}
          {faultsIn.length > 0 && <span className="put-in-mark">◆ {faultsIn.length} in</span>}
        </Button>
        <div className={open === 'rest' ? 'time-rest open' : 'time-rest'} onClick={() => setOpen(undefined)}>
          <div className="knob" role="group" aria-label="Speed">
            {(session.lives ? speeds : speeds.slice(0, 2)).map((s) => (
              <button
                key={s}
                className={s === speed ? 'on' : ''}
                aria-pressed={s === speed}
                onClick={() => handle.setSpeed(s)}
              >
                {s === 10 && <FastForward size={14} aria-hidden />} {speedWords[s]}
              </button>
            ))}
          </div>
          <Button variant="outline-dark" onClick={() => onDialog('find')} title="Find: /" aria-label="Find">
            <Search size={18} aria-hidden />
          </Button>
          <Button variant="outline-dark" onClick={() => onDialog('heat')}>
            <Thermometer size={18} aria-hidden /> <span className="label">{heatText(simulation)}</span>
          </Button>
          <Button variant="outline-dark" onClick={() => onDialog('faults')}>
            <Wrench size={18} aria-hidden /> <span className="label">Faults</span>
            {faultsIn.length > 0 && <span className="put-in-mark">◆ {faultsIn.length} in</span>}
          </Button>
          <Button
            variant="outline-dark"
            onClick={handle.undo}
            disabled={whole.actions.length === 0 && !handle.dropped}
            title={handle.dropped ? 'Bring back what came after: U' : 'Undo: U'}
            aria-label="Undo"
          >
            <Undo2 size={18} aria-hidden /> <span className="label spare">Undo</span>
          </Button>
          <Button
            variant="outline-dark"
            onClick={handle.reset}
            disabled={session.actions.length === 0}
            title="Reset: Shift R"
            aria-label="Reset"
          >
            <RotateCcw size={18} aria-hidden /> <span className="label spare">Reset</span>
          </Button>
          <Button
            variant="outline-dark"
            aria-label="Share"
            onClick={() => {
              handle.setRunning(false)
              onDialog('share')
            }}
          >
            <Link2 size={18} aria-hidden /> <span className="label spare">Share</span>
          </Button>
        </div>
      </div>
      {dialog === 'heat' && <HeatDialog handle={handle} onClose={() => onDialog(undefined)} />}
      {dialog === 'faults' && <PutInDialog handle={handle} onClose={() => onDialog(undefined)} />}
      {dialog === 'share' && (
        <ShareDialog handle={handle} job={job} scenarios={scenarios} onClose={() => onDialog(undefined)} />
      )}
    </footer>
  )
}
