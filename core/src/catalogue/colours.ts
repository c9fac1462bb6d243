import type { Colour } from '../installation'

/** Supplies a system is planned for. */
export const supplies = {
  '230-50': { name: '230 V, 50 Hz', volts: 230, frequency: 50 },
  '120-60': { name: '120 V, 60 Hz', volts: 120, frequency: 60 },
} as const
export type SupplyId = keyof typeof supplies

/** What a conductor is for: it decides the colour wanted and the sleeve worn where the cable lacks it. */
export type Use = 'line' | 'switched' | 'neutral' | 'earth'

/** The colours cables come in, by number of cores, and which of them each use asks for first. */
export interface ColourSet {
  bySize: Record<number, readonly Colour[]>
  wanted: Record<Use, readonly Colour[]>
  /** The sleeve a conductor of this colour wears in this use, where its own colour says something else. */
  sleeveFor(use: Use, colour: Colour): Colour | undefined
}

const harmonised: ColourSet = {
  bySize: {
    3: ['brown', 'blue', 'green-yellow'],
    4: ['brown', 'black', 'grey', 'green-yellow'],
    5: ['brown', 'blue', 'green-yellow', 'black', 'grey'],
  },
  wanted: {
    line: ['brown', 'black', 'grey', 'blue'],
    switched: ['black', 'grey', 'brown', 'blue'],
    neutral: ['blue', 'grey', 'black'],
    earth: ['green-yellow'],
  },
  sleeveFor(use, colour) {
    if (use === 'neutral' && colour !== 'blue') return 'blue'
    if ((use === 'line' || use === 'switched') && colour === 'blue') return 'brown'
    return undefined
  },
}

/** North American building wire, 120 V. */
const northAmerican: ColourSet = {
  bySize: {
    3: ['black', 'white', 'bare'],
    4: ['black', 'white', 'red', 'bare'],
    5: ['black', 'white', 'red', 'blue', 'bare'],
  },
  wanted: {
    line: ['black', 'red', 'blue'],
    switched: ['red', 'blue', 'black', 'white'],
    neutral: ['white'],
    earth: ['bare'],
  },
  sleeveFor(use, colour) {
    if (use === 'neutral') return colour === 'white' ? undefined : 'white'
    return use !== 'earth' && colour === 'white' ? 'black' : undefined
  },
}

/** Cable of older houses, and what its colours were used for. */
const older: ColourSet = {
  bySize: { 2: ['red', 'black'], 3: ['red', 'black', 'green-yellow'], 4: ['red', 'yellow', 'blue', 'green-yellow'] },
  wanted: {
    line: ['red', 'yellow', 'white', 'blue'],
    switched: ['yellow', 'white', 'blue', 'red'],
    neutral: ['black', 'blue'],
    earth: ['green-yellow', 'green', 'bare'],
  },
  sleeveFor(use, colour) {
    if (use === 'neutral') return colour === 'black' || colour === 'blue' ? undefined : 'black'
    return (use === 'line' || use === 'switched') && (colour === 'black' || colour === 'blue') ? 'red' : undefined
  },
}

/** Thermostat wire for 24 V. Colours prove nothing; these are the usual ones. */
export const thermostatWire: ColourSet = {
  bySize: { 2: ['red', 'white'], 4: ['red', 'white', 'green', 'yellow'] },
  wanted: { line: ['red'], switched: ['white', 'yellow'], neutral: ['green'], earth: [] },
  sleeveFor: () => undefined,
}

/** The colours of mains cable where a supply is found. */
export const coloursOf = (supply: SupplyId): ColourSet => (supply === '120-60' ? northAmerican : harmonised)

/** What the colours of a cable mean by themselves, wherever it is; undefined where they may be of several times or places. */
export function colourMeaning(cores: readonly Colour[]): ColourSet | undefined {
  const has = (colour: Colour) => cores.includes(colour)
  if (has('white') && has('black')) return northAmerican
  if (has('brown') || has('blue')) return harmonised
  return has('red') && has('black') && (has('green') || has('green-yellow')) ? older : undefined
}

/** What they mean in the wall of a house with that supply. */
export const coloursFound = (supply: SupplyId, cores: readonly Colour[]): ColourSet =>
  colourMeaning(cores) ?? coloursOf(supply)

/** Colours that are earth and nothing else, whatever the cable. */
export const isEarthColour = (colour: Colour): boolean => ['green-yellow', 'green', 'bare'].includes(colour)
