/** The first look is this far ahead, hours; each further one half as far again. */
const firstLook = 1 / 3600
const further = 1.5
/** A crossing is found to within this, hours: a fifth of a millisecond. */
const within = 5e-8

/**
 * The first time, hours, at which a sum of exponentials is no longer below zero; Infinity where that is not within the
 * horizon. What is above zero only between two looks is not seen: courses of heat turn a few times and slowly.
 */
export function firstAtLeastZero(f: (hours: number) => number, horizon: number): number {
  if (f(0) >= 0) return 0
  let before = 0
  for (let at = Math.min(firstLook, horizon); ; at = Math.min(at * further, horizon)) {
    if (f(at) >= 0) {
      let [low, high] = [before, at]
      while (high - low > within) {
        const middle = (low + high) / 2
        if (f(middle) >= 0) high = middle
        else low = middle
      }
      return high
    }
    if (at >= horizon) return Infinity
    before = at
  }
}
