import { endSwitch, endSwitchSetting, springDrive, springSettings } from './motor'
import type { DeviceType } from './primitives'

export const twoPortValve: DeviceType = {
  id: 'two-port-valve',
  version: 2,
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
  settings: [...springSettings(6, 'domain: about 6 W driving and stalled'), endSwitchSetting],
  inputs: [],
  primitives: [
    ...springDrive('M', 'N'),
    { kind: 'port', id: 'outlet', label: 'outlet', actuator: 'travel', openFrom: 0.02, openTo: 1 },
    endSwitch('SF', 'SO'),
  ],
}
