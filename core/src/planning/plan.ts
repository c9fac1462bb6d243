import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import type { SchemeId } from './schemes'
import { planDiverter } from './diverter'
import { planFanConvector } from './fan-convector'
import { planGravity } from './gravity'
import { withKept } from './kept'
import { planLowVoltage } from './low-voltage'
import { planMidPosition } from './mid-position'
import { planRelayPanel } from './relay-panel'
import { planSingleZone } from './single-zone'
import { planSingleZoneBus } from './single-zone-bus'
import { planSingleZoneElectric } from './single-zone-electric'
import { planSingleZoneMains } from './single-zone-mains'
import { planSingleZoneRelay } from './single-zone-relay'
import { planThreeWireDiverter } from './three-wire-diverter'
import { planTwoPort } from './two-port'

const planners: Record<SchemeId, (brief: PlanBrief, id: string, name: string) => Installation> = {
  'two-port': planTwoPort,
  'mid-position': planMidPosition,
  diverter: planDiverter,
  'three-wire-diverter': planThreeWireDiverter,
  'hot-water-priority': planTwoPort,
  'low-voltage': planLowVoltage,
  'relay-panel': planRelayPanel,
  'single-zone': planSingleZone,
  'fan-convector': planFanConvector,
  gravity: planGravity,
  'more-zones': planTwoPort,
  'single-zone-bus': planSingleZoneBus,
  'single-zone-electric': planSingleZoneElectric,
  'single-zone-mains': planSingleZoneMains,
  'single-zone-relay': planSingleZoneRelay,
  'smart-receiver': planTwoPort,
  unvented: planTwoPort,
}

/** Plans the system a parsed brief describes; returns a parsed document. */
export const planSystem = (brief: PlanBrief, id: string, name: string): Installation =>
  withKept(planners[brief.scheme](brief, id, name), brief.kept ?? {})
