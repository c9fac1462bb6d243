import type { Step } from '../installation'

/** A conductor, and which of its ends where it is about one. */
export interface CoreRef {
  cable: string
  core: string
  end?: 0 | 1
}

/** A conductor's end, a link or a setting that stands otherwise than it should. */
export type Departed =
  | { kind: 'core'; core: CoreRef; at: string; belongs: string }
  /** Planned, and not there at all; or there, and in no plan. */
  | { kind: 'core-gone' | 'core-extra'; core: CoreRef; colour: string; label: string }
  | { kind: 'exchanged'; cores: [CoreRef, CoreRef] }
  | { kind: 'link'; link: string; made: 'fitted' | 'factory'; between: [string, string] }
  | { kind: 'link-missing'; between: [string, string] }
  | { kind: 'factory-link-cut'; link: string; between: [string, string] }
  | { kind: 'setting'; device: string; setting: string; stands: number; belongs: number }

/** Something that stands otherwise than it should, and the step that puts it right. */
export interface Departure {
  what: Departed
  step: Step
}
