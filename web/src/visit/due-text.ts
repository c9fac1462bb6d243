/** In how many days something ends, in words; over it, by how many. */
export function dueText(on: string, now = new Date()): string {
  const days = Math.round((Date.parse(on) - Date.parse(now.toISOString().slice(0, 10))) / 86_400_000)
  if (days < -1) return `${-days} days over`
  if (days === -1) return 'a day over'
  if (days === 0) return 'today'
  return days === 1 ? 'tomorrow' : `in ${days} days`
}

export const isOver = (on: string, now = new Date()): boolean => on < now.toISOString().slice(0, 10)
