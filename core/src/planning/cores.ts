import { isEarthColour, type ColourSet, type Use } from '../catalogue'
import type { Colour } from '../installation'

export interface Wire {
  /** The device's terminal; null where the device has none for it (an earth parked at a plastic back plate). */
  terminal: string | null
  use: Use
  /** Where the near end is, when not at a terminal: in a connector behind the backplate. */
  connector?: string
  /** The wiring centre's function the other end goes to. */
  to: string
}

/** A cable in the wall has not the cores that its device needs. */
export class TooFewCores extends Error {
  constructor(
    readonly cable: string,
    label: string,
    colours: readonly Colour[],
    /** What each conductor is needed for that none is left for. */
    wanting: readonly Use[],
  ) {
    const uses: Record<Use, string> = {
      line: 'a line',
      switched: 'a switched live',
      neutral: 'a neutral',
      earth: 'an earth',
    }
    const have = `${label} in the wall: ${colours.join(', ')}`
    super(
      `${have}: none is left for ${wanting.map((use) => uses[use]).join(' and ')}; green-yellow is never anything but earth`,
    )
    this.name = 'TooFewCores'
  }
}

/** A cable is said to be in the wall that the plan does not have. */
export class NoSuchCable extends Error {
  constructor(
    readonly cable: string,
    has: readonly string[],
  ) {
    super(`the plan has no cable "${cable}": it has ${has.join(', ')}`)
    this.name = 'NoSuchCable'
  }
}

/**
 * Which wire of a device each core of its cable is; undefined for one in reserve. A wire takes the first colour its use asks for;
 * in a cable that is there already any other, but for an earth nothing but an earth, and that for nothing else. An earth that ends at a plastic plate
 * is left out where the cable has none.
 *
 * @throws TooFewCores
 */
export function wiresToCores(
  id: string,
  label: string,
  wires: readonly Wire[],
  colours: readonly Colour[],
  set: ColourSet,
  inWall: boolean,
): (Wire | undefined)[] {
  const cores: (Wire | undefined)[] = colours.map(() => undefined)
  const wanting: Use[] = []
  const free = (fits: (colour: Colour) => boolean) => colours.findIndex((colour, i) => !cores[i] && fits(colour))
  for (const wire of wires) {
    const core = preferred(wire.use, set, inWall)
      .map((fits) => free(fits))
      .find((i) => i >= 0)
    if (core !== undefined) cores[core] = wire
    else if (!(inWall && wire.use === 'earth' && wire.terminal === null)) wanting.push(wire.use)
  }
  if (wanting.length > 0 && !inWall)
    throw new Error(`cable ${id}: ${colours.length} cores do not serve ${wires.length} conductors`)
  if (wanting.length > 0) throw new TooFewCores(id, label, colours, wanting)
  return cores
}

/** Colours that a use takes, the best first; of a cable in the wall the neutral's own colour last for what is live. */
function preferred(use: Use, { wanted }: ColourSet, inWall: boolean): ((colour: Colour) => boolean)[] {
  const own = wanted[use].map((one) => (colour: Colour) => colour === one)
  if (!inWall) return own
  if (use === 'earth') return [...own, isEarthColour]
  const isLive = use === 'line' || use === 'switched'
  const isOther = (colour: Colour) => !isEarthColour(colour)
  const saysNeutral = (colour: Colour) => colour === wanted.neutral[0]
  return isLive
    ? [
        ...own.map((fits) => (colour: Colour) => fits(colour) && !saysNeutral(colour)),
        (c) => isOther(c) && !saysNeutral(c),
        isOther,
      ]
    : [...own, isOther]
}
