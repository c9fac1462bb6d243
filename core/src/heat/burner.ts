/** Where a burner stands: off; at full heat; holding its aim; resting until its water has cooled; heating without flow. */
export type Burner = 'off' | 'full' | 'holds' | 'rests' | 'blind'

/** In place of watts: it gives whatever flows out of its water, which stays at its aim. */
export const HOLDING = -1
/** Kelvin below its aim at which a burner that rested starts again; a usual value. */
export const restart = 6
/** A burner that hits its aim exactly has reached it, K. */
const close = 1e-6
/** Further than this above its aim, K, its water cools before it is held: the aim has been lowered. */
const above = 0.5

export interface BurnerSees {
  before: Burner
  mayHeat: boolean
  /** °C its water is to have; undefined, it heats for as long as it may. */
  aim: number | undefined
  /** Does water carry its heat to where it is measured? */
  carried: boolean
  celsius: number
  /** W that flow out of its water now. */
  needed: number
  most: number
  least: number
}

/** What a burner does next, and the heat it brings, W. */
export function nextBurner(sees: BurnerSees): { burner: Burner; watts: number } {
  const { before, mayHeat, aim, carried, celsius, needed, most, least } = sees
  if (!mayHeat) return { burner: 'off', watts: 0 }
  if (aim === undefined) return { burner: 'full', watts: most }
  // Nothing carries its heat to where its water is measured: it goes on at its least, and overheats.
  if (!carried) return { burner: 'blind', watts: least }
  if (before === 'rests' && celsius > aim - restart + close) return { burner: 'rests', watts: 0 }
  if (celsius < aim - close) return { burner: 'full', watts: most }
  if (celsius > aim + above || needed < least) return { burner: 'rests', watts: 0 }
  if (needed > most) return { burner: 'full', watts: most }
  return { burner: 'holds', watts: HOLDING }
}
