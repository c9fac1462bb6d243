import { twoAims, twoCallBoiler, twoCallParts, twoCalls, twoFlows } from './boiler'
import {
  boilerCore,
  boilerSettings,
  boilerWater,
  callInput,
  callPair,
  innerCall,
  mains,
  makers,
  oneAim,
  oneFlow,
  ownSupply,
  pairInput,
  pumpOutput,
  pumpRelay,
  settings,
  wetBoard,
} from './boiler-parts'
import { boilerHeat, boilerWay, compensation, heatSettings, resetControl } from './boiler-water'
import { neverMakes, openCircuit, silentPort, stuckMade } from './failures'
import type { DeviceType } from './primitives'

/** Hot water first; it drives its own three-way valve. */
export const heatPump: DeviceType = {
  id: 'heat-pump',
  version: 3,
  name: 'Heat pump, hot water first, with a three-way valve output',
  family: 'boilers',
  stands: 'Outside, with its controller and valve indoors.',
  about:
    'A heating call and a hot water call; hot water goes first. The valve output is live while it makes hot water and ' +
    'sends the diverter over.',
  terminals: [...twoCallBoiler.terminals, { id: 'VL', legend: 'Valve output', role: 'output' }],
  controls: [resetControl],
  settings: [
    ...settings.filter((s) => s.id !== 'most' && s.id !== 'least'),
    ...heatSettings(8000, 3000).slice(0, 2),
    ...twoFlows(45, 65),
    ...compensation,
  ],
  inputs: twoCallBoiler.inputs,
  primitives: [
    ...twoCallParts,
    ...boilerCore({ ...twoCalls, words: { firing: 'running' } }),
    ...boilerWater(twoAims),
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

/** Called over a digital link only. */
export const busBoiler: DeviceType = {
  id: 'boiler-bus',
  version: 2,
  name: 'Boiler with a digital bus',
  family: 'boilers',
  stands: 'Kitchen, garage or plant room.',
  about:
    'Two extra-low-voltage wires, either way round, bring it the flow temperature that the control wants; it answers with ' +
    'flow, return, flame and fault. It feeds the link itself. Whether it lets the link control hot water is a matter of ' +
    'its firmware and set-up.',
  terminals: [
    ...mains,
    { id: 'B1', legend: 'Bus', role: 'output', extraLow: true },
    { id: 'B2', legend: 'Bus', role: 'output', extraLow: true },
    ...pumpOutput,
    { id: 'heat', legend: 'Heating decoder', role: 'output', internal: true },
    { id: 'water', legend: 'Hot water decoder', role: 'output', internal: true },
  ],
  controls: [resetControl],
  settings: [
    ...settings,
    ...twoFlows(70, 75),
    ...compensation,
    {
      id: 'hot-water-control',
      label: 'Hot water over the bus',
      unit: '0 or 1',
      min: 0,
      max: 1,
      default: 1,
      origin: 'domain: firmware that allows hot water control',
      choices: [
        { value: 0, label: 'not allowed' },
        { value: 1, label: 'allowed' },
      ],
    },
  ],
  inputs: [
    { id: 'bus', terminal: 'B1', load: 'heating-call' },
    { id: 'bus-hot-water', terminal: 'B2', load: 'hot-water-call' },
  ],
  primitives: [
    { kind: 'load', id: 'primary', label: 'bus supply', from: 'L', to: 'N', watts: 2 },
    {
      kind: 'transformer',
      id: 'supply',
      label: 'bus supply',
      primary: 'primary',
      fed: 'B1',
      common: 'B2',
      volts: 24,
      va: 1,
      regulation: 60,
      failures: [openCircuit('bus supply dead', 0.6, makers)],
    },
    {
      kind: 'bus',
      id: 'bus',
      label: 'bus',
      a: 'B1',
      b: 'B2',
      powered: 'board',
      role: 'boiler',
      failures: [silentPort('bus does not answer', 0.8, makers)],
    },
    ...innerCall('heating-call', 'heating call', 'heat', { hears: 'bus', request: 'heating' }),
    ...innerCall('hot-water-call', 'hot water call', 'water', {
      all: [
        { hears: 'bus', request: 'hot-water' },
        { setting: 'hot-water-control', is: 1 },
      ],
    }),
    ...boilerCore({
      call: { energised: 'heating-call' },
      hotWater: { energised: 'hot-water-call' },
    }),
    ...boilerWater([twoAims[0], { ...twoAims[1], overBus: 'bus' }]),
  ],
}

/** A bus boiler that takes a switched live too: for what does not speak over the link. */
export const busAndLiveBoiler: DeviceType = {
  ...busBoiler,
  id: 'boiler-bus-and-live',
  name: 'Boiler with a digital bus and a switched live',
  about:
    'Called by a switched live or over two extra-low-voltage wires, whichever asks. A control on the link brings the flow ' +
    'temperature that it wants; on the switched live it heats to its own. Both may call at once.',
  terminals: [
    ...busBoiler.terminals.slice(0, mains.length),
    { id: 'SL', legend: 'Call', role: 'input' },
    ...busBoiler.terminals.slice(mains.length),
  ],
  inputs: [{ id: 'SL', terminal: 'SL', load: 'call' }, ...busBoiler.inputs],
  primitives: [
    callInput('call', 'call', 'SL'),
    ...busBoiler.primitives.map((part) =>
      part.kind === 'behaviour'
        ? {
            ...part,
            watches: { ...part.watches, call: { any: [{ energised: 'call' }, { energised: 'heating-call' }] } },
          }
        : part,
    ),
  ],
}

/** Heats from a supply of its own; the controls only call. */
export const electricBoiler: DeviceType = {
  id: 'boiler-electric',
  version: 3,
  name: 'Electric boiler',
  family: 'boilers',
  stands: 'Plant cupboard, near the board its own circuit comes from.',
  about:
    'Elements behind a contactor on a circuit of its own. The controls call it from their own supply: two supplies, and ' +
    'both to be isolated before a hand goes in.',
  terminals: [
    ...mains,
    { id: 'SL', legend: 'Call, line', role: 'input' },
    { id: 'SN', legend: 'Call, neutral', role: 'neutral' },
    ...pumpOutput,
    { id: 'heat', legend: 'Behind the contactor', role: 'output', internal: true },
    { id: 'pump-out', legend: 'Pump output before its fuse', role: 'output', internal: true },
  ],
  controls: [resetControl],
  settings: [
    ...settings.filter((s) => s.id !== 'most' && s.id !== 'least'),
    heatSettings(6000, 1000)[1],
    oneFlow,
    ...compensation,
    { id: 'element', label: 'Elements', unit: 'W', min: 1000, max: 24000, default: 6000, origin: 'usual value' },
  ],
  inputs: [{ id: 'SL', terminal: 'SL', load: 'call' }],
  primitives: [
    callInput('call', 'call', 'SL', 'SN'),
    ...boilerCore({ call: { energised: 'call' }, words: { firing: 'heating' } }, 'pump-out'),
    // Its own circuit is fused for the elements: the pump output has a fuse of its own.
    { kind: 'fuse', id: 'pump-fuse', label: 'fuse of the pump output', a: 'pump-out', b: 'PL', amps: 3.15 },
    {
      kind: 'contact',
      id: 'contactor',
      label: 'contactor',
      a: 'L',
      b: 'heat',
      closedWhen: { behaviour: 'sequence', in: ['firing'] },
      failures: [neverMakes('contactor does not make', 1, makers), stuckMade('contactor welded', 0.7, makers)],
    },
    {
      kind: 'load',
      id: 'elements',
      label: 'elements',
      work: 'heats',
      from: 'heat',
      to: 'N',
      watts: { setting: 'element' },
      failures: [openCircuit('elements open', 1.5, 'Replace the element.')],
    },
    boilerWay(),
    { ...boilerHeat({ energised: 'elements' }, oneAim), most: { setting: 'element' } },
  ],
}

/** Keeps its own water hot; only its circulator is called. */
export const ownTemperatureBoiler: DeviceType = {
  id: 'boiler-own-temperature',
  version: 1,
  name: 'Boiler that keeps its own water temperature',
  family: 'boilers',
  stands: 'Basement or utility room.',
  about:
    'Its own thermostat fires the burner whenever its water cools, called or not. A contact between T1 and T2 starts only ' +
    'the circulator.',
  terminals: [...mains, ...callPair, ...pumpOutput, { id: 'fire', legend: 'Burner', role: 'output', internal: true }],
  controls: [
    { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 50, max: 90, step: 1, initial: 75 },
    {
      kind: 'number',
      id: 'water',
      label: 'Water',
      unit: '°C',
      min: 5,
      max: 110,
      step: 1,
      initial: 76,
      ambient: true,
      feels: 'water',
    },
  ],
  settings: [
    ...boilerSettings.filter((s) => s.id !== 'self-check' && s.id !== 'proving' && s.id !== 'off-time'),
    { id: 'differential', label: 'Differential', unit: 'K', min: 4, max: 20, default: 10, origin: 'usual value' },
  ],
  inputs: [{ id: 'T', terminal: 'T2', load: 'call' }],
  primitives: [
    pairInput('call', 'circulator call', 'T2'),
    ...ownSupply('T1'),
    {
      kind: 'sensor',
      id: 'aquastat',
      label: 'water thermostat',
      reads: 'water',
      setPoint: 'set',
      differential: { setting: 'differential' },
    },
    {
      kind: 'contact',
      id: 'burner-contact',
      label: 'water thermostat contact',
      a: 'L',
      b: 'fire',
      closedWhen: { sensor: 'aquastat' },
      failures: [
        neverMakes('water thermostat does not make', 1, makers),
        stuckMade('water thermostat welded', 0.5, makers),
      ],
    },
    { kind: 'load', id: 'burner', label: 'burner', from: 'fire', to: 'N', watts: { setting: 'watts' } },
    {
      kind: 'behaviour',
      id: 'sequence',
      label: 'sequence',
      behaviour: 'circulator-call',
      watches: { powered: { energised: 'logic' }, call: { energised: 'call' } },
      figures: {},
    },
    ...pumpRelay({ behaviour: 'sequence', in: ['circulating'] }),
    wetBoard,
    boilerWay(),
    // Its own thermostat minds the water: there is nothing to aim at.
    boilerHeat({ energised: 'burner' }, [], true),
  ],
}
