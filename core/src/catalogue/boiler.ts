import {
  boardAndLogic,
  boilerCore,
  boilerSettings,
  board,
  boilerWater,
  callInput,
  callPair,
  mains,
  makers,
  oneAim,
  oneFlow,
  ownSupply,
  pairInput,
  pumpOutput,
  sequence,
  settings,
  wetBoard,
} from './boiler-parts'
import { compensation, flowTemperature, resetControl } from './boiler-water'
import { blown, heldCalling, openCircuit } from './failures'
import type { Aim, DeviceType, Load, Primitive, Setting, TerminalType } from './primitives'

const indoors = 'Kitchen, garage or plant room.'

const inputSettings: Setting[] = [
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
]
const switchedLive: TerminalType = { id: 'SL', legend: 'Switched live', role: 'input' }
const switchedCall: Load = {
  kind: 'load',
  id: 'call',
  label: 'call input',
  from: 'SL',
  to: 'N',
  ohms: { setting: 'input' },
  pullsIn: { setting: 'acts-on' },
  failures: [
    openCircuit('no answer to a call', 1, makers),
    heldCalling('call input stuck: calls by itself', 0.5, makers),
  ],
}
const called = { call: { energised: 'call' } }

export const systemBoiler: DeviceType = {
  id: 'boiler-switched-live',
  version: 4,
  name: 'Boiler with permanent live, switched live and pump output',
  family: 'boilers',
  stands: indoors,
  about:
    'Stays under permanent live. The switched live calls it: pump on, self-check, then firing. When the call goes the ' +
    'burner goes out at once and the pump output overruns to carry the heat away. A sensitive input acts on the ' +
    'voltage that an open core picks up beside a live one.',
  terminals: [...mains, switchedLive, ...pumpOutput],
  controls: [resetControl],
  settings: [...settings, oneFlow, ...compensation, ...inputSettings],
  inputs: [{ id: 'SL', terminal: 'SL', load: 'call' }],
  primitives: [switchedCall, ...boilerCore(called), ...boilerWater()],
}

/** Feeds the controls itself: whoever isolates them must know where. */
export const liveOutputBoiler: DeviceType = {
  ...systemBoiler,
  id: 'boiler-live-output',
  version: 2,
  name: 'Boiler with a live output for the controls',
  about:
    'As one with permanent live, switched live and pump output; and it feeds the controls from a live output behind a ' +
    'fuse of its own. The controls are dead only when the boiler is isolated.',
  terminals: [...systemBoiler.terminals, { id: 'LO', legend: 'Live output', role: 'output' }],
  settings: [
    ...systemBoiler.settings,
    {
      id: 'output-fuse',
      label: 'Fuse of the live output',
      unit: 'A',
      min: 0.5,
      max: 5,
      default: 2,
      origin: 'usual value',
    },
  ],
  primitives: [
    ...systemBoiler.primitives,
    {
      kind: 'fuse',
      id: 'output-fuse',
      label: 'fuse of the live output',
      a: 'L',
      b: 'LO',
      amps: { setting: 'output-fuse' },
      failures: [
        blown('fuse of the live output blown', 0.7, 'Find what blew it in the controls before a new one goes in.'),
      ],
    },
  ],
}

/** No pump output: the pump is wired beside the switched live. */
export const pumpBesideBoiler: DeviceType = {
  id: 'boiler-pump-beside',
  version: 2,
  name: 'Boiler with permanent live and switched live, pump beside it',
  family: 'boilers',
  stands: indoors,
  about:
    'Stays under permanent live. The switched live calls it and runs the pump, which is joined to the same terminal. The ' +
    'pump stops with the call: there is no overrun.',
  terminals: [...mains, switchedLive],
  controls: [resetControl],
  settings: [...boilerSettings, oneFlow, ...compensation, ...inputSettings],
  inputs: [{ id: 'SL', terminal: 'SL', load: 'call' }],
  primitives: [switchedCall, board, sequence(called), wetBoard, ...boilerWater()],
}

/** Fires when its line is switched; between calls it is dead. */
export const switchedLineBoiler: DeviceType = {
  id: 'boiler-switched-line',
  version: 2,
  name: 'Boiler that fires when its line is switched',
  family: 'boilers',
  stands: indoors,
  about:
    'Line, neutral and earth only. The controls switch its line: live, it checks itself and fires; dead, its display is ' +
    'dark. The pump is joined to the same line.',
  terminals: [{ id: 'L', legend: 'Line, switched', role: 'input' }, mains[1], mains[2]],
  controls: [resetControl],
  settings: [...boilerSettings.filter((s) => s.id !== 'proving'), oneFlow, ...compensation],
  inputs: [{ id: 'L', terminal: 'L', load: 'board' }],
  primitives: [board, sequence({ call: { energised: 'board' }, blind: true }), wetBoard, ...boilerWater(oneAim, true)],
}

