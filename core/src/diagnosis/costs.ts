import type { Circuit } from '../circuit'
import type { ControlState, Observable } from './observation'

/** Minutes of the engineer's time. Trade estimates, to be made editable. */
export const minutes = {
  /** A glance at a display or a lamp. */
  display: 0.5,
  /** A hand on a pump. */
  pump: 0.5,
  /** A lever: slack or stiff. */
  lever: 1,
  /** A live reading in a wiring centre whose cover is off: set-up of the tester and care included. */
  centreTerminal: 2,
  /** The same in a control on a wall: walk, cover, plate. */
  deviceTerminal: 4,
  /** Each control to be set otherwise than it stands: walk and set. */
  control: 1,
} as const

/** What a look costs from where the controls stand now, in minutes. */
export function costOf(circuit: Circuit, observable: Observable, asking: ControlState, from: ControlState): number {
  const changed = asking.filter((c) => !from.includes(c)).length + from.filter((c) => !asking.includes(c)).length
  return lookCost(circuit, observable) + changed * minutes.control
}

function lookCost(circuit: Circuit, observable: Observable): number {
  switch (observable.kind) {
    case 'boiler':
      return minutes.display
    case 'pump':
      return minutes.pump
    case 'valve':
      return minutes.lever
    case 'terminal': {
      const atom = circuit.atoms[circuit.atomIndex.get(observable.terminal)!]
      return atom.kind === 'centre' ? minutes.centreTerminal : minutes.deviceTerminal
    }
  }
}
