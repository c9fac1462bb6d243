import type { Failure } from './primitives'

const failure =
  (id: string, mode: Failure['mode']) =>
  (label: string, prior: number, remedy: string): Failure => ({ id, mode, label, prior, remedy })

/** The failures parts are prone to; a device type names them in its own words, weight and remedy. */
export const neverMakes = failure('never-makes', 'held-open')
export const stuckMade = failure('stuck-made', 'held-closed')
export const neverOperates = failure('never-operates', 'held-released')
export const stuckOperated = failure('stuck-operated', 'held-operated')
export const openCircuit = failure('open', 'open-circuit')
export const jammed = failure('jammed', 'jammed')
export const seizedShut = failure('seized-shut', 'seized-shut')
export const seizedOpen = failure('seized-open', 'seized-open')
export const blown = failure('blown', 'blown')
export const madeThrowOpen = failure('made-contact-open', 'made-throw-open')
export const restThrowOpen = failure('rest-contact-open', 'rest-throw-open')
/** Nothing reaches the contact's common any more: neither throw conducts, nor any other contact with that common. */
export const feedLost = failure('feed-lost', 'feed-open')
export const shortCircuited = failure('short', 'short-circuit')
export const leaks = failure('leak', 'short-circuit')
export const seizedPartWay = failure('seized-part-way', 'seized-part-way')
export const springBroken = failure('no-return', 'no-return')
export const makesSometimes = failure('makes-sometimes', 'makes-sometimes')
export const heldCalling = failure('stuck-calling', 'held-energised')
export const neverAsks = failure('never-asks', 'never-asks')
export const lockedOut = failure('lockout', 'locked-out')
export const silentPort = failure('silent', 'silent')
export const turned = failure('turned', 'turned')
export const passes = failure('passes', 'passes')
