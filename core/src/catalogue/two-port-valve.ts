import { madeThrowOpen, neverOperates, restThrowOpen, stuckOperated } from './failures'
import { endSwitch, endSwitchSetting, lever, port, springDrive, springSettings } from './motor'
import type { DeviceType } from './primitives'

export const twoPortValve: DeviceType = {
  id: 'two-port-valve',
  version: 3,
  name: 'Two-port valve, normally closed',
  family: 'valves',
  stands: 'In the plant cupboard, on the pipe it serves.',
  about:
    'A motor drives the valve open against a spring and stalls there; loss of power lets the spring shut it. A volt-free ' +
    'end switch makes near the end of opening and lets go as closing begins. Its lead is fixed to the head. The lever can ' +
    'be latched part open; the latch lets go the first time the motor drives.',
  terminals: [
    { id: 'M', legend: 'Motor', role: 'input', lead: 'brown' },
    { id: 'N', legend: 'Neutral', role: 'neutral', lead: 'blue' },
    { id: 'E', legend: 'Earth', role: 'earth', lead: 'green-yellow' },
    { id: 'SF', legend: 'End switch feed', role: 'contact-feed', lead: 'grey' },
    { id: 'SO', legend: 'End switch out', role: 'output', lead: 'orange' },
  ],
  controls: [lever],
  settings: [...springSettings(6, 'domain: about 6 W driving and stalled'), endSwitchSetting],
  inputs: [],
  primitives: [...springDrive('M', 'N'), port('outlet', 'outlet', 0.02, 1), endSwitch('SF', 'SO')],
}

const head = 'Replace the head.'

/** Its end switch is a changeover: a sixth conductor comes from the closed side. */
export const sixWireValve: DeviceType = {
  ...twoPortValve,
  id: 'two-port-valve-six-wire',
  version: 1,
  name: 'Two-port valve, normally closed, six-wire',
  about:
    'As the five-wire valve, with a changeover for an end switch: white is joined to grey while the valve is shut, orange ' +
    'once it is open. Where grey is live, white is live with the valve shut: park it in a terminal of its own.',
  terminals: [...twoPortValve.terminals, { id: 'SC', legend: 'End switch, shut side', role: 'output', lead: 'white' }],
  primitives: [
    ...twoPortValve.primitives.filter((p) => p.id !== 'end-switch'),
    {
      kind: 'changeover',
      id: 'end-switch',
      label: 'end switch',
      common: 'SF',
      no: 'SO',
      nc: 'SC',
      operatedWhen: { actuator: 'travel', reached: { setting: 'makes' } },
      failures: [
        neverOperates('end switch never makes', 5, head),
        stuckOperated('end switch stuck made', 4, head),
        madeThrowOpen('end switch: orange contact burnt', 1, head),
        restThrowOpen('end switch: white contact open', 0.3, head),
      ],
    },
  ],
}

const otherLeads: Partial<Record<string, DeviceType['terminals'][0]['lead']>> = { M: 'white', SF: 'brown' }

/** Lead colours are their maker's: of this one only neutral and earth are where one expects them. */
export const otherLeadValve: DeviceType = {
  ...twoPortValve,
  id: 'two-port-valve-other-lead',
  version: 1,
  name: 'Two-port valve, normally closed, lead of other colours',
  about:
    'As the five-wire valve, with a lead of other colours: white is the motor, brown and orange are the end switch. Two ' +
    'conductors exchanged at such a head look like a bad head: go by what is printed on it and not by the old one’s colours.',
  terminals: twoPortValve.terminals.map((t) => {
    const lead = otherLeads[t.id]
    return lead ? { ...t, lead } : t
  }),
}
