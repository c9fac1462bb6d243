import type { TypeDirectory } from '../installation'
import {
  linkedPairBoiler,
  liveOutputBoiler,
  pumpBesideBoiler,
  switchedLineBoiler,
  systemBoiler,
  twoCallBoiler,
  voltFreeBoiler,
} from './boiler'
import { cylinderThermostat, highLimit, poweredCylinderThermostat } from './cylinder-thermostats'
import { automaticBypass, checkValve, cylinder, radiators, towelRails, underfloorLoop } from './emitters'
import { programmeValues, valueProblem } from './controls'
import { boxFuse, fusedSpur, fusedSpurBehindRcd } from './fused-spur'
import { lowVoltageValve, threeScrewValve, transformer } from './low-voltage'
import { midPositionValve } from './mid-position-valve'
import { ownCircuit } from './own-circuit'
import type { DeviceType } from './primitives'
import {
  oneChannelProgrammer,
  ownFeedProgrammer,
  programmer,
  threeChannelProgrammer,
  voltFreeProgrammer,
} from './programmer'
import { pump } from './pump'
import { busReceiver, smartReceiver, wirelessReceiver } from './receivers'
import { contactor, mainsRelay, switchingRelay, zoneRelay } from './relay'
import { busBoiler, electricBoiler, heatPump, ownTemperatureBoiler } from './special-boilers'
import { diverterValve, normallyOpenValve } from './spring-valves'
import { suppressor } from './suppressor'
import {
  frostThermostat,
  pipeThermostat,
  poweredThermostat,
  programmableThermostat,
  roomThermostat,
  twoWireThermostat,
  voltFreeThermostat,
} from './thermostats'
import { threeWireValve } from './three-wire-valve'
import { sixWireValve, twoPortValve } from './two-port-valve'
import { manifoldController, thermalHead } from './underfloor'
import { fanConvector, immersionHeater } from './water-loads'

export * from './conditions'
export * from './controls'
export * from './primitives'

/** Every device type that ships. */
export const deviceTypes: readonly DeviceType[] = [
  fusedSpur,
  fusedSpurBehindRcd,
  boxFuse,
  ownCircuit,
  oneChannelProgrammer,
  programmer,
  threeChannelProgrammer,
  ownFeedProgrammer,
  voltFreeProgrammer,
  wirelessReceiver,
  smartReceiver,
  busReceiver,
  twoWireThermostat,
  roomThermostat,
  voltFreeThermostat,
  poweredThermostat,
  programmableThermostat,
  cylinderThermostat,
  poweredCylinderThermostat,
  highLimit,
  frostThermostat,
  pipeThermostat,
  twoPortValve,
  sixWireValve,
  normallyOpenValve,
  midPositionValve,
  diverterValve,
  threeWireValve,
  lowVoltageValve,
  threeScrewValve,
  thermalHead,
  zoneRelay,
  mainsRelay,
  contactor,
  switchingRelay,
  manifoldController,
  transformer,
  suppressor,
  systemBoiler,
  liveOutputBoiler,
  pumpBesideBoiler,
  switchedLineBoiler,
  twoCallBoiler,
  linkedPairBoiler,
  voltFreeBoiler,
  busBoiler,
  electricBoiler,
  ownTemperatureBoiler,
  heatPump,
  pump,
  fanConvector,
  immersionHeater,
  radiators,
  underfloorLoop,
  towelRails,
  cylinder,
  automaticBypass,
  checkValve,
]

const byId = new Map(deviceTypes.map((type) => [type.id, type]))

/** The type of that id. Throws where none ships: documents are checked for that when they are parsed. */
export function deviceType(id: string): DeviceType {
  const type = byId.get(id)
  if (!type) throw new Error(`no device type "${id}"`)
  return type
}

const controlOf = (type: string, control: string) => byId.get(type)?.controls.find((c) => c.id === control)

/** What pipes can be joined to on a device of this type. */
const connectionsOf = (type?: DeviceType): string[] => [
  ...new Set(
    (type?.primitives ?? []).flatMap((p) => (p.kind === 'waterway' || p.kind === 'port' ? [p.from, p.to] : [])),
  ),
]

/** The catalogue as the document's parser sees it. */
export const typeDirectory: TypeDirectory = {
  terminalsOf: (id) =>
    byId
      .get(id)
      ?.terminals.filter((t) => !t.internal)
      .map((t) => t.id),
  versionOf: (id) => byId.get(id)?.version,
  contactsOf: (id) =>
    (byId.get(id)?.primitives ?? []).filter((p) => p.kind === 'contact' || p.kind === 'changeover').map((p) => p.id),
  positionProblem: (id, control, value) => valueProblem(controlOf(id, control), control, value),
  programmeProblem: (id, name, value) => {
    const control = controlOf(id, name)
    if (!control?.timed) return `no clock works "${name}"`
    return programmeValues(control).includes(value) ? undefined : valueProblem(control, name, value)
  },
  connectionsOf: (id) => connectionsOf(byId.get(id)),
  inputsOf: (id) => (byId.get(id)?.inputs ?? []).map((input) => input.id),
}
