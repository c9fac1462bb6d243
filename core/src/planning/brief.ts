import { z } from 'zod'
import { supplies, type SupplyId } from '../catalogue'
import { apartSchema, colourSchema, floorSchema, idSchema, printable, terminalRefSchema } from '../installation'
import { centreKindIds } from './centres'
import { refusalsOf } from './refusals'
import {
  circuitKindIds,
  fittingChoices,
  schemeIds,
  thermostatChoices,
  timedChoices,
  type Fittings,
  type ThermostatChoice,
  type TimedChoice,
} from './schemes'

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
  /** It is to heat while the cylinder is heated. Left out, it may wait. */
  alongside: z.boolean().optional(),
  /** What asks for the zone's heat. Left out, the thermostat its scheme usually has. */
  thermostat: z.enum(Object.keys(thermostatChoices) as [ThermostatChoice, ...ThermostatChoice[]]).optional(),
  /** What times it. Left out, the programmer's channel; of a programmable thermostat itself. */
  timed: z.enum(Object.keys(timedChoices) as [TimedChoice, ...TimedChoice[]]).optional(),
})
export type CircuitBrief = z.infer<typeof circuitBriefSchema>

export const supplyIds = Object.keys(supplies) as [SupplyId, ...SupplyId[]]

const choice = <K extends keyof Fittings>(of: K) => {
  const ids = Object.keys(fittingChoices[of]) as [Fittings[K], ...Fittings[K][]]
  return z.enum(ids, { error: () => `it is ${ids.join(', ')}` }).optional()
}

/**
 * What is terminated first. All are good practice. Links first by default, since nothing else reminds anybody of a link; `mains`: after
 * them line, neutral and earth of all cables together, out of the way of what is switched.
 */
export const firstsDone = ['links', 'supply', 'mains'] as const
export type FirstDone = (typeof firstsDone)[number]

/** What Plan asks before it lays out a system, each answer by itself. */
export const briefShapeSchema = known('a brief of what is fitted', {
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
  /** What is terminated first; links, where it is left out. The wiring is the same. */
  first: z.enum(firstsDone, { error: () => `it is ${firstsDone.join(', ')}` }).optional(),
  /** Whether the programmer has an OFF contact for hot water. Left out, it has. */
  offContact: z.boolean().optional(),
  /** Device types in the place of those that a plan usually has, by the device's id in the plan. */
  types: z
    .record(idSchema, idSchema)
    .refine((types) => Object.keys(types).length <= 40, 'at most 40 devices')
    .optional(),
  /** Cables that are in the wall already, by their id in the plan, and the colours of their cores. */
  inWall: z
    .record(idSchema, z.array(colourSchema).min(2, 'a cable has two cores and more').max(7))
    .refine((cables) => Object.keys(cables).length <= 40, 'at most 40 cables')
    .optional(),
  /** How long cables are, m, by their id in the plan, where it is not as long as usual. Of a cable that the plan has not nothing follows. */
  lengths: z
    .record(idSchema, z.number().min(0.2, 'a cable is 0.2 m and longer').max(200, 'a cable is at most 200 m'))
    .refine((cables) => Object.keys(cables).length <= 60, 'at most 60 cables')
    .optional(),
  /** Where places are, by their id in the plan: what the way to them takes. Of a place that the plan has not nothing follows. */
  places: z
    .record(idSchema, known('a place', { floor: floorSchema.optional(), apartMin: apartSchema.optional() }))
    .refine((places) => Object.keys(places).length <= 60, 'at most 60 places')
    .optional(),
  /** Conductors that stay where they are, whatever else is laid out: an end, written cable.core.0 or cable.core.1, and its terminal. */
  kept: z
    .record(
      z.string().regex(/^[A-Za-z0-9+-]+\.[A-Za-z0-9+-]+\.[01]$/, 'an end is written cable.core.0 or cable.core.1'),
      terminalRefSchema,
    )
    .refine((ends) => Object.keys(ends).length <= 500, 'at most 500 conductors')
    .optional(),
})

/** As {@link briefShapeSchema}, of answers that go together; whether it goes into the wiring centre is found out by laying it out. */
export const briefAnswersSchema = briefShapeSchema.superRefine((brief, context) => {
  for (const { path, message } of refusalsOf(brief)) context.addIssue({ code: 'custom', path, message })
})
export type PlanBrief = z.infer<typeof briefAnswersSchema>
