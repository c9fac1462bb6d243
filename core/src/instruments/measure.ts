import { type AtomId, potentials, type Circuit } from '../circuit'
import { ActionError, type Simulation } from '../simulation'
import { insulationReading, ohmsReading, refusalOf } from './dead'
import { polarityReading, powerReading, voltsReading } from './live'
import { deadTests, leadOhms, type Instrument, type Reading } from './reading'

/**
 * Puts an instrument's leads on two points of an installation and reads it. Leads go on any terminal, connector or free
 * conductor end. `power` and `polarity` are read at the device of the red lead; polarity takes its line from the red
 * lead and its neutral from the black one. `earth` measures from the red lead back to the supply's earth.
 * Throws {@link ActionError} where a point does not exist.
 */
export function measure(sim: Simulation, instrument: Instrument, red: string, black: string): Reading {
  const { electrics, circuit } = sim
  const at = (ref: string) => {
    const atom = circuit.atomIndex.get(ref)
    if (atom === undefined || circuit.atoms[atom].kind === 'internal')
      throw new ActionError(`there is no terminal "${ref}" to put a lead on`)
    return atom
  }
  const [r, b] = [at(red), instrument === 'earth' ? earthOf(circuit) : at(black)]
  const device = circuit.deviceIndex.get(circuit.atoms[r].owner)
  if (instrument === 'power') {
    if (device === undefined)
      throw new ActionError(`power is read at a device: put the red lead on one, not on "${red}"`)
    return powerReading(electrics, device)
  }
  if (sim.shortNow) return { kind: 'refused', refusal: { reason: 'short' } }
  const dead = deadTests.has(instrument)
  if (dead) {
    const refusal = refusalOf(electrics, r, b, instrument === 'insulation')
    if (refusal) return { kind: 'refused', refusal }
  }
  if ([r, b].some((atom) => potentials(electrics)[atom].state === 'unknown')) return { kind: 'unknown' }
  switch (instrument) {
    case 'tester':
    case 'meter':
      return voltsReading(electrics, r, b, leadOhms[instrument])
    case 'polarity':
      return polarityReading(electrics, r, b, earthAt(circuit, circuit.atoms[r].owner))
    case 'insulation':
      return insulationReading(electrics, r, b)
    default:
      return ohmsReading(electrics, r, b)
  }
}

/** The earth of the supply. */
function earthOf(circuit: Circuit): AtomId {
  const [source] = circuit.sources
  if (!source) throw new ActionError('this installation has no supply whose earth could be measured against')
  return source.earth
}

/** The earth terminal of a device, else the supply's: where a third lead would go. */
function earthAt(circuit: Circuit, owner: string): AtomId {
  const own = circuit.atoms.findIndex((a) => a.owner === owner && a.role === 'earth')
  return own >= 0 ? (own as AtomId) : earthOf(circuit)
}
