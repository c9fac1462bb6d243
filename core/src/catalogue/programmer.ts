import { feedLost, madeThrowOpen, neverOperates, openCircuit, restThrowOpen, stuckOperated } from './failures'
import { heatingWeek, hotWaterWeek } from './weeks'
import type {
  Changeover,
  Condition,
  Contact,
  DeviceType,
  Load,
  Primitive,
  Programme,
  Setting,
  TerminalType,
} from './primitives'

interface Channel {
  id: string
  label: string
  /** Its control on the front. */
  title: string
  common: string
  on: string
  off: string
  usual: Programme
  /** With the slider set, this channel is on whenever that one is. */
  with?: string
}

const replace = 'Replace the programmer.'
/** How a channel is run. Once is from the day's first on to its last off; a boost goes back to timed after an hour. */
const modes = [
  { id: 'off', label: 'Off' },
  { id: 'timed', label: 'Timed', seldom: true },
  { id: 'once', label: 'Once', seldom: true },
  { id: 'on', label: 'On' },
  { id: 'boost', label: 'Boost', seldom: true },
] as const

/** For systems where heating cannot run without hot water. */
const slider: Setting = {
  id: 'slider',
  label: 'Slider behind the plate',
  unit: '0 or 1',
  min: 0,
  max: 1,
  default: 0,
  origin: 'as delivered',
  choices: [
    { value: 0, label: 'channels apart' },
    { value: 1, label: 'heating brings hot water with it' },
  ],
}

/** A channel on by hand, or by its clock. */
const runs = (id: string): Condition => ({
  any: [{ control: id, is: ['on', 'boost'] }, { all: [{ control: id, is: ['timed', 'once'] }, { timed: id }] }],
})

/** When the front asks for a channel. */
const asked = (channel: Channel): Condition => {
  const own = runs(channel.id)
  if (!channel.with) return own
  return { any: [own, { all: [{ setting: 'slider', is: 1 }, runs(channel.with)] }] }
}

/** A coil behind an electronic switch; its relay follows it. Electronics pull in one coil after the other. */
const channelParts = (channel: Channel, n: number): [Contact, Load, Changeover] => {
  const { id, label, common, on, off } = channel
  return [
    {
      kind: 'contact',
      id: `${id}-drive`,
      label: `${label} relay drive`,
      a: 'rail',
      b: `${id}-coil`,
      closedWhen: { all: [asked(channel), { energised: 'clock' }] },
      laterMs: n * 20,
    },
    {
      kind: 'load',
      id: `${id}-relay`,
      label: `${label} relay coil`,
      from: `${id}-coil`,
      to: 'N',
      ohms: 53_000,
      pullsIn: 55,
      dropsOut: 20,
    },
    {
      kind: 'changeover',
      id,
      label: `${label} channel`,
      common,
      no: on,
      nc: off,
      operatedWhen: { all: [asked(channel), { energised: `${id}-relay` }] },
      failures: [
        neverOperates(`${label} channel does not make`, 3, replace),
        stuckOperated(`${label} channel welded on`, 2, replace),
        madeThrowOpen(`${label} ON contact burnt`, 1, replace),
        restThrowOpen(`${label} OFF contact burnt`, 1, replace),
        // One feed serves them all: it is told of the first.
        ...(n === 0 ? [feedLost('feed of its contacts lost', 0.6, replace)] : []),
      ],
    },
  ]
}

/**
 * The relays share one dropper, made of two parts side by side. With the larger part lost, what is left pulls in one
 * coil and holds two, but cannot pull in a second: usual values that give 62 and 45 % of the volts.
 */
const dropper = (manyRelays: boolean): Primitive[] => [
  {
    kind: 'load',
    id: 'dropper',
    label: 'relay supply',
    from: 'L',
    to: 'rail',
    ohms: 2000,
    failures: manyRelays ? [openCircuit('relays cannot both pull in: their supply is worn', 1, replace)] : [],
  },
  { kind: 'load', id: 'dropper-rest', label: 'relay supply, smaller part', from: 'L', to: 'rail', ohms: 33_000 },
]

const supplyTerminals: TerminalType[] = [
  { id: 'L', legend: 'L', role: 'permanent-live' },
  { id: 'N', legend: 'N', role: 'neutral' },
]

