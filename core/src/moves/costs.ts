/**
 * What a change is charged for, so that as little as can be is touched: a conductor's end that is taken off or landed is 1000, and so
 * is a link that is fitted or taken out. What only pleases the eye (a colour that needs a sleeve) is less than any of them.
 */
export const costs = {
  end: 1000,
  link: 1000,
  /** A cable that has to be laid, beside its ends, and each conductor in it. */
  cable: 12_000,
  conductor: 8000,
  /** A terminal that the wiring centre does not have. */
  terminal: 3000,
  /** A conductor that needs a sleeve, and one of a colour that is not the first choice for its use. */
  sleeve: 30,
  colour: 1,
} as const

/** Whole ends, links, cables and terminals of a cost: what is touched, without what pleases the eye. */
export const touchesOf = (cost: number): number => Math.floor(cost / costs.end)
