import type { Installation } from '../installation'
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
import { pastTypes } from './past-types'
import { pump } from './pump'
import { busReceiver, smartReceiver, wirelessReceiver } from './receivers'
import { contactor, mainsRelay, switchingRelay, zoneRelay } from './relay'
import { busAndLiveBoiler, busBoiler, electricBoiler, heatPump, ownTemperatureBoiler } from './special-boilers'
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
import { otherLeadValve, sixWireValve, twoPortValve } from './two-port-valve'
import { asDeviceType } from './type-schema'
import { manifoldController, thermalHead } from './underfloor'
import { versionsOf } from './versions'
import { fanConvector, immersionHeater } from './water-loads'

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
  otherLeadValve,
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
  busAndLiveBoiler,
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

/** The shipped type of that id in that version; undefined where it is not known here. */
export const shippedVersion = versionsOf(deviceTypes, pastTypes)

const byId = new Map(deviceTypes.map((type) => [type.id, type]))

/** The type of that id. Throws where none ships: documents are checked for that when they are parsed. */
export function deviceType(id: string): DeviceType {
  const type = byId.get(id)
  if (!type) throw new Error(`no device type "${id}"`)
  return type
}

/**
 * The type of that id as an installation has it: one it brings itself, else the one that ships, in the version it was made with.
 * Throws where there is neither.
 */
export function typeIn(installation: Pick<Installation, 'types'>, id: string): DeviceType {
  let types = typesOf.get(installation.types)
  if (!types) {
    // What a document brings was read and found whole when the document was parsed.
    types = new Map(
      installation.types.flatMap((t) => {
        const type = t.definition ? asDeviceType(t.definition) : shippedVersion(t.id, t.version)
        return type ? [[t.id, type] as const] : []
      }),
    )
    typesOf.set(installation.types, types)
  }
  return types.get(id) ?? deviceType(id)
}
const typesOf = new WeakMap<Installation['types'], Map<string, DeviceType>>()

/** Does a type of that id ship? Those of users are called otherwise. */
export const isShipped = (id: string): boolean => byId.has(id)

/** A type as a document brings it. */
export const typeEntry = (type: DeviceType): Installation['types'][number] => ({
  id: type.id,
  version: type.version,
  ...(isShipped(type.id) ? {} : { definition: { ...type } }),
})
