export { asFoundOf } from './as-found'
export type { BehindPlate, NearEnd, SeenCable, SeenCore, SeenLink, Sheath, Survey, SurveyFact } from './document'
export {
  nothingSeen,
  sayings,
  seenCableSchema,
  seenLinkSchema,
  seenTerminalSchema,
  surveyFactSchema,
  surveySchema,
} from './document'
export type { FarEnd } from './certain'
export type { Departure, DepartureKind } from './departures'
export type { SurveyLook, SurveyNext } from './next-look'
export type { Because, CableStanding, CoreStanding, Sureness } from './standing'
export { surveyed, type Surveyed } from './surveyed'
