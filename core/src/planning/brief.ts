import { z } from 'zod'

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

export const circuitBriefSchema = z.object({
  kind: z.enum(circuitKindIds),
  name: z.string().trim().min(1, 'give the circuit a name').max(40),
})
export type CircuitBrief = z.infer<typeof circuitBriefSchema>

/** The schemes Plan lays out, by what they are, with the fewest and most circuits of each kind they take. */
export const schemes = {
  'two-port': { name: 'Two-port', about: 'one valve to each circuit', takes: { heating: [0, 8], 'hot-water': [0, 1] } },
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
    takes: { heating: [1, 4], 'hot-water': [0, 1], 'towel-rails': [0, 1], underfloor: [0, 4], later: [0, 2] },
  },
  unvented: {
    name: 'Two-port, unvented cylinder',
    about: 'a high limit before its valve, a frost thermostat, an immersion heater on its own supply',
    takes: { heating: [1, 4], 'hot-water': [1, 1] },
  },
  'smart-receiver': {
    name: 'Two-port, smart receiver',
    about: 'a wireless receiver times both and controls heating',
    takes: { heating: [1, 1], 'hot-water': [1, 1] },
  },
  'hot-water-priority': {
    name: 'Hot-water priority',
    about: 'two calls at two flow temperatures, a normally open valve before all heating',
    takes: { heating: [1, 6], 'hot-water': [1, 1] },
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

interface SchemeType {
  name: string
  /** What stands behind its name when it is offered. */
  about: string
  takes: Partial<Record<CircuitKind, readonly [fewest: number, most: number]>>
}

/** The fewest and most circuits of a kind a scheme takes. */
export const circuitsTaken = (scheme: SchemeId, kind: CircuitKind): readonly [number, number] =>
  (schemes[scheme] as SchemeType).takes[kind] ?? [0, 0]

/** Supplies a system is planned for. */
export const supplies = {
  '230-50': { name: '230 V, 50 Hz', volts: 230, frequency: 50 },
  '120-60': { name: '120 V, 60 Hz', volts: 120, frequency: 60 },
} as const
export type SupplyId = keyof typeof supplies
export const supplyIds = Object.keys(supplies) as [SupplyId, ...SupplyId[]]

/** What Plan asks before it lays out a system. */
export const planBriefSchema = z
  .object({
    scheme: z.enum(schemeIds),
    circuits: z.array(circuitBriefSchema).min(1, 'a system needs at least one circuit').max(12),
    supply: z.enum(supplyIds).default('230-50'),
    /** Which cable runs to each control. Five-core by default, so that no core is missing later. */
    cable: z.enum(['five-core', 'only-needed']).default('five-core'),
    /** One conductor to a terminal by default, so that one item can be lifted out alone. */
    terminals: z.enum(['separate', 'merged']).default('separate'),
  })
  .superRefine((brief, context) => {
    for (const kind of circuitKindIds) {
      const [least, most] = circuitsTaken(brief.scheme, kind)
      const n = brief.circuits.filter((c) => c.kind === kind).length
      if (n >= least && n <= most) continue
      const wanted = least === most ? `${most}` : least === 0 ? `at most ${most}` : `${least} to ${most}`
      context.addIssue({
        code: 'custom',
        path: ['circuits'],
        message: `${schemes[brief.scheme].name} takes ${wanted} ${circuitKinds[kind]} circuit${most === 1 ? '' : 's'}, not ${n}`,
      })
    }
    const names = brief.circuits.map((c) => c.name.toLowerCase())
    names.forEach((name, i) => {
      if (names.indexOf(name) !== i)
        context.addIssue({
          code: 'custom',
          path: ['circuits', i, 'name'],
          message: `"${brief.circuits[i].name}" is there twice`,
        })
    })
  })
export type PlanBrief = z.infer<typeof planBriefSchema>
