/**
 * How usual it is that wiring stands so, as factors against what is usual: trade estimates. What a conductor does is told by what it is
 * joined with; colours only lean.
 */
export const usual = {
  /** A conductor sits with what it would be expected to be joined with. */
  fits: 1,
  /** Nothing is known yet of what it sits with, and it could be so. */
  fresh: 0.5,
  /** It sits with something that its terminal has nothing to do with. */
  misplaced: 0.004,
  /** Its terminal's net would be in two places of the box that nothing joins. */
  parted: 0.02,
  /** On a terminal that would be joined with nothing. */
  stray: 0.03,
  /** Cut back at its far end, and yet in a terminal with others; an earth conductor often is. */
  unusedInTerminal: 0.05,
  unusedEarth: 0.4,
  /** Parked or cut back in the box, and yet on a terminal at its far end. */
  servesNothing: 0.03,
  /** Two conductors on one terminal of a device. */
  shared: 0.05,
  /** An earth colour used as something else, or another colour as earth. */
  earthMisused: 0.02,
  /** The neutral colour used as something else. */
  neutralMisused: 0.3,
  /** Another colour as neutral. */
  otherAsNeutral: 0.1,
  /** A cable that goes to another box, or nowhere. */
  away: 0.02,
  /** As many cables again to a device as it would have. */
  extraCable: 0.03,
  /** A device that has none in the box, and would have one. */
  noCable: 0.03,
  /** A terminal that no conductor from the box reaches: fed from elsewhere, or not at all. */
  missing: 0.05,
  missingEarth: 0.15,
  /** The same, and a device without a cable, while not every cable is written down. */
  notYet: 0.6,
  /** One cable that serves two devices. */
  twoDevices: 0.02,
  /** A sheath behind a plate that is none of those in the box. */
  otherSheath: 0.03,
  /** A conductor that goes on in a joint behind a plate. */
  joint: 0.1,
} as const

/** The same as natural logarithms. */
export const asLog = Object.fromEntries(
  Object.entries(usual).map(([what, factor]) => [what, Math.log(factor)]),
) as Record<keyof typeof usual, number>

/** All that is on no list: its share before anything is found that only it would explain. */
export const unlistedShare = 0.01

/** How often what is said of a cable is right. */
export const saidRight = { label: 0.85, drawing: 0.75, 'earlier-visit': 0.75, guess: 0.6 } as const
/** Moved and felt; read in a known state. */
export const feltRight = 0.95
export const readRight = 0.98
