import type { Circuit } from '../src/circuit'
import { Course, type HuntEntry } from '../src/hunt'
import { restOf, variantOf, type Hypothesis } from '../src/hypotheses'
import type { Found, WrittenLook } from '../src/looks'
import { Simulation } from '../src/simulation'

/** A log that is written while it is lived through, where all of these are so. */
export function lived(circuit: Circuit, causes: readonly Hypothesis[]) {
  const course = new Course(restOf(circuit, variantOf(causes), new Simulation(circuit)))
  const log: HuntEntry[] = []
  return {
    log,
    done(...texts: string[]) {
      for (const text of texts) {
        course.act(text)
        log.push({ id: `e${log.length}`, do: text })
      }
    },
    seen(...looks: WrittenLook[]) {
      for (const see of looks) {
        const { expected } = course.shows(see)
        if (expected === 'open' || 'unknown' in expected || 'chances' in expected) throw new Error('it shows one thing')
        const found: Found = 'full' in expected ? { value: expected.value, unit: 'V' } : expected
        log.push({ id: `e${log.length}`, see, found })
      }
    },
  }
}
