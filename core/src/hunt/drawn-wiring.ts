import { toTheEye, type Hypothesis } from '../hypotheses'
import type { Installation } from '../installation'
import { wiringSeen } from '../looks'
import type { Expected } from './likelihood'

/**
 * What is seen where the wiring is compared with the drawing. It hangs on how the conductors lie and on no state; suspects whose
 * conductors join the same may look different.
 */
export class DrawnWiring {
  private readonly known = new Map<string, Installation>()

  constructor(private readonly drawn: Installation) {}

  /** At a device or wiring centre, where these are wrong. */
  shownAt(thing: string, causes: readonly Hypothesis[]): Expected {
    return { word: wiringSeen(this.drawn, this.with(causes), thing) }
  }

  private with(causes: readonly Hypothesis[]): Installation {
    const key = causes.map(({ id }) => id).join(' + ')
    let doc = this.known.get(key)
    if (!doc) this.known.set(key, (doc = toTheEye(this.drawn, causes)))
    return doc
  }
}
