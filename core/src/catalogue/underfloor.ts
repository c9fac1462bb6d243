import { jammed, neverMakes, openCircuit, seizedOpen, seizedShut, stuckMade } from './failures'
import { port } from './motor'
import type { Contact, DeviceType, Load, Primitive, TerminalType } from './primitives'

/** Zones of a manifold controller. */
const zones = [1, 2, 3, 4]
const replace = 'Replace the manifold controller.'

/** Milliseconds after which a head is open and the water is called: usual for wax heads. */
const headsOpenMs = 180_000

const zoneTerminals = (n: number): TerminalType[] => [
  { id: `F${n}`, legend: `Room ${n} feed`, role: 'output' },
  { id: `S${n}`, legend: `Room ${n} switched live`, role: 'input' },
  { id: `H${n}`, legend: `Head ${n}`, role: 'output' },
  { id: `HN${n}`, legend: `Head ${n} neutral`, role: 'output' },
]
const zoneParts = (n: number): Primitive[] => [
  { kind: 'strap', id: `feed-${n}`, label: 'line bar', a: 'L', b: `F${n}` },
  { kind: 'strap', id: `neutral-${n}`, label: 'neutral bar', a: 'N', b: `HN${n}` },
  {
    kind: 'load',
    id: `room-${n}`,
    label: `room ${n} input`,
    from: `S${n}`,
    to: 'N',
    ohms: 53_000,
    failures: [openCircuit(`room ${n} input dead`, 0.7, replace)],
  } satisfies Load,
  {
    kind: 'contact',
    id: `head-${n}`,
    label: `head ${n} output`,
    a: 'L',
    b: `H${n}`,
    closedWhen: { energised: `room-${n}` },
    failures: [neverMakes(`head ${n} output dead`, 1, replace), stuckMade(`head ${n} output stuck on`, 1, replace)],
  } satisfies Contact,
]
const anyRoom = { any: zones.map((n) => ({ energised: `room-${n}` })) }

export const manifoldController: DeviceType = {
  id: 'manifold-controller',
  version: 1,
  name: 'Manifold controller, four rooms',
  family: 'relays',
  stands: 'At the underfloor manifold.',
  about:
    'Each room’s thermostat opens its head on the manifold. Once a head has had time to open, a volt-free contact calls for ' +
    'water and the pump output comes on.',
  terminals: [
    { id: 'L', legend: 'Permanent live', role: 'permanent-live' },
    { id: 'N', legend: 'Neutral', role: 'neutral' },
    { id: 'E', legend: 'Earth', role: 'earth' },
    { id: 'K1', legend: 'Call, common', role: 'contact-feed' },
    { id: 'K2', legend: 'Call, make', role: 'output' },
    { id: 'PL', legend: 'Pump live', role: 'output' },
    { id: 'PN', legend: 'Pump neutral', role: 'output' },
    ...zones.flatMap(zoneTerminals),
  ],
  controls: [],
  settings: [],
  inputs: [],
  primitives: [
    ...zones.flatMap(zoneParts),
    {
      kind: 'contact',
      id: 'call',
      label: 'call contact',
      a: 'K1',
      b: 'K2',
      closedWhen: anyRoom,
      laterMs: headsOpenMs,
      failures: [neverMakes('call contact does not make', 1, replace), stuckMade('call contact welded', 0.7, replace)],
    },
    {
      kind: 'contact',
      id: 'pump-relay',
      label: 'pump relay',
      a: 'L',
      b: 'PL',
      closedWhen: anyRoom,
      laterMs: headsOpenMs,
      failures: [neverMakes('pump output dead', 0.7, replace), stuckMade('pump relay welded', 0.5, replace)],
    },
    { kind: 'strap', id: 'pump-neutral', label: 'neutral bar', a: 'N', b: 'PN' },
  ],
}

/** Wax that swells: slow, silent, and without any switch. */
export const thermalHead: DeviceType = {
  id: 'thermal-head',
  version: 1,
  name: 'Thermal head on a manifold',
  family: 'valves',
  stands: 'On the manifold, one to each loop.',
  about: 'A heater swells a wax capsule that opens the loop in some minutes; cold, it shuts again. It has no switch.',
  terminals: [
    { id: 'L', legend: 'Line', role: 'input', lead: 'brown' },
    { id: 'N', legend: 'Neutral', role: 'neutral', lead: 'blue' },
  ],
  controls: [],
  settings: [
    { id: 'open', label: 'Opening time', unit: 's', min: 60, max: 400, default: 170, origin: 'usual value' },
    { id: 'return', label: 'Closing time', unit: 's', min: 60, max: 600, default: 240, origin: 'usual value' },
    { id: 'watts', label: 'Heater', unit: 'W', min: 0.5, max: 6, default: 2, origin: 'usual value' },
  ],
  inputs: [],
  primitives: [
    {
      kind: 'load',
      id: 'motor',
      label: 'heater',
      from: 'L',
      to: 'N',
      watts: { setting: 'watts' },
      failures: [
        openCircuit('heater open', 2, 'Replace the head.'),
        jammed('wax lost: warm and does not move', 1, 'Replace the head.'),
      ],
    },
    {
      kind: 'actuator',
      id: 'travel',
      label: 'travel',
      drivenBy: 'motor',
      openSeconds: { setting: 'open' },
      returnSeconds: { setting: 'return' },
      failures: [
        seizedShut('pin stuck shut', 1.5, 'Head off, free the pin with pliers.'),
        seizedOpen('pin stuck open', 0.7, 'Head off, free the pin; else replace the insert.'),
      ],
    },
    port('outlet', 'loop', 0.05, 1),
  ],
}
