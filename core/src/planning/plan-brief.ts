import type { Link } from '../installation'
import { CentreTooSmall } from './allocate'
import { NoSuchDevice, TypeDoesNotFit } from './chosen-types'
import { NoSuchCable, TooFewCores } from './cores'
import { refusalsOf, type Refusal } from './refusals'
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
  /** Links that it comes with, and that are to be cut. */
  cuts: number
  /** How many boxes. */
  boxes: number
}

/**
 * A system in every kind of wiring centre, in the order of {@link centreKindIds}: the smallest strip that does comes first. None
 * where something else stands in the way.
 */
export function inCentres(brief: PlanBrief): InCentre[] {
  if (refusalsOf(brief).length > 0 || whyNotLaid({ ...brief, terminals: 'separate' })) return []
  return centreKindIds.map((kind) => inCentre(brief, kind))
}

/** The same in the smallest wiring centre that takes it. */
export const inSmallestCentre = (brief: PlanBrief): PlanBrief => ({
  ...brief,
  terminals: inCentres(brief).find(({ fits }) => fits)?.kind ?? brief.terminals,
})

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
    const own = (is: Link['kind']) => links.filter((link) => link.kind === is && link.between.every(isOwn)).length
    return {
      kind,
      fits: true,
      terminals: [...used].filter(isOwn).length,
      links: own('fitted'),
      cuts: own('cut'),
      boxes: wiringCentres.length,
    }
  } catch (error) {
    if (error instanceof CentreTooSmall)
      return { kind, fits: false, terminals: error.needs, links: 0, cuts: 0, boxes: 1 }
    throw error
  }
}

/** Why a brief whose answers go together cannot be laid out all the same: its wiring centre, or a cable in the wall. */
export function whyNotLaid(brief: PlanBrief): Refusal | undefined {
  try {
    planSystem(brief, 'plan', 'Plan')
    return undefined
  } catch (error) {
    if (error instanceof TooFewCores || error instanceof NoSuchCable)
      return { path: ['inWall', error.cable], message: error.message }
    if (error instanceof NoSuchDevice || error instanceof TypeDoesNotFit)
      return { path: ['types', error.device], message: error.message }
    if (error instanceof CentreTooSmall) return { path: ['terminals'], message: error.message }
    throw error
  }
}

/** What Plan lays out: a brief that it cannot is refused, with the field, the reason, and what would do. */
export const planBriefSchema = briefAnswersSchema.superRefine((brief, context) => {
  // What is refused for itself is not laid out.
  if (context.issues.length > 0) return
  const refusal = whyNotLaid(brief)
  if (!refusal) return
  const { path, message } = refusal
  const does = path[0] === 'terminals' ? inCentres(brief).find(({ fits }) => fits) : undefined
  const instead = does ? `: ${centreKind(does.kind).name} would do` : ''
  context.addIssue({ code: 'custom', path, message: `${message}${instead}` })
})
