import type { Due } from '@nobbet/contract'
import { createEvents, type EventAttributes } from 'ics'

export interface CalendarDue extends Due {
  job: string
  site: string
  /** Where it is opened. */
  at: string
}

const titles: Record<Due['kind'], string> = {
  measure: 'Temporary measure ends',
  'follow-up': 'Follow-up',
  step: 'Step of the run due',
}

/** Days as an iCalendar text: an event of a whole day for each, with a reminder on the morning before. Throws where none can be made. */
export function calendarOf(dues: readonly CalendarDue[]): string {
  const events = dues.map(({ id, job, kind, what, on, site, at }): EventAttributes => {
    const [year = 0, month = 0, day = 0] = on.split('-').map(Number)
    return {
      // The same thing on the same day is the same event, however often it is taken out.
      uid: `${job}-${id}@nobbet`,
      title: `${titles[kind]}: ${site}`,
      description: what,
      location: site,
      start: [year, month, day],
      duration: { days: 1 },
      url: at,
      productId: 'nobbet',
      alarms: [{ action: 'display', description: what, trigger: { hours: 16, before: true } }],
    }
  })
  const { error, value } = createEvents(events)
  if (error || !value) throw error ?? new Error('no calendar came out')
  return value
}
