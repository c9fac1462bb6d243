/** Kinds of circuit a brief can name, in words. */
export const circuitKinds = {
  heating: 'heating',
  'hot-water': 'hot water',
  'towel-rails': 'towel rails',
  underfloor: 'underfloor room',
  later: 'zone for later',
} as const
export type CircuitKind = keyof typeof circuitKinds
export const circuitKindIds = Object.keys(circuitKinds) as [CircuitKind, ...CircuitKind[]]

/** Circuits that two-port valves can serve, one valve to each. */
const byTwoPort = {
  heating: [0, 8],
  'hot-water': [0, 1],
  'towel-rails': [0, 1],
  underfloor: [0, 4],
  later: [0, 2],
} as const

/** The schemes Plan lays out, by what they are, with the fewest and most circuits of each kind they take. */
export const schemes = {
  'two-port': {
    name: 'Two-port',
    takes: byTwoPort,
    fitted: { cylinder: 'vented', control: 'programmer', boiler: 'switched-live' },
  },
  'mid-position': {
    name: 'Mid-position',
    takes: { heating: [1, 1], 'hot-water': [1, 1] },
  },
  diverter: {
    name: 'Diverter, spring return',
    takes: { heating: [1, 1], 'hot-water': [1, 1] },
  },
  'three-wire-diverter': {
    name: 'Heat pump with a three-wire diverter',
    takes: { heating: [1, 1], 'hot-water': [1, 1] },
  },
  'more-zones': {
    name: 'Two-port with more zones',
    takes: { ...byTwoPort, heating: [1, 8] },
    fitted: { cylinder: 'vented', control: 'programmer', boiler: 'switched-live' },
  },
  unvented: {
    name: 'Two-port, unvented cylinder',
    takes: { ...byTwoPort, heating: [1, 8], 'hot-water': [1, 1] },
    fitted: { cylinder: 'unvented', control: 'programmer', boiler: 'live-output' },
  },
  'smart-receiver': {
    name: 'Two-port, smart receiver',
    takes: { ...byTwoPort, heating: [1, 8], 'towel-rails': [0, 0], later: [0, 0] },
    fitted: { cylinder: 'vented', control: 'smart-receiver', boiler: 'pump-beside' },
  },
  'hot-water-priority': {
    name: 'Hot-water priority',
    takes: { ...byTwoPort, heating: [1, 8], 'hot-water': [1, 1] },
    fitted: { cylinder: 'vented', control: 'programmer', boiler: 'two-calls' },
  },
  'low-voltage': {
    name: 'Low voltage, end-switch call',
    takes: { heating: [1, 8] },
  },
  'relay-panel': {
    name: 'Low voltage, relay panel',
    takes: { heating: [1, 8] },
  },
  'single-zone': {
    name: 'Single zone, volt-free call',
    takes: { heating: [1, 1] },
  },
  'single-zone-mains': {
    name: 'Single zone, mains call',
    takes: { heating: [1, 1] },
  },
  'single-zone-bus': {
    name: 'Single zone, digital bus',
    takes: { heating: [1, 1] },
  },
  'single-zone-relay': {
    name: 'Single zone, relay call',
    takes: { heating: [1, 1] },
  },
  'single-zone-electric': {
    name: 'Single zone, electric boiler',
    takes: { heating: [1, 1] },
  },
  'fan-convector': {
    name: 'Switching relay with a fan convector',
    takes: { heating: [1, 3] },
  },
  gravity: {
    name: 'Gravity hot water, pumped heating',
    takes: { heating: [1, 1], 'hot-water': [1, 1] },
  },
} as const satisfies Record<string, SchemeType>
export type SchemeId = keyof typeof schemes
export const schemeIds = Object.keys(schemes) as [SchemeId, ...SchemeId[]]

/** What a brief can choose beside the circuits, and what each choice is. */
export const fittingChoices = {
  cylinder: { vented: 'Vented', unvented: 'Unvented, with a high limit and an immersion heater' },
  control: { programmer: 'Programmer', 'smart-receiver': 'Smart receiver, two channels' },
  boiler: {
    'switched-live': 'One call, pump output',
    'live-output': 'One call, feeds the controls',
    'pump-beside': 'One call, pump beside it',
    'two-calls': 'Two calls, hot water first',
  },
} as const
export interface Fittings {
  cylinder: keyof typeof fittingChoices.cylinder
  control: keyof typeof fittingChoices.control
  boiler: keyof typeof fittingChoices.boiler
}

/** What asks for a zone's heat, beside the plain thermostat that a plan lays out where nobody says otherwise. */
export const thermostatChoices = {
  wired: 'Wired thermostat',
  'two-wire': 'Two-wire thermostat',
  programmable: 'Programmable thermostat',
  wireless: 'Wireless thermostat, receiver in its place',
} as const
export type ThermostatChoice = keyof typeof thermostatChoices

/** What times a zone: the programmer's channel in front of its thermostat, or the thermostat, then on permanent line. */
export const timedChoices = { 'by-channel': 'By the programmer', 'by-itself': 'By its thermostat' } as const
export type TimedChoice = keyof typeof timedChoices

/**
 * What times a zone where nobody says otherwise: a programmable thermostat its own hours, on permanent line, since behind a channel it
 * is dark while that is off; every other the programmer's channel.
 */
export const timedOf = ({ thermostat, timed }: { thermostat?: ThermostatChoice; timed?: TimedChoice }): TimedChoice =>
  timed ?? (thermostat === 'programmable' ? 'by-itself' : 'by-channel')

/** Schemes in which a heating zone has a mains thermostat of its own behind a channel of the programmer. */
export const zonesBehindChannel = (scheme: SchemeId): boolean =>
  usualFittings(scheme) !== undefined || ['mid-position', 'diverter', 'three-wire-diverter', 'gravity'].includes(scheme)

interface SchemeType {
  name: string
  takes: Partial<Record<CircuitKind, readonly [fewest: number, most: number]>>
  /** What is fitted where a brief does not say otherwise; a scheme without it is laid out in one way only. */
  fitted?: Fittings
}

/** What is fitted with a scheme where nobody says otherwise; undefined where it leaves no choice. */
export const usualFittings = (scheme: SchemeId): Fittings | undefined => (schemes[scheme] as SchemeType).fitted

/** What a brief has fitted: what it says, else what its scheme usually has. */
export const fittingsOf = (brief: { scheme: SchemeId } & Partial<Fittings>): Fittings => {
  const usual = usualFittings(brief.scheme) ?? schemes['two-port'].fitted
  return {
    cylinder: brief.cylinder ?? usual.cylinder,
    control: brief.control ?? usual.control,
    boiler: brief.boiler ?? usual.boiler,
  }
}

/** The fewest and most circuits of a kind a scheme takes. */
export const circuitsTaken = (scheme: SchemeId, kind: CircuitKind): readonly [number, number] =>
  (schemes[scheme] as SchemeType).takes[kind] ?? [0, 0]

/** How many circuits of a kind there are. */
export const countOf = ({ circuits }: { circuits: readonly { kind: CircuitKind }[] }, kind: CircuitKind): number =>
  circuits.filter((c) => c.kind === kind).length
