import { blown, neverMakes, stuckMade } from './failures'
import type { Contact, Control, DeviceType, Failure, Primitive, TerminalType } from './primitives'

const offOn = [
  { id: 'off', label: 'Off' },
  { id: 'on', label: 'On' },
] as const

const internal = (id: string, legend: string): TerminalType => ({ id, legend, role: 'output', internal: true })
const pole = (
  id: string,
  label: string,
  [a, b]: readonly [string, string],
  control: string,
  failures?: Failure[],
): Contact => ({ kind: 'contact', id, label, a, b, closedWhen: { control, is: ['on'] }, failures })
const poleFailures = (label: string) => [
  neverMakes(`${label} burnt open`, 0.3, 'Replace the spur.'),
  stuckMade(`${label} welded: switched off it stays joined`, 0.1, 'Replace the spur; isolate before it meanwhile.'),
]

/** A spur behind nothing but a breaker, or behind a residual current device as well. */
function spur(id: string, name: string, about: string, residual: boolean): DeviceType {
  const [behindL, behindN] = residual ? ['protected-L', 'protected-N'] : ['feed-L', 'origin-N']
  const residualParts: Primitive[] = [
    pole('rcd-L', 'RCD line pole', ['feed-L', behindL], 'rcd'),
    pole('rcd-N', 'RCD neutral pole', ['origin-N', behindN], 'rcd'),
    {
      kind: 'residual-trip',
      id: 'rcd',
      label: 'RCD',
      contacts: ['rcd-L', 'rcd-N'],
      milliamps: { setting: 'residual' },
      throws: { control: 'rcd', to: 'off' },
    },
  ]
  const controls: Control[] = [
    { kind: 'choice', id: 'switch', label: 'Spur switch', values: offOn, initial: 'on' },
    ...(residual ? [{ kind: 'choice', id: 'rcd', label: 'RCD', values: offOn, initial: 'on' } as const] : []),
  ]
  return {
    id,
    version: 2,
    name,
    family: 'supply',
    stands: 'Beside the boiler or the programmer: the one point of isolation.',
    about,
    terminals: [
      { id: 'L', legend: 'Load L', role: 'output' },
      { id: 'N', legend: 'Load N', role: 'output' },
      { id: 'E', legend: 'Earth', role: 'output' },
      internal('origin-L', 'Origin L'),
      internal('origin-N', 'Origin N'),
      internal('feed-L', 'Feed L'),
      ...(residual ? [internal(behindL, 'Behind the RCD, L'), internal(behindN, 'Behind the RCD, N')] : []),
      internal('switched-L', 'Behind the switch'),
    ],
    controls,
    settings: [
      { id: 'fuse', label: 'Fuse', unit: 'A', min: 1, max: 13, default: 3, origin: 'usual for heating controls' },
      {
        id: 'breaker',
        label: 'Breaker upstream',
        unit: 'A',
        min: 6,
        max: 40,
        default: 32,
        origin: 'usual socket circuit',
      },
      {
        id: 'loop',
        label: 'Loop resistance of the supply',
        unit: 'Ω',
        min: 0.05,
        max: 20,
        default: 0.5,
        origin: 'usual at a socket circuit',
      },
      ...(residual
        ? [{ id: 'residual', label: 'RCD', unit: 'mA', min: 10, max: 300, default: 30, origin: 'usual for sockets' }]
        : []),
    ],
    inputs: [],
    primitives: [
      {
        kind: 'source',
        id: 'supply',
        label: 'supply',
        line: 'origin-L',
        neutral: 'origin-N',
        earth: 'E',
        loopOhms: { setting: 'loop' },
      },
      {
        kind: 'fuse',
        id: 'breaker',
        label: 'breaker upstream',
        a: 'origin-L',
        b: 'feed-L',
        amps: { setting: 'breaker' },
      },
      ...(residual ? residualParts : []),
      pole('pole-L', 'line pole', [behindL, 'switched-L'], 'switch', poleFailures('line pole')),
      pole('pole-N', 'neutral pole', [behindN, 'N'], 'switch', poleFailures('neutral pole')),
      {
        kind: 'fuse',
        id: 'fuse',
        label: 'fuse',
        a: 'switched-L',
        b: 'L',
        amps: { setting: 'fuse' },
        failures: [
          blown('fuse blown', 2, 'Find what blew it (pump, boiler, trapped cable) before a new fuse goes in.'),
        ],
      },
    ],
  }
}

const about =
  'The one point of isolation. A double-pole switch breaks line and neutral together; a 3 A fuse stands in the line. ' +
  'Upstream of it is the breaker of the circuit that feeds it'

export const fusedSpur = spur('fused-spur', 'Double-pole fused spur', `${about}.`, false)

export const fusedSpurBehindRcd = spur(
  'fused-spur-rcd',
  'Double-pole fused spur behind an RCD',
  `${about}, and a residual current device, which opens both poles when the current that goes out and the one that ` +
    'comes back differ.',
  true,
)

/** A fuse of its own in the wiring centre. */
export const boxFuse: DeviceType = {
  id: 'box-fuse',
  version: 1,
  name: 'Fuse in the wiring centre',
  family: 'supply',
  stands: 'In the wiring centre, in the line of one load.',
  about: 'A fuse in the line of what stands behind it, besides the one in the spur.',
  terminals: [
    { id: 'IN', legend: 'Feed', role: 'input' },
    { id: 'OUT', legend: 'Behind the fuse', role: 'output' },
  ],
  controls: [],
  settings: [{ id: 'fuse', label: 'Fuse', unit: 'A', min: 0.5, max: 10, default: 2, origin: 'usual value' }],
  inputs: [],
  primitives: [
    {
      kind: 'fuse',
      id: 'fuse',
      label: 'fuse',
      a: 'IN',
      b: 'OUT',
      amps: { setting: 'fuse' },
      failures: [blown('fuse blown', 1.5, 'Find what blew it before a new fuse goes in.')],
    },
  ],
}
