import type { Installation } from '../installation'
import type { PlanBrief, SchemeId } from './brief'
import { planDiverter } from './diverter'
import { planHotWaterPriority } from './hot-water-priority'
import { planLowVoltage } from './low-voltage'
import { planMidPosition } from './mid-position'
import { planRelayPanel } from './relay-panel'
import { planSingleZone } from './single-zone'
import { planThreeWireDiverter } from './three-wire-diverter'
import { planTwoPort } from './two-port'

const planners: Record<SchemeId, (brief: PlanBrief, id: string, name: string) => Installation> = {
  'two-port': planTwoPort,
  'mid-position': planMidPosition,
  diverter: planDiverter,
  'three-wire-diverter': planThreeWireDiverter,
  'hot-water-priority': planHotWaterPriority,
  'low-voltage': planLowVoltage,
  'relay-panel': planRelayPanel,
  'single-zone': planSingleZone,
}

/** Plans the system a parsed brief describes; returns a parsed document. */
export const planSystem = (brief: PlanBrief, id: string, name: string): Installation =>
  planners[brief.scheme](brief, id, name)
