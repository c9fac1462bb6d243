import { z } from 'zod'

export const circuitBriefSchema = z.object({
  kind: z.enum(['heating', 'hot-water']),
  name: z.string().trim().min(1, 'give the circuit a name').max(40),
})
export type CircuitBrief = z.infer<typeof circuitBriefSchema>

/** What Plan asks before it lays out a two-port system. */
export const planBriefSchema = z
  .object({
    scheme: z.literal('two-port'),
    circuits: z
      .array(circuitBriefSchema)
      .min(1, 'a two-port system needs at least one circuit')
      .max(3, 'Plan lays out one to three circuits'),
    /** Which cable runs to each control. Five-core by default, so that no core is missing later. */
    cable: z.enum(['five-core', 'only-needed']).default('five-core'),
    /** One conductor to a terminal by default, so that one item can be lifted out alone. */
    terminals: z.enum(['separate', 'merged']).default('separate'),
  })
  .superRefine((brief, context) => {
    const hotWater = brief.circuits.filter((c) => c.kind === 'hot-water').length
    if (hotWater > 1)
      context.addIssue({ code: 'custom', path: ['circuits'], message: 'one cylinder, so one hot water circuit' })
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
