import type { Feel } from '../water'

export const feelWords: Record<Feel, string> = { hot: 'Hot', warm: 'Warm', cold: 'Cold' }

/** A flow with its unit; against the way it is drawn it says so. */
export function flowText(litresPerHour: number): string {
  if (litresPerHour === 0) return 'no flow'
  const size = Math.abs(litresPerHour)
  const rounded = size >= 100 ? Math.round(size / 10) * 10 : Math.round(size)
  return `${rounded} l/h${litresPerHour < 0 ? ' backwards' : ''}`
}

const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const
export const dayNames = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const

const two = (n: number) => String(n).padStart(2, '0')
/** `06:30` of minutes after midnight. */
export const timeText = (minute: number): string =>
  `${two(Math.floor(minute / 60) % 24)}:${two(Math.floor(minute) % 60)}`
/** `Mon 06:30` of a minute of the week. */
export const weekTimeText = (minuteOfWeek: number): string =>
  `${days[Math.floor(minuteOfWeek / 1440) % 7]} ${timeText(minuteOfWeek % 1440)}`

/** A control's or a sensor's number as people write it: at most one decimal. */
export const numberText = (value: string | number): string =>
  typeof value === 'number' ? String(Math.round(value * 10) / 10) : value
