import { leaks, neverMakes, openCircuit, stuckMade } from './failures'
import type { DeviceType, Primitive, Setting, TerminalType } from './primitives'

const makers = 'Boiler fault: for the maker or a licensed engineer.'

const settings: Setting[] = [
  {
    id: 'self-check',
    label: 'Self-check before firing',
    unit: 's',
    min: 0,
    max: 120,
    default: 8,
    origin: 'usual value',
  },
  { id: 'overrun', label: 'Pump overrun', unit: 'min', min: 0, max: 15, default: 5, origin: 'domain: 3 to 10 min' },
  { id: 'watts', label: 'Own draw', unit: 'W', min: 1, max: 150, default: 40, origin: 'usual value' },
  {
    id: 'leak',
    label: 'Wet board to earth',
    unit: 'Ω',
    min: 1,
    max: 100000,
    default: 10,
    origin: 'usual value: low enough to blow the fuse',
  },
]
const mains: TerminalType[] = [
  { id: 'L', legend: 'Permanent live', role: 'permanent-live' },
  { id: 'N', legend: 'Neutral', role: 'neutral' },
  { id: 'E', legend: 'Earth', role: 'earth' },
]
const pumpOutput: TerminalType[] = [
  { id: 'PL', legend: 'Pump live', role: 'output' },
  { id: 'PN', legend: 'Pump neutral', role: 'output' },
  { id: 'PE', legend: 'Pump earth', role: 'output' },
]

/** What every boiler under permanent live with a pump output has: board, sequence, pump relay, bars. */
const core = (powered: string, more: Record<string, string> = {}): Primitive[] => [
  {
    kind: 'load',
    id: 'board',
    label: 'board',
    from: 'L',
    to: 'N',
    watts: { setting: 'watts' },
    failures: [openCircuit('board dead', 1, makers)],
  },
  {
    kind: 'behaviour',
    id: 'sequence',
    label: 'sequence',
    behaviour: 'boiler-sequence',
    watches: { powered, call: 'call', ...more },
    figures: { selfCheckSeconds: { setting: 'self-check' }, overrunMinutes: { setting: 'overrun' } },
  },
  {
    kind: 'contact',
    id: 'pump-relay',
    label: 'pump relay',
    a: 'L',
    b: 'PL',
    closedWhen: { behaviour: 'sequence', in: ['self-check', 'firing', 'overrun'] },
    failures: [neverMakes('pump output dead', 1, makers), stuckMade('pump relay welded', 0.7, makers)],
  },
  { kind: 'strap', id: 'neutral-bar', label: 'neutral bar', a: 'N', b: 'PN' },
  { kind: 'strap', id: 'earth-bar', label: 'earth bar', a: 'E', b: 'PE' },
  {
    kind: 'insulation',
    id: 'casing',
    label: 'board',
    a: 'L',
    b: 'E',
    ohms: { setting: 'leak' },
    failures: [leaks('water on its board', 1, `Find the leak first. ${makers}`)],
  },
]

export const systemBoiler: DeviceType = {
  id: 'boiler-switched-live',
  version: 2,
  name: 'Boiler with permanent live, switched live and pump output',
  about:
    'Stays under permanent live. The switched live calls it: pump on, self-check, then firing. When the call goes the ' +
    'burner goes out at once and the pump output overruns to carry the heat away. A sensitive input acts on the ' +
    'voltage that an open core picks up beside a live one.',
  terminals: [...mains, { id: 'SL', legend: 'Switched live', role: 'input' }, ...pumpOutput],
  controls: [],
  settings: [
    ...settings,
    {
      id: 'input',
      label: 'Resistance of the call input',
      unit: 'Ω',
      min: 5000,
      max: 2_000_000,
      default: 53_000,
      origin: 'usual value: about 1 W at 230 V; sensitive inputs have a megohm',
    },
    {
      id: 'acts-on',
      label: 'Call input acts on',
      unit: '% of supply volts',
      min: 10,
      max: 90,
      default: 60,
      origin: 'usual value; domain: some act on a few tens of volts',
    },
  ],
  inputs: [{ id: 'SL', terminal: 'SL', load: 'call' }],
  primitives: [
    {
      kind: 'load',
      id: 'call',
      label: 'call input',
      from: 'SL',
      to: 'N',
      ohms: { setting: 'input' },
      pullsIn: { setting: 'acts-on' },
      failures: [openCircuit('no answer to a call', 1, makers)],
    },
    ...core('board'),
  ],
}

