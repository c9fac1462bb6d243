import { terminalName, viaOf, viaText, type Edge, type Leg, type Rig } from '@nobbet/core'
import { Fragment } from 'react'
import { conductorRef } from './picked'
import { putInPlaces } from './put-in-marks'

interface LegStationProps {
  rig: Rig
  leg: Leg
  /** The terminal at which this branch meets the others: drawn once, behind them. */
  meet?: number
  picked?: string
  onPick: (terminal: string) => void
}

/** A stretch of wiring: the terminals it passes, in order, on a line that is heavy while it is live. */
export function LegStation({ rig, leg, meet, picked, onPick }: LegStationProps) {
  const sim = rig.simulation
  const { circuit } = sim
  const wrong = putInPlaces(rig)
  const potentials = sim.potentials()
  const live = (atom: number) => potentials[atom].state === 'live'
  const steps = leg.steps.map((step, i) => ({ ...step, from: i === 0 ? leg.from : leg.steps[i - 1].to }))
  return (
    <li className={`station leg ${live(leg.from) ? 'in' : ''} ${live(leg.to) ? 'out' : ''}`}>
      <div className="leg-line">
        {steps.map(({ edge, from, to }) => {
          const broken = sim.edgeBroken(edge)
          const carried = live(from) && live(to) && !broken
          const text = viaText(circuit, viaOf(circuit, circuit.edges[edge]))
          const putIn = wrong.has(wireRef(circuit.edges[edge]) ?? '')
          return (
            <Fragment key={edge}>
              <Wire
                edge={circuit.edges[edge]}
                text={`${text}${broken ? ': open' : ''}${putIn ? ': put in' : ''}`}
                className={`wire ${carried ? 'live' : ''} ${broken ? 'broken' : ''} ${putIn ? 'put-in' : ''}`}
                picked={picked}
                onPick={onPick}
              >
                {(broken || putIn) && (
                  <span className="break">
                    {putIn && <i>◆</i>} {broken && 'open'}
                  </span>
                )}
              </Wire>
              {to !== meet && <TerminalChip rig={rig} atom={to} picked={picked} onPick={onPick} />}
            </Fragment>
          )
        })}
      </div>
    </li>
  )
}

const wireRef = (edge: Edge) => (edge.kind === 'core' ? conductorRef(edge.cable.id, edge.core.id) : undefined)

interface WireProps {
  edge: Edge
  text: string
  className: string
  picked?: string
  onPick: (ref: string) => void
  children: React.ReactNode
}

/**
 * A piece of the line. A conductor can be picked: the wiring centre then shows where its ends are. Too narrow a target to
 * be the only way: the panel of each terminal lists its conductors too.
 */
function Wire({ edge, text, className, picked, onPick, children }: WireProps) {
  const ref = wireRef(edge)
  if (!ref)
    return (
      <span className={className} title={text}>
        {children}
      </span>
    )
  return (
    <span
      className={`${className} conductor-wire ${picked === ref ? 'picked' : ''}`}
      data-conductor={ref}
      title={text}
      onClick={() => onPick(ref)}
    >
      {children}
    </span>
  )
}

interface TerminalChipProps {
  rig: Rig
  atom: number
  picked?: string
  onPick: (terminal: string) => void
}

/** A wiring centre's terminal on the line, by its number. Devices' terminals stand at their gates and are not repeated. */
export function TerminalChip({ rig, atom, picked, onPick }: TerminalChipProps) {
  const { circuit } = rig.simulation
  const { ref, kind } = circuit.atoms[atom]
  if (kind !== 'centre') return null
  const { state } = rig.simulation.potentials()[atom]
  return (
    <button
      className={`terminal-number ${state === 'live' ? 'live' : ''} ${picked === ref ? 'picked' : ''} ${putInPlaces(rig).has(ref) ? 'put-in' : ''}`}
      aria-label={`${terminalName(circuit, ref)}, ${state}`}
      onClick={() => onPick(ref)}
    >
      {ref.split('.')[1]}
    </button>
  )
}
