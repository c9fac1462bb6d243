import { z } from 'zod'

export const circuitBriefSchema = z.object({
  kind: z.enum(['heating', 'hot-water']),
  name: z.string().trim().min(1, 'give the circuit a name').max(40),
})
export type CircuitBrief = z.infer<typeof circuitBriefSchema>

/** The schemes Plan lays out, by what they are, with how many circuits of each kind they take. */
export const schemes = {
  'two-port': {
    name: 'Two-port',
    about: 'one valve to each circuit',
    heating: [0, 8],
    hotWater: [0, 1],
  },
  'mid-position': {
    name: 'Mid-position',
    about: 'one three-port valve for heating and hot water',
    heating: [1, 1],
    hotWater: [1, 1],
  },
  diverter: {
    name: 'Diverter, spring return',
    about: 'hot water first, one three-port valve',
    heating: [1, 1],
    hotWater: [1, 1],
  },
  'three-wire-diverter': {
    name: 'Heat pump with a three-wire diverter',
    about: 'hot water first, the heat pump drives its valve both ways',
    heating: [1, 1],
    hotWater: [1, 1],
  },
  'hot-water-priority': {
    name: 'Hot-water priority',
    about: 'two calls at two flow temperatures, a normally open valve before all heating',
    heating: [1, 6],
    hotWater: [1, 1],
  },
  'low-voltage': {
    name: 'Low voltage, end-switch call',
    about: '24 V valves; their end switches call the boiler',
    heating: [1, 8],
    hotWater: [0, 0],
  },
  'relay-panel': {
    name: 'Low voltage, relay panel',
    about: 'a relay to each zone feeds the valve and calls the boiler',
    heating: [1, 8],
    hotWater: [0, 0],
  },
  'single-zone': {
    name: 'Single zone, volt-free call',
    about: 'one thermostat straight to the boiler',
    heating: [1, 1],
    hotWater: [0, 0],
  },
} as const satisfies Record<string, SchemeType>
export type SchemeId = keyof typeof schemes
export const schemeIds = Object.keys(schemes) as [SchemeId, ...SchemeId[]]

interface SchemeType {
  name: string
  /** What stands behind its name when it is offered. */
  about: string
  /** Fewest and most circuits. */
  heating: readonly [number, number]
  hotWater: readonly [number, number]
}

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
    const scheme: SchemeType = schemes[brief.scheme]
    for (const [kind, label, [least, most]] of [
      ['heating', 'heating', scheme.heating],
      ['hot-water', 'hot water', scheme.hotWater],
    ] as const) {
      const n = brief.circuits.filter((c) => c.kind === kind).length
      if (n >= least && n <= most) continue
      const wanted = least === most ? `${most}` : least === 0 ? `at most ${most}` : `${least} to ${most}`
      context.addIssue({
        code: 'custom',
        path: ['circuits'],
        message: `${scheme.name} takes ${wanted} ${label} circuit${most === 1 ? '' : 's'}, not ${n}`,
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
