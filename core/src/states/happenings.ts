import type { Breach } from './properties'

/** What leads from one state to the next. */
export type Happening =
  | { what: 'input'; input: number; asks: boolean; midTravel: boolean }
  | { what: 'contact'; contact: number }
  /** A contact that makes at times only does not make this time. */
  | { what: 'miss'; contact: number }
  | { what: 'travel'; actuator: number }
  | { what: 'message'; port: number }
  | { what: 'phase'; behaviour: number }

/** A breach and the shortest way to the first state that shows it. */
export interface FoundBreach {
  breach: Breach
  path: Happening[]
}
