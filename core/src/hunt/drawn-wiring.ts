import { toTheEye, type Hypothesis } from '../hypotheses'
import type { Installation } from '../installation'
import { wiringSeen } from '../looks'
import type { Expected } from './likelihood'

/**
 * What is seen where the wiring is compared with the drawing. It hangs on how the conductors lie and on no state; suspects whose
 * conductors join the same may look different.
 */
export class DrawnWiring {
  private readonly known = new Map<string, { doc: Installation; seen: Map<string, Expected> }>()

  constructor(private readonly drawn: Installation) {}

  /** At a device or wiring centre, where these are wrong. */
  shownAt(thing: string, causes: readonly Hypothesis[]): Expected {
    const { doc, seen } = this.with(causes)
    let shown = seen.get(thing)
    if (!shown) seen.set(thing, (shown = wiringSeen(this.drawn, doc, thing)))
    return shown
  }

  private with(causes: readonly Hypothesis[]) {
    const key = causes.map(({ id }) => id).join(' + ')
    let known = this.known.get(key)
    if (!known) this.known.set(key, (known = { doc: toTheEye(this.drawn, causes), seen: new Map<string, Expected>() }))
    return known
  }
}
