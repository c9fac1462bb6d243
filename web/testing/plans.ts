import { planBriefSchema, planSystem, type Installation } from '@nobbet/core'

/** A two-port plan in a kind of wiring centre. */
export const plannedIn = (
  terminals: string,
  kinds: readonly string[] = ['heating', 'heating', 'hot-water'],
): Installation =>
  planSystem(
    planBriefSchema.parse({
      scheme: 'two-port',
      circuits: kinds.map((kind, i) => ({ kind, name: `Zone ${i + 1}` })),
      terminals,
    }),
    'p',
    'Plan',
  )
