import { endSwitchFailures, motorFailures, motorSettings, motorWinding, travelFailures } from './motor'
import type { DeviceType } from './primitives'

export const twoPortValve: DeviceType = {
  id: 'two-port-valve',
  version: 1,
  name: 'Two-port valve, normally closed',
  about:
    'A motor drives the valve open against a spring and stalls there; loss of power lets the spring shut it. A volt-free ' +
    'end switch makes near the end of opening and lets go as closing begins. Its lead is fixed to the head.',
  terminals: [
    { id: 'M', legend: 'Motor', role: 'input', lead: 'brown' },
    { id: 'N', legend: 'Neutral', role: 'neutral', lead: 'blue' },
    { id: 'E', legend: 'Earth', role: 'earth', lead: 'green-yellow' },
    { id: 'SF', legend: 'End switch feed', role: 'contact-feed', lead: 'grey' },
    { id: 'SO', legend: 'End switch out', role: 'output', lead: 'orange' },
  ],
  controls: [],
  settings: [
    { id: 'open', label: 'Opening time', unit: 's', min: 5, max: 60, default: 15, origin: 'domain: 10 to 20 s' },
    { id: 'return', label: 'Return time', unit: 's', min: 1, max: 20, default: 5, origin: 'domain: 4 to 6 s' },
    {
      id: 'makes',
      label: 'End switch makes at',
      unit: 'of travel',
      min: 0.85,
      max: 1,
      default: 0.85,
      origin: 'domain: 85 %, never earlier',
    },
    ...motorSettings(6, 'domain: about 6 W driving and stalled'),
  ],
  inputs: [],
  primitives: [
    {
      kind: 'load',
      id: 'motor',
      label: 'motor',
      from: 'M',
      to: 'N',
      ...motorWinding,
      failures: motorFailures,
    },
    {
      kind: 'actuator',
      id: 'travel',
      label: 'travel',
      drivenBy: 'motor',
      openSeconds: { setting: 'open' },
      returnSeconds: { setting: 'return' },
      failures: travelFailures,
    },
    { kind: 'port', id: 'outlet', label: 'outlet', actuator: 'travel', openFrom: 0.02, openTo: 1 },
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