export const voltFreeBoiler: DeviceType = {
  id: 'boiler-volt-free-call',
  version: 3,
  name: 'Boiler with a volt-free call and pump output',
  family: 'boilers',
  stands: indoors,
  about:
    'Stays under permanent live. A contact between T1 and T2 calls it: the boiler feeds that contact itself with extra-low ' +
    'voltage from its own transformer. Mains on T1 or T2 destroys the board.',
  terminals: [...mains, ...callPair, ...pumpOutput],
  controls: [resetControl],
  settings: [...settings, oneFlow, ...compensation],
  inputs: [{ id: 'T', terminal: 'T2', load: 'call' }],
  primitives: [
    pairInput('call', 'call input', 'T2'),
    ...ownSupply('T1'),
    ...boilerCore({ powered: boardAndLogic, call: { energised: 'call' } }),
    ...boilerWater(),
  ],
}

/** A thermostat pair with a factory link, beside a mains call input. What the link does is a matter of set-up. */
export const linkedPairBoiler: DeviceType = {
  id: 'boiler-linked-pair',
  version: 2,
  name: 'Boiler with a linked thermostat pair and a mains call input',
  family: 'boilers',
  stands: indoors,
  about:
    'An extra-low-voltage thermostat pair, linked when delivered, beside a mains call input. Where the controls switch ' +
    'mains the link comes out: left in, the boiler calls for ever, or takes no notice of the mains input, as it is set up.',
  terminals: [
    ...mains,
    switchedLive,
    ...callPair,
    ...pumpOutput,
    { id: 'in', legend: 'Mains input behind its enable', role: 'input', internal: true },
    { id: 'pair-in', legend: 'Pair behind its enable', role: 'input', extraLow: true, internal: true },
  ],
  controls: [resetControl],
  settings: [
    ...settings,
    oneFlow,
    ...compensation,
    ...inputSettings,
    {
      id: 'pair',
      label: 'Pair and mains input',
      unit: '0 or 1',
      min: 0,
      max: 1,
      default: 0,
      origin: 'domain: a setting of the device',
      choices: [
        { value: 0, label: 'either calls' },
        { value: 1, label: 'pair closed, mains input ignored' },
      ],
    },
  ],
  inputs: [
    { id: 'SL', terminal: 'SL', load: 'call' },
    { id: 'T', terminal: 'T2', load: 'pair-call' },
  ],
  primitives: [
    { ...switchedCall, from: 'in' },
    {
      kind: 'contact',
      id: 'mains-enable',
      label: 'mains input enable',
      a: 'SL',
      b: 'in',
      closedWhen: { any: [{ setting: 'pair', is: 0 }, { not: { energised: 'pair' } }] },
    },
    { ...pairInput('pair', 'thermostat pair', 'T2'), failures: [] },
    {
      kind: 'contact',
      id: 'pair-enable',
      label: 'pair enable',
      a: 'T2',
      b: 'pair-in',
      closedWhen: { setting: 'pair', is: 0 },
    },
    pairInput('pair-call', 'pair call', 'pair-in'),
    ...ownSupply('T1'),
    ...boilerCore({ powered: boardAndLogic, call: { any: [{ energised: 'call' }, { energised: 'pair-call' }] } }),
    ...boilerWater(),
  ],
}

const callTerminals: TerminalType[] = [
  { id: 'SH', legend: 'Heating call', role: 'input' },
  { id: 'SW', legend: 'Hot water call', role: 'input' },
]
/** What a boiler with two calls has in common with a heat pump. */
export const twoCallParts: Primitive[] = [
  callInput('call', 'heating call', 'SH'),
  callInput('hot-water-call', 'hot water call', 'SW'),
]
export const twoCalls = {
  call: { energised: 'call' },
  hotWater: { energised: 'hot-water-call' },
} as const

/** A flow temperature for heating and one for hot water. */
export const twoFlows = (heating: number, hotWater: number): Setting[] => [
  flowTemperature(heating, 'Flow temperature for heating'),
  flowTemperature(hotWater, 'Flow temperature for hot water', 'hot-water-flow'),
]
/** Hot water wins while both call. */
export const twoAims: readonly Aim[] = [
  { when: { energised: 'hot-water-call' }, celsius: { setting: 'hot-water-flow' } },
  { celsius: { setting: 'flow' }, compensatedBy: 'compensation' },
]

/** Two switched lives, each with a flow temperature of its own; hot water wins. */
export const twoCallBoiler: DeviceType = {
  id: 'boiler-two-calls',
  version: 3,
  name: 'Boiler with a heating call and a hot water call',
  family: 'boilers',
  stands: indoors,
  about:
    'Two switched lives call it, one for heating and one for hot water, each with a flow temperature of its own. While ' +
    'both call, hot water decides.',
  terminals: [...mains, ...callTerminals, ...pumpOutput],
  controls: [resetControl],
  settings: [...settings, ...twoFlows(60, 75), ...compensation],
  inputs: [
    { id: 'SH', terminal: 'SH', load: 'call' },
    { id: 'SW', terminal: 'SW', load: 'hot-water-call' },
  ],
  primitives: [...twoCallParts, ...boilerCore(twoCalls), ...boilerWater(twoAims)],
}
