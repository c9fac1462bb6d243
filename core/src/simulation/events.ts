export type Motion = 'opening' | 'open' | 'closing' | 'shut' | 'stopped' | 'held' | 'latched'

/** Something that a part did, given what it saw. Devices and parts are named by their ids. */
export type PartEvent =
  | { kind: 'travel'; device: string; part: string; motion: Motion; position: number }
  | { kind: 'phase'; device: string; part: string; phase: string }
  | { kind: 'work'; device: string; part: string; running: boolean }
  | { kind: 'unlatched'; device: string; part: string }
  | { kind: 'bus'; device: string; part: string; linked: boolean }

/** Something that happened, at a simulated time in ms. */
export type SimEvent = { time: number } & (
  | PartEvent
  | { kind: 'control' | 'clock'; device: string; control: string; value: string }
  | { kind: 'fault' | 'mend'; fault: string }
  | { kind: 'contact'; device: string; part: string; throw: 'made' | 'no' | 'nc'; closed: boolean }
  | { kind: 'short' }
  | { kind: 'fuse' | 'trip' | 'burnt'; device: string; part: string }
  | { kind: 'limit'; device: string; part: string }
  | { kind: 'hunting' }
)
