import type { TypeDirectory } from '../installation'
import { programmeValues, valueProblem } from './controls'
import type { DeviceType } from './primitives'
import { deviceTypes, isShipped, shippedVersion } from './shipped'
import { readDeviceType } from './type-problems'

const byId = new Map(deviceTypes.map((type) => [type.id, type]))

/** What pipes can be joined to on a device of this type. */
const connectionsOf = (type?: DeviceType): string[] => [
  ...new Set(
    (type?.primitives ?? []).flatMap((p) => (p.kind === 'waterway' || p.kind === 'port' ? [p.from, p.to] : [])),
  ),
]

function directoryOf(type: (id: string) => DeviceType | undefined): TypeDirectory {
  const controlOf = (id: string, control: string) => type(id)?.controls.find((c) => c.id === control)
  return {
    including(entries) {
      const brought = new Map<string, DeviceType>()
      const problems = entries.flatMap(({ id, version, definition }, at) => {
        if (definition === undefined) {
          const shipped = shippedVersion(id, version)
          if (shipped) brought.set(id, shipped)
          return []
        }
        const read = readDeviceType(definition)
        if ('problems' in read)
          return read.problems.map((p) => ({ at, ...p, field: ['definition', p.field].filter(Boolean).join('.') }))
        if (isShipped(read.type.id))
          return [{ at, field: 'definition.id', reason: `"${read.type.id}" is the id of a type that ships` }]
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
