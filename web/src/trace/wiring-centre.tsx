import { terminalSchedule, type Rig } from '@nobbet/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Conductor } from '../drawing/conductor'
import { StateMark } from '../drawing/state-mark'

interface WiringCentreProps {
  rig: Rig
  picked?: string
  onPick: (terminal: string) => void
}

/** The wiring centre: terminal under terminal in its real order, what is in each and what it reads now. */
export function WiringCentre({ rig, picked, onPick }: WiringCentreProps) {
  const { circuit } = rig.simulation
  const { installation } = circuit
  const [all, setAll] = useState(false)
  const centres = useMemo(
    () => installation.wiringCentres.map((centre) => ({ centre, rows: terminalSchedule(installation, centre.id) })),
    [installation],
  )
  const potentials = rig.simulation.potentials()
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
            <label>
              <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} /> neutral, earth,
              spare
            </label>
          </header>
          <table>
            <tbody>
              {rows.map((row, i) => {
                const potential = potentials[circuit.atomIndex.get(row.ref)!]
                // A pole's own terminals and the spares are background, unless something is on them that should not be.
                const quiet =
                  potential.state === 'neutral' || potential.state === 'earth' || row.conductors.every((c) => c.parked)
                if (quiet && !all && potential.state !== 'live' && picked !== row.ref) return null
                return (
                  <tr
                    key={row.ref}
                    className={`${row.legend !== rows[i - 1]?.legend ? 'group' : ''} ${picked === row.ref ? 'picked' : ''}`}
                    data-terminal={row.ref}
                    data-state={potential.state}
                  >
                    <td>
                      <button
                        className="terminal-number"
                        aria-label={`Terminal ${row.number}`}
                        onClick={() => onPick(row.ref)}
                      >
                        {row.number}
                      </button>
                    </td>
                    <td>
                      <div className="wc-legend">{row.legend}</div>
                      {row.conductors.map((c) => (
                        <div key={`${c.cable} ${c.core}`} className="wc-conductor">
                          <Conductor colour={c.colour} sleeve={c.sleeve} /> <span>{c.farText}</span>
                        </div>
                      ))}
                    </td>
                    <td className="wc-reads">
                      <StateMark potential={potential} />
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
        </div>
      ))}
    </section>
  )
}
