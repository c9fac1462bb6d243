import { typeIn, type Control, type Programme } from '../catalogue'
import type { Device, Installation } from '../installation'
import type { Action } from '../simulation'

/** A control that a clock works, on a device: its week as it stands, and whether that is the one it came with. */
export interface TimedWeek {
  device: Device
  control: Control
  programme: Programme
  usual: boolean
}

/** Every control with a week of its own, in document order. */
export function timedWeeks(installation: Installation): TimedWeek[] {
  return installation.devices.flatMap((device) =>
    typeIn(installation, device.type).controls.flatMap((control): TimedWeek[] => {
      if (!control.timed) return []
      const own = device.programme?.[control.id]
      return [{ device, control, programme: own ?? control.timed.usual, usual: own === undefined }]
    }),
  )
}

/** The document with another week in a device's clock; undefined puts back the one it came with. */
export function withProgramme(
  installation: Installation,
  device: string,
  control: string,
  programme: Programme | undefined,
): Installation {
  return changed(installation, device, (d) => {
    const rest = { ...d.programme }
    delete rest[control]
    const all = programme ? { ...rest, [control]: programme.map((s) => ({ ...s })) } : rest
    return { ...d, programme: Object.keys(all).length > 0 ? all : undefined }
  })
}

/** The document with a knob left at another position. */
export const withPosition = (
  installation: Installation,
  device: string,
  control: string,
  value: string | number,
): Installation => changed(installation, device, (d) => ({ ...d, positions: { ...d.positions, [control]: value } }))

function changed(installation: Installation, id: string, change: (device: Device) => Device): Installation {
  return { ...installation, devices: installation.devices.map((d) => (d.id === id ? change(d) : d)) }
}

/** What a person who lives by the clock has set: every channel timed and set-points that suit, unless the document says. */
export function livedIn(installation: Installation): Action[] {
  return installation.devices.flatMap((device) =>
    typeIn(installation, device.type).controls.flatMap((control): Action[] => {
      if (device.positions?.[control.id] !== undefined) return []
      const set = (value: string): Action[] => [{ do: 'set', device: device.id, control: control.id, value }]
      if (control.kind === 'number') return isRoomSetPoint(control) ? set(String(roomSetPoint)) : []
      const timed = control.values.find((v) => v.id === 'timed')
      return control.timed && !control.timed.turns && timed ? set('timed') : []
    }),
  )
}

/** °C that a lived-in room is set to. */
export const roomSetPoint = 20
/** A dial of a room: what it reads is the room. */
export const isRoomSetPoint = (control: Control): boolean =>
  control.kind === 'number' && control.id === 'set' && control.unit === '°C' && control.max === 30

/** A day's steps in order, each with its minute. */
export const stepsOfDay = (programme: Programme, day: number) =>
  programme.filter((s) => s.day === day).sort((x, y) => x.minute - y.minute)

/** The week with one day's steps put in place of what was there; of two at one minute the later given stays. */
export function withDay(
  programme: Programme,
  day: number,
  steps: readonly { minute: number; value: string | number }[],
): Programme {
  const byMinute = new Map(steps.map((s) => [s.minute, s.value]))
  const own = [...byMinute].sort(([x], [y]) => x - y).map(([minute, value]) => ({ day, minute, value }))
  return [...programme.filter((s) => s.day !== day), ...own].sort((x, y) => x.day - y.day || x.minute - y.minute)
}

/** From each step of the week to the next, as spans of one day: what a day's bar shows. What held before goes on into it. */
export function spansOfDay(programme: Programme, day: number): { from: number; to: number; value: string | number }[] {
  if (programme.length === 0) return []
  const order = [...programme].sort((x, y) => x.day - y.day || x.minute - y.minute)
  const before = order.findLast((s) => s.day < day) ?? order[order.length - 1]
  const own = stepsOfDay(programme, day)
  const marks = [{ minute: 0, value: before.value }, ...own]
  return marks.flatMap(({ minute, value }, i) => {
    const to = marks[i + 1]?.minute ?? 24 * 60
    return to > minute ? [{ from: minute, to, value }] : []
  })
}
