import { z } from 'zod'
import { supplies, type SupplyId } from '../catalogue'
import { printable } from '../installation'
import { centreKindIds } from './centres'

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

/** An object of which every key is known: what a brief says and nobody would read is refused, not dropped. */
const known = <S extends z.ZodRawShape>(what: string, shape: S) =>
  z.strictObject(shape, {
    error: (issue) =>
      issue.code === 'unrecognized_keys'
        ? `${what} cannot say ${issue.keys.map((k) => `"${k}"`).join(', ')}: it says ${Object.keys(shape).join(', ')}`
        : undefined,
  })

export const circuitBriefSchema = known('a circuit', {
  kind: z.enum(circuitKindIds, {
    error: () => `a circuit is ${circuitKindIds.join(', ')}`,
  }),
  name: printable(z.string().trim().min(1, 'give the circuit a name').max(40)),
})
export type CircuitBrief = z.infer<typeof circuitBriefSchema>

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
    about: 'one valve to each circuit',
    takes: byTwoPort,
    fitted: { cylinder: 'vented', control: 'programmer', boiler: 'switched-live' },
  },
  'mid-position': {
    name: 'Mid-position',
    about: 'one three-port valve for heating and hot water',
    takes: { heating: [1, 1], 'hot-water': [1, 1] },
  },
  diverter: {
    name: 'Diverter, spring return',
    about: 'hot water first, one three-port valve',
    takes: { heating: [1, 1], 'hot-water': [1, 1] },
  },
  'three-wire-diverter': {
    name: 'Heat pump with a three-wire diverter',
    about: 'hot water first, the heat pump drives its valve both ways',
    takes: { heating: [1, 1], 'hot-water': [1, 1] },
  },
  'more-zones': {
    name: 'Two-port with more zones',
    about: 'towel rails, underfloor with a manifold controller, a zone whose thermostat comes later',
    takes: { ...byTwoPort, heating: [1, 8] },
    fitted: { cylinder: 'vented', control: 'programmer', boiler: 'switched-live' },
  },
  unvented: {
    name: 'Two-port, unvented cylinder',
    about: 'a high limit before its valve, a frost thermostat, an immersion heater on its own supply',
    takes: { ...byTwoPort, heating: [1, 8], 'hot-water': [1, 1] },
    fitted: { cylinder: 'unvented', control: 'programmer', boiler: 'live-output' },
  },
  'smart-receiver': {
    name: 'Two-port, smart receiver',
    about: 'a wireless receiver times hot water and controls heating; further zones have programmable thermostats',
    takes: { ...byTwoPort, heating: [1, 8], 'towel-rails': [0, 0], later: [0, 0] },
    fitted: { cylinder: 'vented', control: 'smart-receiver', boiler: 'pump-beside' },
  },
  'hot-water-priority': {
    name: 'Hot-water priority',
    about: 'two calls at two flow temperatures, a normally open valve before all heating',
    takes: { ...byTwoPort, heating: [1, 8], 'hot-water': [1, 1] },
    fitted: { cylinder: 'vented', control: 'programmer', boiler: 'two-calls' },
  },
  'low-voltage': {
    name: 'Low voltage, end-switch call',
    about: '24 V valves; their end switches call the boiler',
    takes: { heating: [1, 8] },
  },
  'relay-panel': {
    name: 'Low voltage, relay panel',
    about: 'a relay to each zone feeds the valve and calls the boiler',
    takes: { heating: [1, 8] },
  },
  'single-zone': {
    name: 'Single zone, volt-free call',
    about: 'one thermostat straight to the boiler',
    takes: { heating: [1, 1] },
  },
  'single-zone-mains': {
    name: 'Single zone, mains call',
    about: 'a wireless receiver switches the boiler’s live',
    takes: { heating: [1, 1] },
  },
  'single-zone-bus': {
    name: 'Single zone, digital bus',
    about: 'a receiver and the boiler talk over two wires',
    takes: { heating: [1, 1] },
  },
  'single-zone-relay': {
    name: 'Single zone, relay call',
    about: 'mains controls pull in a relay whose contact calls without volts',
    takes: { heating: [1, 1] },
  },
  'single-zone-electric': {
    name: 'Single zone, electric boiler',
    about: 'a time switch and a programmable thermostat; the boiler on a supply of its own',
    takes: { heating: [1, 1] },
  },
  'fan-convector': {
    name: 'Switching relay with a fan convector',
    about: 'a 24 V thermostat starts a mains fan and opens a zone valve',
    takes: { heating: [1, 3] },
  },
  gravity: {
    name: 'Gravity hot water, pumped heating',
    about: 'no valve: hot water calls the boiler, heating runs the pump',
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

interface SchemeType {
  name: string
  /** What stands behind its name when it is offered. */
  about: string
  takes: Partial<Record<CircuitKind, readonly [fewest: number, most: number]>>
  /** What is fitted where a brief does not say otherwise; a scheme without it is laid out in one way only. */
  fitted?: Fittings
}

/** What is fitted with a scheme where nobody says otherwise; undefined where it leaves no choice. */
export const usualFittings = (scheme: SchemeId): Fittings | undefined => (schemes[scheme] as SchemeType).fitted

/** What a brief has fitted: what it says, else what its scheme usually has. */
export const fittingsOf = (brief: Pick<PlanBrief, 'scheme' | keyof Fittings>): Fittings => {
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

export const supplyIds = Object.keys(supplies) as [SupplyId, ...SupplyId[]]

const choice = <K extends keyof Fittings>(of: K) => {
  const ids = Object.keys(fittingChoices[of]) as [Fittings[K], ...Fittings[K][]]
  return z.enum(ids, { error: () => `it is ${ids.join(', ')}` }).optional()
}

/** What Plan asks before it lays out a system; whether it goes into the wiring centre is found out by laying it out. */
export const briefAnswersSchema = known('a brief of what is fitted', {
  scheme: z.enum(schemeIds, { error: () => `the scheme is ${schemeIds.join(', ')}` }),
  circuits: z.array(circuitBriefSchema).min(1, 'a system needs at least one circuit').max(12),
  /** Left out, what the scheme usually has. */
  cylinder: choice('cylinder'),
  control: choice('control'),
  boiler: choice('boiler'),
  supply: z.enum(supplyIds).default('230-50'),
  /** Which cable runs to each control. Five-core by default, so that no core is missing later. */
  cable: z.enum(['five-core', 'only-needed']).default('five-core'),
  /** The kind of wiring centre. One conductor to a terminal by default, so that one item can be lifted out alone. */
  terminals: z.enum(centreKindIds, { error: () => `it is ${centreKindIds.join(', ')}` }).default('separate'),
}).superRefine((brief, context) => {
  const refuse = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message })
  const count = (kind: CircuitKind) => brief.circuits.filter((c) => c.kind === kind).length
  for (const kind of circuitKindIds) {
    const [least, most] = circuitsTaken(brief.scheme, kind)
    const n = count(kind)
    if (n >= least && n <= most) continue
    const wanted = least === most ? `${most}` : least === 0 ? `at most ${most}` : `${least} to ${most}`
    refuse(
      ['circuits'],
      `${schemes[brief.scheme].name} takes ${wanted} ${circuitKinds[kind]} circuit${most === 1 ? '' : 's'}, not ${n}`,
    )
  }
  const names = brief.circuits.map((c) => c.name.toLowerCase())
  names.forEach((name, i) => {
    if (names.indexOf(name) !== i) refuse(['circuits', i, 'name'], `"${brief.circuits[i].name}" is there twice`)
  })
  const usual = usualFittings(brief.scheme)
  if (!usual) {
    for (const field of Object.keys(fittingChoices) as (keyof Fittings)[])
      if (brief[field] !== undefined)
        refuse([field], `${schemes[brief.scheme].name} is laid out in one way only: leave the ${field} out`)
    return
  }
  const fitted = fittingsOf(brief)
  if (fitted.cylinder === 'unvented' && count('hot-water') === 0)
    refuse(['cylinder'], 'an unvented cylinder needs a hot water circuit')
  if (fitted.control === 'smart-receiver' && count('heating') === 0)
    refuse(['control'], 'a smart receiver controls a heating zone: there is none')
  if (fitted.control === 'smart-receiver' && count('towel-rails') > 0)
    refuse(['control'], 'towel rails need a channel of their own, and a smart receiver has two: take a programmer')
  if (fitted.control === 'smart-receiver' && count('later') > 0)
    refuse(
      ['control'],
      'a zone whose thermostat comes later runs with a heating channel: a smart receiver has none to spare',
    )
  if (fitted.boiler === 'two-calls' && (count('hot-water') === 0 || count('heating') === 0))
    refuse(['boiler'], 'two calls need a heating and a hot water circuit')
  if (brief.scheme === 'hot-water-priority' && fitted.boiler !== 'two-calls')
    refuse(['boiler'], 'hot-water priority needs a boiler with two calls')
})
export type PlanBrief = z.infer<typeof briefAnswersSchema>
