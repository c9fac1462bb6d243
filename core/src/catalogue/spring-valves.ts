import { motorFailures, motorSettings, motorWinding, travelFailures, endSwitchFailures } from './motor'
import type { DeviceType, Primitive, Setting, TerminalType } from './primitives'

const lead: TerminalType[] = [
  { id: 'M', legend: 'Motor', role: 'input', lead: 'brown' },
  { id: 'N', legend: 'Neutral', role: 'neutral', lead: 'blue' },
  { id: 'E', legend: 'Earth', role: 'earth', lead: 'green-yellow' },
]
const settings: Setting[] = [
  { id: 'open', label: 'Driving time', unit: 's', min: 5, max: 60, default: 15, origin: 'domain: 10 to 20 s' },
  { id: 'return', label: 'Return time', unit: 's', min: 1, max: 20, default: 5, origin: 'domain: 4 to 6 s' },
  ...motorSettings(6, 'domain: about 6 W driving and stalled'),
]

/** A motor that drives against a spring; what its two ends are called. */
const drive = (ends: { shut: string; open: string }): Primitive[] => [
  { kind: 'load', id: 'motor', label: 'motor', from: 'M', to: 'N', ...motorWinding, failures: motorFailures },
  {
    kind: 'actuator',
    id: 'travel',
    label: 'travel',
    drivenBy: 'motor',
    openSeconds: { setting: 'open' },
    returnSeconds: { setting: 'return' },
    ends,
    failures: travelFailures,
  },
]

/** Open without power: what it feeds is served until something of higher priority shuts it. */
export const normallyOpenValve: DeviceType = {
  id: 'two-port-valve-normally-open',
  version: 1,
  name: 'Two-port valve, normally open',
  about:
    'Open while unpowered; power drives it shut against its spring and keeps it there. It has no end switch and no lever.',
  terminals: lead,
  controls: [],
  settings,
  inputs: [],
  primitives: [
    ...drive({ shut: 'open', open: 'shut' }),
    { kind: 'port', id: 'outlet', label: 'outlet', actuator: 'travel', openFrom: 0, openTo: 0.98 },
  ],
}

/** Rests at heating, driven to hot water. */
export const diverterValve: DeviceType = {
  id: 'diverter-valve',
  version: 1,
  name: 'Three-port diverter, spring return',
  about:
    'Rests open to heating; power drives it over to hot water, where a switch makes near the end of its travel. Without ' +
    'power the spring takes it back. The flow enters the port the body is marked for.',
  terminals: [
    ...lead,
    { id: 'SF', legend: 'Switch feed', role: 'contact-feed', lead: 'grey' },
    { id: 'SO', legend: 'Switch out', role: 'output', lead: 'orange' },
  ],
  controls: [],
  settings: [
    ...settings,
    {
      id: 'makes',
      label: 'Switch makes at',
      unit: 'of travel',
      min: 0.85,
      max: 1,
      default: 0.85,
      origin: 'domain: 85 %, never earlier',
    },
  ],
  inputs: [],
  primitives: [
    ...drive({ shut: 'at heating', open: 'at hot water' }),
    { kind: 'port', id: 'heating', label: 'heating port', actuator: 'travel', openFrom: 0, openTo: 0.5 },
    { kind: 'port', id: 'hot-water', label: 'hot water port', actuator: 'travel', openFrom: 0.5, openTo: 1 },
    {
      kind: 'contact',
      id: 'end-switch',
      label: 'end switch',
      a: 'SF',
      b: 'SO',
      closedWhen: { actuator: 'travel', reached: { setting: 'makes' } },
      failures: endSwitchFailures,
    },
  ],
}
