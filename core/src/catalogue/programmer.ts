import { neverOperates, openCircuit, stuckOperated } from './failures'
import type { Changeover, DeviceType } from './primitives'

const channel = (id: string, label: string, on: string, off: string): Changeover => ({
  kind: 'changeover',
  id,
  label: `${label} channel`,
  common: 'L',
  no: on,
  nc: off,
  operatedWhen: { all: [{ control: id, is: ['on'] }, { energised: 'clock' }] },
  failures: [
    neverOperates(`${label} channel does not make`, 3, 'Replace the programmer.'),
    stuckOperated(`${label} channel welded on`, 2, 'Replace the programmer.'),
  ],
})

const offOn = [
  { id: 'off', label: 'Off' },
  { id: 'on', label: 'On' },
] as const

/** Two channels on relays that the clock pulls in; the contacts share the clock's feed. */
export const programmer: DeviceType = {
  id: 'programmer-two-channel',
  version: 1,
  name: 'Two-channel programmer',
  about:
    'Two changeover contacts fed from the same L as the clock. A channel that is on joins L to its ON terminal; ' +
    'off, to its OFF terminal. Without supply the relays drop out and both channels read off.',
  terminals: [
    { id: 'L', legend: 'L', role: 'permanent-live' },
    { id: 'N', legend: 'N', role: 'neutral' },
    { id: 'HTG-ON', legend: 'Heating ON', role: 'output' },
    { id: 'HTG-OFF', legend: 'Heating OFF', role: 'output' },
    { id: 'HW-ON', legend: 'Hot water ON', role: 'output' },
    { id: 'HW-OFF', legend: 'Hot water OFF', role: 'output' },
  ],
  controls: [
    { kind: 'choice', id: 'heating', label: 'Heating', values: offOn, initial: 'off' },
    { kind: 'choice', id: 'hot-water', label: 'Hot water', values: offOn, initial: 'off' },
  ],
  settings: [{ id: 'watts', label: 'Own draw', unit: 'W', min: 1, max: 10, default: 2, origin: 'usual value' }],
  inputs: [],
  primitives: [
    {
      kind: 'load',
      id: 'clock',
      label: 'clock',
      from: 'L',
      to: 'N',
      watts: { setting: 'watts' },
      failures: [openCircuit('clock dead', 1, 'Replace the programmer.')],
    },
    channel('heating', 'heating', 'HTG-ON', 'HTG-OFF'),
    channel('hot-water', 'hot water', 'HW-ON', 'HW-OFF'),
  ],
}
