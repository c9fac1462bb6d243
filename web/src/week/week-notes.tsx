import {
  formatAction,
  weekTimeText,
  type Action,
  type Installation,
  type Scenario,
  type WeekNote,
  type WeekResult,
} from '@nobbet/core'
import { Link, useParams } from 'react-router'

interface WeekNotesProps {
  installation: Installation
  result: WeekResult
  actions: readonly Action[]
  scenario: Scenario
}

/** What went wrong in the week, each with the way to the moment itself in Trace. */
export function WeekNotes({ installation, result, actions, scenario }: WeekNotesProps) {
  const { job, example } = useParams()
  const base = job ? `/jobs/${job}/trace` : `/examples/${example}`
  const at = (minute: number) => {
    const before = Math.max(0, Math.floor(minute) - 1)
    const all: Action[] = [
      ...actions,
      { do: 'clock', minuteOfWeek: 0 },
      { do: 'heat', scenario },
      { do: 'wait', ms: before * 60_000 },
    ]
    return `${base}?${new URLSearchParams([...all.map((a) => ['do', formatAction(a)]), ['side', 'water']])}`
  }
  if (result.notes.length === 0)
    return <p className="week-fine">Nothing out of the ordinary: no lockout, nothing warms unasked.</p>
  return (
    <ul className="week-notes">
      {result.notes.slice(0, 12).map((note, i) => (
        <li key={i} className="alarm">
          <strong>{weekTimeText(note.minute)}</strong> {textOf(installation, note)}{' '}
          <Link to={at(note.minute)}>See it in Trace</Link>
        </li>
      ))}
      {result.notes.length > 12 && <li>and {result.notes.length - 12} more</li>}
    </ul>
  )
}

const minutesText = (minutes: number) =>
  minutes >= 90 ? `${Math.round(minutes / 6) / 10} h in all` : `${Math.round(minutes)} min in all`

function textOf({ devices, intent }: Installation, note: WeekNote): string {
  const name = (id: string) => devices.find((d) => d.id === id)?.name ?? id
  switch (note.note) {
    case 'lockout':
      return `${name(note.device)} locks itself out.`
    case 'limit':
      return `${name(note.device)} trips: too hot.`
    case 'fuse':
      return `A fuse blows in ${name(note.device)}.`
    case 'burnt':
      return `Something burns out in ${name(note.device)}.`
    case 'unasked':
      return `${intent.demands.find((d) => d.id === note.demand)?.name} warms unasked, ${minutesText(note.minutes)}.`
    case 'dead-head':
      return `${name(note.device)} runs against shut valves, ${minutesText(note.minutes)}.`
    case 'hunting':
      return 'It hunts: the same states come round again and again. The week was followed no further.'
  }
}