/** The volts an extra-low-voltage input of a board stands before it burns out: a usual value. */
const boardWithstands = 60

export const voltFreeBoiler: DeviceType = {
  id: 'boiler-volt-free-call',
  version: 1,
  name: 'Boiler with a volt-free call and pump output',
  about:
    'Stays under permanent live. A contact between T1 and T2 calls it: the boiler feeds that contact itself with extra-low ' +
    'voltage from its own transformer. Mains on T1 or T2 destroys the board.',
  terminals: [
    ...mains,
    { id: 'T1', legend: 'Call feed', role: 'output', extraLow: true },
    { id: 'T2', legend: 'Call return', role: 'input', extraLow: true },
    ...pumpOutput,
  ],
  controls: [],
  settings,
  inputs: [{ id: 'T', terminal: 'T2', load: 'call' }],
  primitives: [
    {
      kind: 'load',
      id: 'call',
      label: 'call input',
      from: 'T2',
      to: 'E',
      watts: 0.2,
      volts: 24,
      withstands: boardWithstands,
      failures: [openCircuit('no answer to a call', 1, makers)],
    },
    { kind: 'load', id: 'primary', label: 'board transformer', from: 'L', to: 'N', watts: 2 },
    {
      kind: 'transformer',
      id: 'transformer',
      label: 'board transformer',
      primary: 'primary',
      fed: 'T1',
      common: 'E',
      volts: 24,
      va: 4,
      regulation: 25,
    },
    {
      kind: 'load',
      id: 'logic',
      label: 'board logic',
      from: 'T1',
      to: 'E',
      watts: 0.5,
      volts: 24,
      withstands: boardWithstands,
    },
    ...core('logic'),
  ],
}

const callInput = (id: string, label: string, terminal: string): Primitive => ({
  kind: 'load',
  id,
  label,
  from: terminal,
  to: 'N',
  ohms: 53_000,
  pullsIn: 60,
  failures: [openCircuit(`no answer to the ${label}`, 1, makers)],
})

/** What a boiler with two calls has in common with a heat pump. */
const twoCalls: Pick<DeviceType, 'controls' | 'settings' | 'inputs'> = {
  controls: [],
  settings,
  inputs: [
    { id: 'SH', terminal: 'SH', load: 'call' },
    { id: 'SW', terminal: 'SW', load: 'hot-water-call' },
  ],
}
const callTerminals: TerminalType[] = [
  { id: 'SH', legend: 'Heating call', role: 'input' },
  { id: 'SW', legend: 'Hot water call', role: 'input' },
]
const twoCallParts: Primitive[] = [
  callInput('call', 'heating call', 'SH'),
  callInput('hot-water-call', 'hot water call', 'SW'),
  ...core('board', { hotWater: 'hot-water-call' }),
]

/** Two switched lives, each with a flow temperature of its own; hot water wins. */
export const twoCallBoiler: DeviceType = {
  id: 'boiler-two-calls',
  version: 1,
  name: 'Boiler with a heating call and a hot water call',
  about:
    'Two switched lives call it, one for heating and one for hot water, each with a flow temperature of its own. While ' +
    'both call, hot water decides.',
  terminals: [...mains, ...callTerminals, ...pumpOutput],
  ...twoCalls,
  primitives: twoCallParts,
}

/** Hot water first; it drives its own three-way valve. */
export const heatPump: DeviceType = {
  id: 'heat-pump',
  version: 1,
  name: 'Heat pump, hot water first, with a three-way valve output',
  about:
    'A heating call and a hot water call; hot water goes first. The valve output is live while it makes hot water and ' +
    'sends the diverter over.',
  terminals: [...mains, ...callTerminals, { id: 'VL', legend: 'Valve output', role: 'output' }, ...pumpOutput],
  ...twoCalls,
  primitives: [
    ...twoCallParts,
    {
      kind: 'contact',
      id: 'valve-relay',
      label: 'valve relay',
      a: 'L',
      b: 'VL',
      closedWhen: { all: [{ energised: 'board' }, { energised: 'hot-water-call' }] },
      failures: [neverMakes('valve output dead', 1, makers), stuckMade('valve relay welded', 0.7, makers)],
    },
  ],
}
