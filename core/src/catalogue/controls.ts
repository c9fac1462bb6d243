import type { Control, DeviceType } from './primitives'

/** Why a control cannot stand at a value; undefined where it can. `name` is what was asked for. */
export function valueProblem(
  control: Control | undefined,
  name: string,
  value: string | number | boolean,
): string | undefined {
  if (!control) return `there is no control "${name}"`
  if (control.kind === 'choice')
    return control.values.some((v) => v.id === value)
      ? undefined
      : `"${value}" is not one of ${control.values.map((v) => v.id).join(', ')}`
  return typeof value === 'number' && value >= control.min && value <= control.max
    ? undefined
    : `"${value}" is not ${control.min} to ${control.max} ${control.unit}`
}

/** The values a clock can be given for a control that has choices: what it turns it to, or on and off. */
export function programmeValues(control: Control): (string | number)[] {
  if (control.kind === 'number') return []
  if (!control.timed?.turns) return ['on', 'off']
  return control.values.map((v) => v.id).filter((id) => !control.timed!.leaves?.includes(id))
}

/** Has a device a clock of its own? When people draw off goes by none. */
export const hasClock = ({ controls, primitives }: Pick<DeviceType, 'controls' | 'primitives'>): boolean =>
  controls.some(
    ({ id, timed }) => timed && !primitives.some((part) => part.kind === 'store' && part.draws.control === id),
  )
