import { deferredRows, duesOf, runsOf } from '@nobbet/contract'
import { CalendarPlus } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { v4 as newId } from 'uuid'
import { dayText } from '../drawing/dates'
import { download, fileStem } from '../shell/download'
import { dueText, isOver } from './due-text'
import type { RecordHandle } from './use-record'

/** What is to be done by a day; with temporary measures, as a calendar. */
export function FollowUps({ job, handle }: { job: string; handle: RecordHandle }) {
  const { record, store, state } = handle
  const [what, setWhat] = useState('')
  const [on, setOn] = useState('')
  const [problem, setProblem] = useState<string>()
  const fits = what.trim() !== '' && on !== ''
  const site = state?.document.brief.site ?? ''
  const dues = record ? duesOf(record) : []
  const calendar = async () => {
    const { calendarOf } = await import('./calendar')
    try {
      setProblem(undefined)
      download(
        `${fileStem(site)}-follow-ups.ics`,
        calendarOf(dues.map((due) => ({ ...due, job, site, at: `${location.origin}/jobs/${job}/visit` }))),
        'text/calendar',
      )
    } catch (failure) {
      setProblem(`The calendar was not made: ${(failure as Error).message}`)
    }
  }
  return (
    <section className="sheet" aria-label="Follow-ups">
      <h2>Follow-ups</h2>
      <ul className="plain-list">
        {record?.followUps.map(({ id, ...followUp }) => (
          <li key={id} data-follow-up={id} className={!followUp.done && isOver(followUp.on) ? 'over' : ''}>
            <strong>{followUp.done ? 'Done' : dueText(followUp.on)}</strong> {followUp.what}{' '}
            <span className="quiet">{dayText(new Date(followUp.on))}</span>
            <span className="buttons">
              <Button
                size="sm"
                variant="link"
                onClick={() => {
                  const { done, ...open } = followUp
                  const next = done ? open : { ...open, done: new Date().toISOString() }
                  void store.record({ do: 'follow-up', id, followUp: next })
                }}
              >
                {followUp.done ? 'Not done after all' : 'Done'}
              </Button>
              <Button
                size="sm"
                variant="link"
                onClick={() => void store.record({ do: 'follow-up', id, followUp: null })}
              >
                Take out
              </Button>
            </span>
          </li>
        ))}
        {record &&
          deferredRows(runsOf(record)).map(({ id, row, title, reason, until = '' }) => (
            <li key={id} data-follow-up={id} className={isOver(until) ? 'over' : ''}>
              <strong>{dueText(until)}</strong> Step of the run: {title} <span className="quiet">{reason}</span>
              <span className="buttons">
                <Link className="btn btn-link btn-sm" to={`/jobs/${job}/commission?step=${encodeURIComponent(row)}`}>
                  Do it
                </Link>
              </span>
            </li>
          ))}
      </ul>
      <Form
        className="add-line"
        onSubmit={(event) => {
          event.preventDefault()
          if (!fits) return
          const followUp = { what: what.trim(), on, at: new Date().toISOString() }
          void store.record({ do: 'follow-up', id: newId(), followUp })
          setWhat('')
        }}
      >
        <Form.Control
          aria-label="What is to be done"
          placeholder="What is to be done"
          value={what}
          maxLength={300}
          onChange={(event) => setWhat(event.target.value)}
        />
        <Form.Control
          type="date"
          aria-label="By which day"
          value={on}
          onChange={(event) => setOn(event.target.value)}
        />
        <Button type="submit" disabled={!fits}>
          Add
        </Button>
      </Form>
      {dues.length > 0 && (
        <Button variant="link" className="px-0" onClick={() => void calendar()}>
          <CalendarPlus size={18} aria-hidden /> As a calendar
        </Button>
      )}
      {problem && <p role="alert">{problem}</p>}
    </section>
  )
}
