import type { AtomId } from './ids'
import type { Cable } from '../installation'
import type { Branch } from './circuit'
import { admittance } from './impedance'

/** Between two cores of one cable, pF per metre: the usual order for flexible cable insulated with PVC. */
export const usualPicofaradsPerM = 100
/** Metres taken for a cable whose length nobody has noted. */
export const assumedLengthM = 5

/**
 * The capacitance between every two cores of a cable, half of it at each end: so that a core that is open somewhere
 * keeps half of its neighbours on either side. Cores that end at one atom at both ends have none.
 */
export function cableCapacitances(cable: Cable, ends: readonly (readonly [AtomId, AtomId])[], omega: number): Branch[] {
  const farads = (cable.picofaradsPerM ?? usualPicofaradsPerM) * 1e-12 * (cable.lengthM ?? assumedLengthM)
  if (farads === 0) return []
  const element = { kind: 'capacitance', farads: farads / 2, ohms: 0 } as const
  const y = admittance(element, 1, omega, { re: 0, im: 0 })
  return ends.flatMap((first, i) =>
    ends.slice(i + 1).flatMap((second) =>
      ([0, 1] as const).flatMap((end): Branch[] => {
        const [a, b] = [first[end], second[end]]
        return a === b ? [] : [{ a, b, element, y, of: { kind: 'capacitance', cable: cable.id } }]
      }),
    ),
  )
}
