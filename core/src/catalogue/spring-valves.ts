import { endSwitch, endSwitchSetting, lever, port, springDrive, springSettings } from './motor'
import type { DeviceType, TerminalType } from './primitives'

const lead: TerminalType[] = [
  { id: 'M', legend: 'Motor', role: 'input', lead: 'brown' },
  { id: 'N', legend: 'Neutral', role: 'neutral', lead: 'blue' },
  { id: 'E', legend: 'Earth', role: 'earth', lead: 'green-yellow' },
]
const settings = springSettings(6, 'domain: about 6 W driving and stalled')

/** Open without power: what it feeds is served until something of higher priority shuts it. */
export const normallyOpenValve: DeviceType = {
  id: 'two-port-valve-normally-open',
  version: 2,
  name: 'Two-port valve, normally open',
  family: 'valves',
  stands: 'In the flow common to all heating, behind the tee to the cylinder.',
  about:
    'Open while unpowered; power drives it shut against its spring and keeps it there. It has no end switch and no lever.',
  terminals: lead,
  controls: [],
  settings,
  inputs: [],
  primitives: [
    ...springDrive('M', 'N', { ends: { shut: 'open', open: 'shut' }, manual: false }),
    port('outlet', 'outlet', 0, 0.98),
  ],
}

/** Rests at heating, driven to hot water. */
export const diverterValve: DeviceType = {
  id: 'diverter-valve',
  version: 2,
  name: 'Three-port diverter, spring return',
  family: 'valves',
  stands: 'In the cylinder cupboard, where the flow divides.',
  about:
    'Rests open to heating; power drives it over to hot water, where a switch makes near the end of its travel. Without ' +
    'power the spring takes it back. The flow enters the port the body is marked for.',
  terminals: [
    ...lead,
    { id: 'SF', legend: 'Switch feed', role: 'contact-feed', lead: 'grey' },
    { id: 'SO', legend: 'Switch out', role: 'output', lead: 'orange' },
  ],
  controls: [lever],
  settings: [...settings, endSwitchSetting],
  inputs: [],
  primitives: [
    ...springDrive('M', 'N', { ends: { shut: 'at heating', open: 'at hot water' } }),
    port('heating', 'heating port', 0, 0.5, ['flow', 'heating']),
    port('hot-water', 'hot water port', 0.5, 1, ['flow', 'hot-water']),
    endSwitch('SF', 'SO'),
  ],
}
