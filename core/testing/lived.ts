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
        const found = foundBy(course, see)
        if (!found) throw new Error('it shows one thing')
        log.push({ id: `e${log.length}`, see, found })
      }
    },
    /** Those of some looks that show one thing now. */
    telling: (looks: readonly WrittenLook[]): WrittenLook[] => looks.filter((see) => foundBy(course, see)),
  }
}

/** What a look shows; undefined where it may show one thing or another. */
function foundBy(course: Course, see: WrittenLook): Found | undefined {
  const { expected } = course.shows(see)
  if (expected === 'open' || 'unknown' in expected || 'chances' in expected) return undefined
  return 'full' in expected ? { value: expected.value, unit: 'V' } : expected
}
