import type { TypeDirectory } from '../installation'
import { heatPump, systemBoiler, twoCallBoiler, voltFreeBoiler } from './boiler'
import { boxFuse, fusedSpur, fusedSpurBehindRcd } from './fused-spur'
import { lowVoltageValve, transformer } from './low-voltage'
import { midPositionValve } from './mid-position-valve'
import type { DeviceType } from './primitives'
import { programmer } from './programmer'
import { pump } from './pump'
import { zoneRelay } from './relay'
import { diverterValve, normallyOpenValve } from './spring-valves'
import { suppressor } from './suppressor'
import { cylinderThermostat, roomThermostat, voltFreeThermostat } from './thermostats'
import { threeWireValve } from './three-wire-valve'
import { twoPortValve } from './two-port-valve'

export * from './conditions'
export * from './primitives'

/** Every device type that ships. */
export const deviceTypes: readonly DeviceType[] = [
  fusedSpur,
  fusedSpurBehindRcd,
  boxFuse,
  programmer,
  roomThermostat,
  voltFreeThermostat,
  cylinderThermostat,
  twoPortValve,
  normallyOpenValve,
  midPositionValve,
  diverterValve,
  threeWireValve,
  zoneRelay,
  transformer,
  lowVoltageValve,
  suppressor,
  systemBoiler,
  voltFreeBoiler,
  twoCallBoiler,
  heatPump,
  pump,
]

const byId = new Map(deviceTypes.map((type) => [type.id, type]))

/** The type of that id. Throws where none ships: documents are checked for that when they are parsed. */
export function deviceType(id: string): DeviceType {
  const type = byId.get(id)
  if (!type) throw new Error(`no device type "${id}"`)
  return type
}

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
  inputsOf: (id) => (byId.get(id)?.inputs ?? []).map((input) => input.id),
}
