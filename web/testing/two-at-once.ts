import type { RankedSuspect } from '@nobbet/core'

export const [head, pump] = [
  { id: 'zv-1.motor.open', label: 'zone valve 1: motor open circuit', remedy: 'Replace the head', kind: 'part' },
  { id: 'pump.motor.open', label: 'pump: winding open circuit', remedy: 'Replace the pump', kind: 'part' },
] as const

/** A suspect that is two causes at once, as an answer has it. */
export const twoAtOnce: RankedSuspect = {
  ...head,
  id: `${head.id} + ${pump.id}`,
  label: `${head.label}; ${pump.label}`,
  remedy: '',
  causes: [head, pump],
  group: 'zv-1|Replace the head',
  prior: 0.001,
  share: 0.8,
  against: [],
  supported: [],
}
