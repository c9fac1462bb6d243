import { Fragment } from 'react'
import {
  agrees,
  lookAt,
  terminalSchedule,
  terminalVolts,
  voltsText,
  type leadOhms,
  type LookResult,
  type Simulation,
  type StateWord,
} from '@nobbet/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Conductor } from '../drawing/conductor'
import { StateMark } from '../drawing/state-mark'
import { conductorRef } from './picked'
import { PutInMark, putInPlaces } from './put-in-marks'
import type { TraceSession } from './session'

interface WiringCentreProps {
  session: TraceSession
  picked?: string
  /** What each lead of the meter is on. */
  leads: { red?: string; black?: string }
  onPick: (terminal: string) => void
}

type Reader = keyof typeof leadOhms

interface TerminalReading {
  state: StateWord
  shown: LookResult
  text: string
}

/** What an instrument shows on a terminal, against its neutral or the return of its transformer. */
function readAt(simulation: Simulation, ref: string, reader: Reader): TerminalReading {
  const { circuit, electrics } = simulation
  const { state } = simulation.potentialAt(ref)
  const shown = lookAt(simulation, { at: 'points', with: reader, red: ref })
  const read = terminalVolts(electrics, circuit.atomIndex.get(ref)!, reader)
  if (!read) return { state, shown, text: '' }
  // A pole is told by its word; a figure of nothing beside it would only be noise.
  const plain = (state === 'neutral' || state === 'earth') && read.volts < 0.5
  const half = read.mean > 0.5 ? `, mean ${voltsText(read.mean)}` : ''
  return { state, shown, text: plain ? '' : `${voltsText(read.volts)}${half}` }
}

/** The wiring centre: terminal under terminal in its real order, what is in each, what it reads now and should read. */
export function WiringCentre({ session, picked, leads, onPick }: WiringCentreProps) {
  const { rig } = session
  const { simulation } = rig
  const healthy = session.healthy.simulation
  const { installation } = simulation.circuit
  const [all, setAll] = useState(false)
  const [reader, setReader] = useState<Reader>('tester')
  const centres = useMemo(
    () => installation.wiringCentres.map((centre) => ({ centre, rows: terminalSchedule(installation, centre.id) })),
    [installation],
  )
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    list.current?.querySelector('.picked')?.scrollIntoView({ block: 'nearest' })
  }, [picked])

  return (
    <section className="sheet wc" ref={list}>
      {centres.map(({ centre, rows }) => (
        <div key={centre.id}>
          <header>
            <h2>{centre.name}</h2>
            <div className="knob" role="group" aria-label="Read with">
              {(['tester', 'meter'] as const).map((r) => (
                <button
                  key={r}
                  className={r === reader ? 'on' : ''}
                  aria-pressed={r === reader}
                  onClick={() => setReader(r)}
                >
                  {r === 'tester' ? 'Tester' : 'Meter'}
                </button>
              ))}
            </div>
            <label>
              <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} /> N, E, spare
            </label>
          </header>
          <table>
            <colgroup>
              <col className="wc-number" />
              <col />
              <col className="wc-reading" />
              <col className="wc-reading" />
            </colgroup>
            <thead>
              <tr>
                <th colSpan={2}>{reader === 'tester' ? '100 kΩ between the leads' : '10 MΩ: shows induced volts'}</th>
                <th className="wc-reads">Reads now</th>
                <th className="wc-reads">Should read</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row, i) => {
                const now = readAt(simulation, row.ref, reader)
                const should = healthy === simulation ? now : readAt(healthy, row.ref, reader)
                const wrong = now.state !== should.state || !agrees(should.shown, now.shown, reader)
                // A pole's own terminals and the spares are background, unless something is on them that should not be.
                const quiet = now.state === 'neutral' || now.state === 'earth' || row.conductors.every((c) => c.parked)
                const holds = row.conductors.some((c) => picked === conductorRef(c.cable, c.core))
                const putIn =
                  putInPlaces(rig).has(row.ref) ||
                  row.conductors.some((c) => putInPlaces(rig).has(conductorRef(c.cable, c.core)))
                const looked = putIn || picked === row.ref || holds || leads.red === row.ref || leads.black === row.ref
                if (quiet && !all && !wrong && now.state !== 'live' && !looked) return null
                const conductors = row.conductors.map((c) => (
                  <button
                    key={`${c.cable} ${c.core}`}
                    className={picked === conductorRef(c.cable, c.core) ? 'wc-conductor picked' : 'wc-conductor'}
                    onClick={() => onPick(conductorRef(c.cable, c.core))}
                  >
                    <Conductor colour={c.colour} sleeve={c.sleeve} /> <span>{c.farText}</span>{' '}
                    <PutInMark rig={rig} at={conductorRef(c.cable, c.core)} />
                  </button>
                ))
                // Several have the whole width to themselves, under what is read there.
                const several = conductors.length > 1
                const marks = `${picked === row.ref ? 'picked' : ''} ${wrong ? 'wrong' : ''}`
                return (
                  <Fragment key={row.ref}>
                    <tr
                      className={`${row.legend !== rows[i - 1]?.legend ? 'group' : ''} ${marks}`}
                      data-terminal={row.ref}
                      data-state={now.state}
                    >
                      <td rowSpan={several ? 2 : 1}>
                        <button
                          className="terminal-number"
                          aria-label={`Terminal ${row.number}`}
                          onClick={() => onPick(row.ref)}
                        >
                          {row.number}
                        </button>
                        {leads.red === row.ref && <span className="lead-here red">Red</span>}
                        {leads.black === row.ref && <span className="lead-here black">Black</span>}
                      </td>
                      <td>
                        <div className="wc-legend">
                          {row.legend} <PutInMark rig={rig} at={row.ref} />
                        </div>
                        {!several && conductors}
                      </td>
                      <td className="wc-reads">
                        <StateMark state={now.state} reads={now.text} />
                      </td>
                      <td className="wc-reads should">
                        {wrong && <span className="not-equal">≠</span>}
                        <StateMark state={should.state} reads={should.text} />
                      </td>
                    </tr>
                    {several && (
                      <tr className={`same-terminal ${marks}`}>
                        <td colSpan={3}>{conductors}</td>
                      </tr>
                    )}
                  </Fragment>
                )
              })}
            </tbody>
          </table>
        </div>
      ))}
    </section>
  )
}
