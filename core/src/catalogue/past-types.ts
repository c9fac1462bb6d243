import {
  linkedPairBoiler,
  liveOutputBoiler,
  pumpBesideBoiler,
  switchedLineBoiler,
  systemBoiler,
  twoCallBoiler,
  voltFreeBoiler,
} from './boiler'
import { ownCircuit } from './own-circuit'
import type { DeviceType } from './primitives'
import { busAndLiveBoiler, busBoiler, electricBoiler, heatPump } from './special-boilers'

/** A boiler as it was before its burner could have a least time off: without the setting, its figure, and the phase it waits in. */
const withoutOffTime = (type: DeviceType): DeviceType => ({
  ...type,
  version: type.version - 1,
  settings: type.settings.filter(({ id }) => id !== 'off-time'),
  primitives: type.primitives.map((part) => {
    if (part.kind === 'behaviour') {
      const figures = Object.entries(part.figures).filter(([role]) => role !== 'leastOffMinutes')
      return { ...part, figures: Object.fromEntries(figures) }
    }
    if (part.kind !== 'contact' || !('behaviour' in part.closedWhen)) return part
    const { closedWhen } = part
    return { ...part, closedWhen: { ...closedWhen, in: closedWhen.in.filter((phase) => phase !== 'waits-off') } }
  }),
})

/** A supply of its own as it was when its switch was taken for how things stand with it, and not for a switch. */
const withoutSwitchByHand: DeviceType = {
  ...ownCircuit,
  version: 1,
  controls: ownCircuit.controls.map((control) => ({ ...control, ambient: true })),
}

/**
 * Shipped types as they were before they changed, each under the version it then had: an installation made with one goes on
 * meaning what it meant. Whoever changes a shipped type raises its version and lays the old definition down here; a test of the
 * types' fingerprints sees to that. Versions from before the first fingerprints were taken are not kept.
 */
export const pastTypes: readonly DeviceType[] = [
  systemBoiler,
  liveOutputBoiler,
  pumpBesideBoiler,
  switchedLineBoiler,
  twoCallBoiler,
  linkedPairBoiler,
  voltFreeBoiler,
  busBoiler,
  busAndLiveBoiler,
  electricBoiler,
  heatPump,
]
  .map(withoutOffTime)
  .concat(withoutSwitchByHand)
