import { CalendarPlus } from 'lucide-react'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { call, errorText } from '../api/client'
import { download } from '../shell/download'

/** Everything of all open jobs that has a day, as one calendar. */
export function AllDues() {
  const [said, setSaid] = useState<string>()
  const make = async () => {
    setSaid(undefined)
    try {
      const dues = await call('listDues')
      if (dues.length === 0) return setSaid('No open job has anything with a day.')
      const { calendarOf } = await import('../visit/calendar')
      const events = dues.map((due) => ({ ...due, at: `${location.origin}/jobs/${due.job}/visit` }))
      download('follow-ups.ics', calendarOf(events), 'text/calendar')
    } catch (failure) {
      setSaid(`The calendar was not made. ${errorText(failure as Error)}`)
    }
  }
  return (
    <>
      <Button variant="link" className="px-0 mt-3 me-3" onClick={() => void make()}>
        <CalendarPlus size={18} aria-hidden /> Calendar of what is due
      </Button>
      {said && <span role="status">{said}</span>}
    </>
  )
}
