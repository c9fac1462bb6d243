import { boilerHeat, boilerWay, flowProving, flowTemperature, heatSettings, provenFrom } from './boiler-water'
import { heldCalling, leaks, lockedOut, neverMakes, openCircuit, stuckMade } from './failures'
import type { Aim, BehaviourPart, Condition, Contact, Load, Primitive, Setting, TerminalType } from './primitives'

export const makers = 'Boiler fault: for the maker or a licensed engineer.'

/** The volts an extra-low-voltage input of a board stands before it burns out: a usual value. */
export const boardWithstands = 60

export const overrun: Setting = {
  id: 'overrun',
  label: 'Pump overrun',
  unit: 'min',
  min: 0,
  max: 15,
  default: 5,
  origin: 'domain: 3 to 10 min',
}
const selfCheck: Setting = {
  id: 'self-check',
  label: 'Self-check before firing',
  unit: 's',
  min: 0,
  max: 120,
  default: 8,
  origin: 'usual value',
}
const offTime: Setting = {
  id: 'off-time',
  label: 'Least time off before it fires for heating again',
  unit: 'min',
  min: 0,
  max: 20,
  default: 0,
  origin: 'many simple boards have none; others wait 3 to 10 min',
  mayBe: { value: 3, label: 'keeps its burner off for some minutes after each run' },
}
/** What every boiler can be set to, but for the overrun of its pump output. */
export const boilerSettings: Setting[] = [
  selfCheck,
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
  offTime,
  ...heatSettings(18_000, 5000),
  flowProving,
]
export const settings: Setting[] = [...boilerSettings, overrun]
/** Of a boiler with one flow temperature. */
export const oneFlow = flowTemperature(70)
export const oneAim: readonly Aim[] = [{ celsius: { setting: 'flow' }, compensatedBy: 'compensation' }]

export const mains: TerminalType[] = [
  { id: 'L', legend: 'Permanent live', role: 'permanent-live' },
  { id: 'N', legend: 'Neutral', role: 'neutral' },
  { id: 'E', legend: 'Earth', role: 'earth' },
]
export const pumpOutput: TerminalType[] = [
  { id: 'PL', legend: 'Pump live', role: 'output' },
  { id: 'PN', legend: 'Pump neutral', role: 'output' },
  { id: 'PE', legend: 'Pump earth', role: 'output' },
]
export const callPair: TerminalType[] = [
  { id: 'T1', legend: 'Call feed', role: 'output', extraLow: true },
  { id: 'T2', legend: 'Call return', role: 'input', extraLow: true },
]

export const board: Load = {
  kind: 'load',
  id: 'board',
  label: 'board',
  from: 'L',
  to: 'N',
  watts: { setting: 'watts' },
  failures: [openCircuit('board dead', 1, makers)],
}

/** Water on the board, to earth. */
export const wetBoard: Primitive = {
  kind: 'insulation',
  id: 'casing',
  label: 'board',
  a: 'L',
  b: 'E',
  ohms: { setting: 'leak' },
  failures: [leaks('water on its board', 1, `Find the leak first. ${makers}`)],
}

interface Sequence {
  /** What keeps it awake; left out, its board. */
  powered?: Condition
  call: Condition
  hotWater?: Condition
  overrunMinutes?: BehaviourPart['figures'][string]
  words?: BehaviourPart['words']
  /** It takes no notice of flow: its own thermostat stands in its water. */
  blind?: boolean
  /** The flow temperature it stands at when its flow is lost. */
  aim?: BehaviourPart['figures'][string]
}

/** Call, self-check, firing. Without a pump output nothing overruns. */
export const sequence = ({
  powered = { energised: 'board' },
  call,
  hotWater,
  overrunMinutes = 0,
  words,
  blind = false,
  aim = { setting: 'flow' },
}: Sequence): BehaviourPart => ({
  kind: 'behaviour',
  id: 'sequence',
  label: 'sequence',
  behaviour: 'boiler-sequence',
  watches: {
    powered,
    call,
    ...(hotWater ? { hotWater } : {}),
    // One that has its own thermostat in its water takes no notice of flow.
    ...(blind ? {} : { flow: { flows: 'water', from: provenFrom } }),
    locked: { control: 'reset', is: ['locked'] },
  },
  figures: {
    selfCheckSeconds: { setting: 'self-check' },
    overrunMinutes,
    leastOffMinutes: { setting: 'off-time' },
    provingSeconds: blind ? 0 : { setting: 'proving' },
    ownWater: { setting: 'own-water' },
    leastWatts: { setting: 'least' },
    limit: { setting: 'limit' },
    aim,
  },
  throws: { control: 'reset', to: 'locked' },
  words,
  failures: [lockedOut('locked out', 1.5, 'Read the fault shown, find its cause, reset it once.')],
})

