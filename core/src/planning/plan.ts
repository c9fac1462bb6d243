import type { Installation } from '../installation'
import type { PlanBrief, SchemeId } from './brief'
import { planLowVoltage } from './low-voltage'
import { planMidPosition } from './mid-position'
import { planTwoPort } from './two-port'

const planners: Record<SchemeId, (brief: PlanBrief, id: string, name: string) => Installation> = {
  'two-port': planTwoPort,
  'mid-position': planMidPosition,
  'low-voltage': planLowVoltage,
}

/** Plans the system a parsed brief describes; returns a parsed document. */
export const planSystem = (brief: PlanBrief, id: string, name: string): Installation =>
  planners[brief.scheme](brief, id, name)
