import { deviceType } from '../catalogue'
import type { PlanBrief } from './brief'
import { briefAnswersSchema } from './brief'
import { planSystem } from './plan'
import { whyNotLaid } from './plan-brief'
import { schemePoints, type SchemePoints } from './scheme-points'
import { refusalsOf } from './refusals'
import { schemeIds, type SchemeId } from './schemes'

/** A scheme for the rest of a brief. */
export interface Suggestion extends SchemePoints {
  scheme: SchemeId
  /** Left out where it serves. */
  whyNot?: string
  /** What it takes, where it serves: valves and heads that are driven, cables to be laid and their cores. */
  takes?: { valves: number; cables: number; cores: number }
}

/**
 * Every scheme for the circuits and fittings of a brief: those that serve first, of these the ones for any boiler first, and then by
 * how many cores are to be laid and terminated.
 */
export function suggestions(brief: PlanBrief): Suggestion[] {
  return schemeIds
    .map((scheme) => suggestion({ ...brief, scheme }))
    .sort((x, y) => rank(x) - rank(y) || (x.takes?.cores ?? 0) - (y.takes?.cores ?? 0))
}

const rank = ({ whyNot, wants }: Suggestion) => (whyNot === undefined ? 0 : 2) + (wants === undefined ? 0 : 1)

function suggestion(brief: PlanBrief): Suggestion {
  const { scheme } = brief
  const points = schemePoints[scheme]
  const said = briefAnswersSchema.safeParse(brief)
  const whyNot = said.success
    ? whyNotLaid(brief)?.message
    : (refusalsOf(brief)[0]?.message ?? said.error.issues[0].message)
  if (whyNot !== undefined) return { scheme, ...points, whyNot }
  const { devices, cables } = planSystem(brief, 'plan', 'Plan')
  return {
    scheme,
    ...points,
    takes: {
      valves: devices.filter(({ type }) => deviceType(type).primitives.some(({ kind }) => kind === 'actuator')).length,
      cables: cables.filter(({ leadOf }) => leadOf === undefined).length,
      cores: cables.reduce((sum, { cores }) => sum + cores.length, 0),
    },
  }
}