/** A board that needs its extra-low-voltage supply as well. */
export const boardAndLogic: Condition = { all: [{ energised: 'board' }, { energised: 'logic' }] }

/** The relay of the pump output and the bars beside it. */
export const pumpRelay = (closedWhen: Condition, output = 'PL'): Primitive[] => [
  {
    kind: 'contact',
    id: 'pump-relay',
    label: 'pump relay',
    a: 'L',
    b: output,
    closedWhen,
    failures: [neverMakes('pump output dead', 1, makers), stuckMade('pump relay welded', 0.7, makers)],
  },
  { kind: 'strap', id: 'neutral-bar', label: 'neutral bar', a: 'N', b: 'PN' },
  { kind: 'strap', id: 'earth-bar', label: 'earth bar', a: 'E', b: 'PE' },
]

/** What every boiler under permanent live with a pump output has: board, sequence, pump relay, bars. */
export const boilerCore = (of: Omit<Sequence, 'overrunMinutes'>, output?: string): Primitive[] => [
  board,
  sequence({ ...of, overrunMinutes: { setting: 'overrun' } }),
  ...pumpRelay({ behaviour: 'sequence', in: ['waits-off', 'self-check', 'no-flow', 'firing', 'overrun'] }, output),
  wetBoard,
]

/** The way through a boiler and what its burner brings into it while it fires. */
export const boilerWater = (aims = oneAim, mindsItself?: true): Primitive[] => [
  boilerWay(),
  boilerHeat({ behaviour: 'sequence', in: ['firing'] }, aims, mindsItself),
]

/** A mains input that hears a call. Its resistance is usual: about 1 W at 230 V. */
export const callInput = (id: string, label: string, terminal: string, back = 'N'): Load => ({
  kind: 'load',
  id,
  label,
  from: terminal,
  to: back,
  ohms: 53_000,
  pullsIn: 60,
  failures: [
    openCircuit(`no answer to the ${label}`, 1, makers),
    heldCalling(`${label} stuck: calls by itself`, 0.5, makers),
  ],
})

/** The board's own extra-low-voltage supply, between T1 and earth. */
export const ownSupply = (fed: string): Primitive[] => [
  { kind: 'load', id: 'primary', label: 'board transformer', from: 'L', to: 'N', watts: 2 },
  {
    kind: 'transformer',
    id: 'transformer',
    label: 'board transformer',
    primary: 'primary',
    fed,
    common: 'E',
    volts: 24,
    va: 4,
    regulation: 25,
  },
  {
    kind: 'load',
    id: 'logic',
    label: 'board logic',
    from: fed,
    to: 'E',
    watts: 0.5,
    volts: 24,
    withstands: boardWithstands,
    failures: [openCircuit('board burnt by mains on extra-low-voltage terminals', 0.3, makers)],
  },
]

/** An extra-low-voltage input that a contact in the pair closes. */
export const pairInput = (id: string, label: string, from: string): Load => ({
  kind: 'load',
  id,
  label,
  from,
  to: 'E',
  watts: 0.2,
  volts: 24,
  withstands: boardWithstands,
  failures: [
    openCircuit(`no answer to the ${label}`, 1, makers),
    heldCalling(`${label} stuck: calls by itself`, 0.5, makers),
  ],
})

/** A contact inside the board that turns what it has worked out into a call of its own. */
export const innerCall = (id: string, label: string, terminal: string, closedWhen: Condition): [Contact, Load] => [
  { kind: 'contact', id: `${id}-relay`, label: `${label} over the bus`, a: 'L', b: terminal, closedWhen },
  {
    kind: 'load',
    id,
    label,
    from: terminal,
    to: 'N',
    ohms: 100_000,
    failures: [heldCalling(`${label} stuck`, 0.3, makers)],
  },
]