function programmerOf(
  given: Pick<DeviceType, 'id' | 'version' | 'name' | 'about'>,
  channels: readonly Channel[],
  terminals: readonly TerminalType[],
): DeviceType {
  return {
    ...given,
    family: 'timing',
    stands: 'Kitchen or hall, on a backplate; often beside the boiler.',
    terminals: [
      ...supplyTerminals,
      ...terminals,
      { id: 'rail', legend: 'Relay supply', role: 'output', internal: true },
      ...channels.map(({ id, label }): TerminalType => ({
        id: `${id}-coil`,
        legend: `Coil, ${label}`,
        role: 'output',
        internal: true,
      })),
    ],
    controls: channels.map(({ id, title, usual }) => ({
      kind: 'choice',
      id,
      label: title,
      values: modes,
      initial: 'off',
      timed: { usual },
      returns: { from: 'boost', minutes: 60, to: 'timed' },
    })),
    settings: [
      { id: 'watts', label: 'Own draw', unit: 'W', min: 1, max: 10, default: 2, origin: 'usual value' },
      ...(channels.some((c) => c.with) ? [slider] : []),
    ],
    inputs: [],
    primitives: [
      {
        kind: 'load',
        id: 'clock',
        label: 'clock',
        from: 'L',
        to: 'N',
        watts: { setting: 'watts' },
        lights: true,
        failures: [openCircuit('clock dead, display dark', 1, replace)],
      },
      ...dropper(channels.length > 1),
      ...channels.flatMap(channelParts),
    ],
  }
}

const heating: Channel = {
  id: 'heating',
  label: 'heating',
  title: 'Heating',
  usual: heatingWeek,
  common: 'L',
  on: 'HTG-ON',
  off: 'HTG-OFF',
}
const hotWater: Channel = {
  id: 'hot-water',
  label: 'hot water',
  title: 'Hot water',
  usual: hotWaterWeek,
  common: 'L',
  on: 'HW-ON',
  off: 'HW-OFF',
  with: 'heating',
}
const third: Channel = {
  id: 'third',
  label: 'third',
  title: 'Third',
  usual: heatingWeek,
  common: 'L',
  on: 'X-ON',
  off: 'X-OFF',
}

const heatingOut: TerminalType[] = [
  { id: 'HTG-ON', legend: 'Heating ON', role: 'output' },
  { id: 'HTG-OFF', legend: 'Heating OFF', role: 'output' },
]
const hotWaterOut: TerminalType[] = [
  { id: 'HW-ON', legend: 'Hot water ON', role: 'output' },
  { id: 'HW-OFF', legend: 'Hot water OFF', role: 'output' },
]
const withoutSupply = 'Without supply the relays drop out and every channel reads off.'

/** Two channels on relays that the clock pulls in; the contacts share the clock's feed. */
export const programmer = programmerOf(
  {
    id: 'programmer-two-channel',
    version: 2,
    name: 'Two-channel programmer',
    about: `Two changeover contacts fed from the same L as the clock. A channel that is on joins L to its ON terminal; off, to its OFF terminal. ${withoutSupply}`,
  },
  [heating, hotWater],
  [...heatingOut, ...hotWaterOut],
)

export const oneChannelProgrammer = programmerOf(
  {
    id: 'programmer-one-channel',
    version: 1,
    name: 'One-channel time switch',
    about: `One changeover contact fed from the same L as the clock: it times heating, or everything at once. ${withoutSupply}`,
  },
  [heating],
  heatingOut,
)

export const threeChannelProgrammer = programmerOf(
  {
    id: 'programmer-three-channel',
    version: 1,
    name: 'Three-channel programmer',
    about: `Heating, hot water, and a third channel for a second zone or towel rails, all fed from the clock's own L. ${withoutSupply}`,
  },
  [heating, hotWater, third],
  [
    ...heatingOut,
    ...hotWaterOut,
    { id: 'X-ON', legend: 'Third ON', role: 'output' },
    { id: 'X-OFF', legend: 'Third OFF', role: 'output' },
  ],
)

/** The contacts have a feed apart from the clock's: lamps may be lit and both outputs dead. */
export const ownFeedProgrammer = programmerOf(
  {
    id: 'programmer-own-feed',
    version: 1,
    name: 'Two-channel programmer, contacts fed apart',
    about:
      'Two changeover contacts with a feed terminal of their own, apart from the clock. With that feed lost the display ' +
      'and the lamps are as ever and both outputs are dead.',
  },
  [
    { ...heating, common: 'F' },
    { ...hotWater, common: 'F' },
  ],
  [{ id: 'F', legend: 'Contacts feed', role: 'contact-feed' }, ...heatingOut, ...hotWaterOut],
)

/** Each channel a changeover of its own, joined to nothing else in the device. */
export const voltFreeProgrammer = programmerOf(
  {
    id: 'programmer-volt-free',
    version: 1,
    name: 'One-channel time switch, volt-free',
    about:
      'A clock under mains, and one changeover contact that is joined to nothing else: it switches mains or extra-low ' +
      'voltage, as it is fed.',
  },
  [{ ...heating, common: 'COM', on: 'NO', off: 'NC' }],
  [
    { id: 'COM', legend: 'Common', role: 'contact-feed' },
    { id: 'NO', legend: 'Normally open', role: 'output' },
    { id: 'NC', legend: 'Normally closed', role: 'output' },
  ],
)
