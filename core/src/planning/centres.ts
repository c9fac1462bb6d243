/**
 * Kinds of wiring centre, by what they are: how many conductors go to a terminal, how many terminals there are, and what joins them.
 * Numbers and legends are Nobbet's own.
 */
export interface CentreKind {
  name: string
  /** What stands behind its name when it is offered. */
  about: string
  /** How many terminals it has; left out where as many are fitted as it takes. */
  terminals?: number
  /** How its terminals are given away: by function, some conductors to each; to bars and lever connectors; or by device. */
  by: 'function' | 'levers' | 'device'
  /** Conductors that a terminal takes: of a strip, two from either side. */
  ways: number
  /** As many of them as it takes, joined from each to the next. */
  cascade?: true
  /** Rows of like devices come linked to each other as if they were one; what is to work apart is cut. */
  cut?: true
  /** Its line comes through a fuse of its own. */
  fused?: true
}

const strip = (terminals: number): CentreKind => ({
  name: `Strip of ${terminals}`,
  about: `${terminals} terminals, two sides, four conductors to each; combs link neighbours`,
  terminals,
  by: 'function',
  ways: 4,
})

export const centreKinds = {
  'strip-8': strip(8),
  'strip-10': strip(10),
  'strip-12': strip(12),
  levers: {
    name: 'Bars and levers',
    about: 'bars for line, neutral and earth; a lever connector of 2, 3 or 5 ways to each switched function',
    by: 'levers',
    ways: 5,
  },
  'strips-12': {
    name: 'Strips of 12 in cascade',
    about: 'as many boxes with a strip of 12 as it takes; a cable joins each to the next',
    terminals: 12,
    by: 'function',
    ways: 4,
    cascade: true,
  },
  merged: {
    name: 'Row, four to a terminal',
    about: 'as many terminals as it takes, up to four conductors to each',
    by: 'function',
    ways: 4,
  },
  board: {
    name: 'Board by device',
    about: 'a row of terminals to each device, one conductor to each; line, neutral and earth joined by its tracks',
    by: 'device',
    ways: 1,
  },
  'board-cut': {
    name: 'Board with links to cut',
    about:
      'a place to each device, and a fuse; tracks join line, neutral and earth, and like devices as if they were one: what works apart is cut',
    by: 'device',
    ways: 1,
    cut: true,
    fused: true,
  },
  separate: {
    name: 'Large centre',
    about: 'as many terminals as it takes, one conductor to each: any one lifts out alone',
    by: 'function',
    ways: 1,
  },
} as const satisfies Record<string, CentreKind>
export type CentreKindId = keyof typeof centreKinds
export const centreKindIds = Object.keys(centreKinds) as [CentreKindId, ...CentreKindId[]]
export const centreKind = (id: CentreKindId): CentreKind => centreKinds[id]
