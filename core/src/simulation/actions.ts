import { houseIds, weatherIds, type HouseId, type Scenario, type WeatherId } from '../heat'

/** Something a person does, or lets pass. Times in milliseconds. */
export type Action =
  | { do: 'set'; device: string; control: string; value: string }
  | { do: 'wait'; ms: number }
  | { do: 'fault'; fault: string }
  | { do: 'mend'; fault: string }
  /** Every clock is set: minutes after Monday's midnight. */
  | { do: 'clock'; minuteOfWeek: number }
  /** A device's own clock shows so many minutes more than it is, to a week either way; 0, it is right. */
  | { do: 'lost-time'; device: string; minutes: number }
  /** Temperatures go their own way in such a house and weather; null, a hand sets them. */
  | { do: 'heat'; scenario: Scenario | null }

/** An action that cannot be read or does not fit the installation; the message is one line for the user. */
export class ActionError extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'ActionError'
  }
}

const unitMs = { ms: 1, s: 1000, min: 60_000, h: 3_600_000 } as const
const longestWaitMs = 7 * 24 * unitMs.h

/**
 * Reads one action as written on a command line or in an address:
 * `DEVICE.CONTROL=VALUE`, `wait=20s` (ms, s, min, h), `fault=NAME`, `mend=NAME`, `clock=mon-06:30`, `lost-time=DEVICE/720` (minutes),
 * `heat=semi/winter`, `heat=off`.
 * Throws {@link ActionError}. Whether device, control and fault exist is the simulation's to say.
 */
export function parseAction(text: string): Action {
  const eq = text.indexOf('=')
  const left = text.slice(0, eq).trim()
  const right = text.slice(eq + 1).trim()
  if (eq < 1 || right === '')
    throw new ActionError(`"${text}" is not an action: write DEVICE.CONTROL=VALUE or wait=20s`)
  if (left === 'wait') {
    const match = /^(\d+(?:\.\d+)?)(ms|s|min|h)$/.exec(right)
    if (!match) throw new ActionError(`"${right}" is not a time: write a number and ms, s, min or h, for example 20s`)
    const ms = Math.round(Number(match[1]) * unitMs[match[2] as keyof typeof unitMs])
    if (ms > longestWaitMs) throw new ActionError(`"${right}" is too long: a wait is at most 168h`)
    return { do: 'wait', ms }
  }
  if (left === 'fault' || left === 'mend') return { do: left, fault: right }
  if (left === 'clock') return { do: 'clock', minuteOfWeek: parseClock(right) }
  if (left === 'lost-time') return parseLostTime(right)
  if (left === 'heat') return { do: 'heat', scenario: parseScenario(right) }
  const dot = left.indexOf('.')
  if (dot < 1 || dot === left.length - 1)
    throw new ActionError(`"${left}" names no control: write DEVICE.CONTROL, for example programmer.heating`)
  return { do: 'set', device: left.slice(0, dot), control: left.slice(dot + 1), value: right }
}

export const dayIds = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const

/** Minutes after Monday's midnight of `mon-06:30`. Throws {@link ActionError}. */
function parseClock(text: string): number {
  const match = /^([a-z]{3})-(\d{1,2}):(\d{2})$/.exec(text.toLowerCase())
  const day = match ? dayIds.findIndex((d) => d === match[1]) : -1
  const [hour, minute] = match ? [Number(match[2]), Number(match[3])] : [24, 60]
  if (day < 0 || hour > 23 || minute > 59)
    throw new ActionError(`"${text}" is not a time of the week: write a day and a time, for example mon-06:30`)
  return (day * 24 + hour) * 60 + minute
}

function parseLostTime(text: string): Action {
  const match = /^([^/]+)\/(-?\d{1,5})$/.exec(text)
  const minutes = Number(match?.[2])
  if (!match?.[1] || Math.abs(minutes) >= 7 * 24 * 60)
    throw new ActionError(`"${text}" is no clock and minutes: write DEVICE/720, at most a week either way`)
  return { do: 'lost-time', device: match[1], minutes }
}

/** A minute of the week as {@link parseAction} reads it, `mon-06:30`. */
export function formatClock(minuteOfWeek: number): string {
  const whole = Math.floor(minuteOfWeek)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${dayIds[Math.floor(whole / 1440) % 7]}-${two(Math.floor(whole / 60) % 24)}:${two(whole % 60)}`
}

function parseScenario(text: string): Scenario | null {
  if (text === 'off') return null
  const [house, weather] = text.split('/')
  if (!houseIds.includes(house as HouseId) || !weatherIds.includes(weather as WeatherId))
    throw new ActionError(
      `"${text}" is no house and weather: write one of ${houseIds.join(', ')}, a stroke, and one of ${weatherIds.join(', ')}; or off`,
    )
  return { house: house as HouseId, weather: weather as WeatherId }
}

/** Writes an action so that {@link parseAction} reads the same back. */
export function formatAction(action: Action): string {
  switch (action.do) {
    case 'set':
      return `${action.device}.${action.control}=${action.value}`
    case 'wait':
      return action.ms % 1000 === 0 ? `wait=${action.ms / 1000}s` : `wait=${action.ms}ms`
    case 'clock':
      return `clock=${formatClock(action.minuteOfWeek)}`
    case 'lost-time':
      return `lost-time=${action.device}/${action.minutes}`
    case 'heat':
      return `heat=${action.scenario ? `${action.scenario.house}/${action.scenario.weather}` : 'off'}`
    default:
      return `${action.do}=${action.fault}`
  }
}

/** Actions up to a moment, ms since the start: of a wait that goes beyond it, what comes before. */
export function actionsUntil(acts: readonly Action[], ms: number): Action[] {
  const until: Action[] = []
  let time = 0
  for (const act of acts) {
    if (act.do !== 'wait') until.push(act)
    else if (time + act.ms <= ms) {
      until.push(act)
      time += act.ms
    } else {
      if (ms > time) until.push({ do: 'wait', ms: ms - time })
      break
    }
  }
  return until
}
