import { isSoon, type JobSummary } from '@nobbet/contract'
import { schemes, type SchemeId } from '@nobbet/core'
import { Ellipsis } from 'lucide-react'
import { Dropdown } from 'react-bootstrap'
import { Link } from 'react-router'
import { momentText } from '../drawing/dates'
import { lastPlace } from '../shell/last-place'
import { dueText, isOver } from '../visit/due-text'
import { dueWords } from '../visit/words'
import { kindWords } from './words'

export type Row = JobSummary & { unsent?: boolean }

interface JobRowProps {
  job: Row
  /** It was the one that was worked on last, on this device. */
  leftOff: boolean
  onClose: () => void
  onOpenAgain: () => void
  onDelete: () => void
  onSite: () => void
  onFile: () => void
}

/** One job in two lines: where and what, how far it is, what is due; one press from where it was left. */
export function JobRow({ job, leftOff, onClose, onOpenAgain, onDelete, onSite, onFile }: JobRowProps) {
  const place = lastPlace(job.id, job.kind)
  const due = job.status === 'open' && isSoon(job.due, new Date()) ? job.due : undefined
  const open = job.status === 'open'
  return (
    <li className={`sheet ${job.kind} ${job.status} ${due ? 'due' : ''}`} data-job={job.id}>
      <div className="what">
        <div className="site">
          <Link to={`/jobs/${job.id}/${place}`}>{job.site}</Link>
          <span className={`kind ${job.kind}`}>{kindWords[job.kind]}</span>
          {leftOff && <span className="left-off">left off here</span>}
        </div>
        <div className="line">
          {job.match ? <Match text={job.match} /> : job.symptom ? `“${job.symptom}”` : systemText(job)}
        </div>
      </div>
      <div className="stands">
        {due ? (
          <>
            <strong className={isOver(due.on) ? 'over' : ''}>
              {dueWords[due.kind]}: {dueText(due.on)}
            </strong>
            <span className="line">{due.what}</span>
          </>
        ) : (
          <>
            <strong>{standText(job)}</strong>
            <span className="line">
              {job.unsent ? (
                <span className="unsent">Kept in this browser, not sent yet</span>
              ) : (
                `changed ${momentText(job.updatedAt)}`
              )}
            </span>
          </>
        )}
        {due && job.unsent && <span className="unsent">Kept in this browser, not sent yet</span>}
      </div>
      <div className="go">
        <Link className="btn btn-primary" to={`/jobs/${job.id}/${place}`}>
          <span className="go-on">Go on: </span>
          {place[0].toUpperCase() + place.slice(1)}
        </Link>
        <Dropdown align="end">
          <Dropdown.Toggle variant="link" className="more" aria-label={`More of ${job.site}`}>
            <Ellipsis size={20} aria-hidden />
          </Dropdown.Toggle>
          <Dropdown.Menu>
            <Dropdown.Item as="button" onClick={open ? onClose : onOpenAgain}>
              {open ? 'Close' : 'Open again'}
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={onSite}>
              All jobs at this site
            </Dropdown.Item>
            {job.number > 0 && (
              <Dropdown.Item as="button" onClick={onFile}>
                As a file
              </Dropdown.Item>
            )}
            {!open && !job.unsent && job.number > 0 && (
              <Dropdown.Item as="button" onClick={onDelete}>
                Delete
              </Dropdown.Item>
            )}
          </Dropdown.Menu>
        </Dropdown>
      </div>
    </li>
  )
}

const systemText = ({ scheme, circuits }: Row): string =>
  `${schemes[scheme as SchemeId]?.name ?? scheme}: ${circuits.join(', ')}`

/** How far a job is, by what was done to it last in its journey. */
function standText({ visit, left, measures, found, findings, ticks, visits, status }: Row): string {
  if (status === 'closed') return 'Closed'
  if (left > 0) return `${left} to put back`
  if (visit) return `Visit open since ${momentText(visit.at)}`
  if (measures > 0) return measures === 1 ? '1 left for now' : `${measures} left for now`
  if (found) return `Found: ${found}`
  if (findings > 0) return `Hunt, ${findings} look${findings === 1 ? '' : 's'}`
  if (ticks > 0) return `Wiring, ${ticks} step${ticks === 1 ? '' : 's'} done`
  return visits > 0 ? `${visits} visit${visits === 1 ? '' : 's'}` : 'Not begun'
}

/** A stretch of text with the words that were looked for, between ⟦ and ⟧. */
function Match({ text }: { text: string }) {
  return (
    <>
      {text.split('⟦').map((part, i) => {
        const [hit, rest] = i === 0 ? [undefined, part] : part.split('⟧')
        return (
          <span key={i}>
            {hit !== undefined && <mark>{hit}</mark>}
            {rest}
          </span>
        )
      })}
    </>
  )
}
