import type { Installation, TypeDirectory } from '../installation'
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
import { readDeviceType } from './type-problems'
import { asDeviceType } from './type-schema'
import { manifoldController, thermalHead } from './underfloor'
import { fanConvector, immersionHeater } from './water-loads'

export * from './conditions'
export * from './controls'
export * from './parts'
export * from './type-problems'
export { deviceTypeJsonSchema, deviceTypeSchema, typeFormat } from './type-schema'
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

/** The type of that id as an installation has it: one it brings itself, else one that ships. Throws where there is neither. */
export function typeIn(installation: Pick<Installation, 'types'>, id: string): DeviceType {
  let brought = broughtBy.get(installation.types)
  if (!brought) {
    // What a document brings was read and found whole when the document was parsed.
    brought = new Map(
      installation.types.flatMap((t) => (t.definition ? [[t.id, asDeviceType(t.definition as never)] as const] : [])),
    )
    broughtBy.set(installation.types, brought)
  }
  return brought.get(id) ?? deviceType(id)
}
const broughtBy = new WeakMap<Installation['types'], Map<string, DeviceType>>()

/** Does a type of that id ship? Those of users are called otherwise. */
export const isShipped = (id: string): boolean => byId.has(id)

/** A type as a document brings it. */
export const typeEntry = (type: DeviceType): Installation['types'][number] => ({
  id: type.id,
  version: type.version,
  ...(isShipped(type.id) ? {} : { definition: { ...type } as Record<string, unknown> }),
})

/** What pipes can be joined to on a device of this type. */
const connectionsOf = (type?: DeviceType): string[] => [
  ...new Set(
    (type?.primitives ?? []).flatMap((p) => (p.kind === 'waterway' || p.kind === 'port' ? [p.from, p.to] : [])),
  ),
]

function directoryOf(type: (id: string) => DeviceType | undefined): TypeDirectory {
  const controlOf = (id: string, control: string) => type(id)?.controls.find((c) => c.id === control)
  return {
    including(definitions) {
      const brought = new Map<string, DeviceType>()
      const problems = definitions.flatMap((definition, at) => {
        const read = readDeviceType(definition)
        if ('problems' in read) return read.problems.map((p) => ({ at, ...p }))
        if (isShipped(read.type.id))
          return [{ at, field: 'id', reason: `"${read.type.id}" is the id of a type that ships` }]
        brought.set(read.type.id, read.type)
        return []
      })
      return { types: directoryOf((id) => brought.get(id) ?? type(id)), problems }
    },
    terminalsOf: (id) =>
      type(id)
        ?.terminals.filter((t) => !t.internal)
        .map((t) => t.id),
    versionOf: (id) => type(id)?.version,
    contactsOf: (id) =>
      (type(id)?.primitives ?? []).filter((p) => p.kind === 'contact' || p.kind === 'changeover').map((p) => p.id),
    settingProblem(id, name, value) {
      const setting = type(id)?.settings.find((s) => s.id === name)
      if (!setting) return `there is no setting "${name}"`
      const { min, max, unit } = setting
      return typeof value === 'number' && value >= min && value <= max
        ? undefined
        : `"${value}" is not ${min} to ${max} ${unit}`
    },
    positionProblem: (id, control, value) => valueProblem(controlOf(id, control), control, value),
    programmeProblem(id, name, value) {
      const control = controlOf(id, name)
      if (!control?.timed) return `no clock works "${name}"`
      return programmeValues(control).includes(value) ? undefined : valueProblem(control, name, value)
    },
    connectionsOf: (id) => connectionsOf(type(id)),
    inputsOf: (id) => (type(id)?.inputs ?? []).map((input) => input.id),
  }
}

/** The catalogue as the document's parser sees it. */
export const typeDirectory: TypeDirectory = directoryOf((id) => byId.get(id))
