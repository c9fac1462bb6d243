import { CentreTooSmall } from './allocate'
import { briefAnswersSchema, type PlanBrief } from './brief'
import { centreKind, centreKindIds, type CentreKindId } from './centres'
import { planSystem } from './plan'

/** What a system would be in one kind of wiring centre. */
export interface InCentre {
  kind: CentreKindId
  fits: boolean
  /** Terminals that it takes: those with conductors in them, or those it would need where there are fewer. */
  terminals: number
  /** Links to be fitted by hand. */
  links: number
}

/** A system in every kind of wiring centre, in the order of {@link centreKindIds}: the smallest strip that does comes first. */
export const inCentres = (brief: PlanBrief): InCentre[] => centreKindIds.map((kind) => inCentre(brief, kind))

function inCentre(brief: PlanBrief, kind: CentreKindId): InCentre {
  try {
    const { wiringCentres, cables, links } = planSystem({ ...brief, terminals: kind }, 'plan', 'Plan')
    const used = new Set(
      cables.flatMap(({ cores }) =>
        cores.flatMap(({ ends }) => ends.flatMap((end) => ('terminal' in end ? [end.terminal] : []))),
      ),
    )
    const owners = wiringCentres.map(({ id }) => id)
    const isOwn = (ref: string) => owners.includes(ref.slice(0, ref.indexOf('.')))
    return {
      kind,
      fits: true,
      terminals: [...used].filter(isOwn).length,
      links: links.filter((link) => link.kind === 'fitted' && link.between.every(isOwn)).length,
    }
  } catch (error) {
    if (error instanceof CentreTooSmall) return { kind, fits: false, terminals: error.needs, links: 0 }
    throw error
  }
}

/** What Plan lays out: a brief that it cannot is refused, with the field, the reason, and what would do. */
export const planBriefSchema = briefAnswersSchema.superRefine((brief, context) => {
  // What is refused for itself is not laid out.
  if (!briefAnswersSchema.safeParse(brief).success) return
  const own = inCentre(brief, brief.terminals)
  if (own.fits) return
  const does = inCentres(brief).find(({ fits }) => fits)
  const instead = does ? `take a ${centreKind(does.kind).name.toLowerCase()}` : 'none would do'
  const { message } = new CentreTooSmall(brief.terminals, own.terminals)
  context.addIssue({ code: 'custom', path: ['terminals'], message: `${message}: ${instead}` })
})
