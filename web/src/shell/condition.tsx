import { renamedText } from '@nobbet/core'
import { Clock, TriangleAlert } from 'lucide-react'
import { Button } from 'react-bootstrap'
import { momentText } from '../drawing/dates'
import type { JobStore } from '../store/job-store'
import type { JobView } from '../store/job-view'

/** How what is shown stands to the server, where that is otherwise than it should be; what is known stays beneath. */
export function Condition({ view, store }: { view: JobView; store: JobStore }) {
  const { age, sending, problem, renamed } = view
  // Ids of other things stand on no screen.
  const numbers = renamed.filter(({ path }) => path[path.length - 1] === 'terminals')
  const waits = sending.is === 'kept-here'
  return (
    <>
      {sending.is === 'stopped' && (
        <section className="condition stopped no-print" role="alert" aria-label="Not sent">
          <TriangleAlert size={18} aria-hidden />
          <div>
            <strong>
              {sending.first ? `The server does not take “${sending.first}”.` : 'What you do is not being sent.'}
            </strong>{' '}
            {sending.reason} Everything you have done is kept in this browser.
          </div>
          <Button size="sm" onClick={store.again}>
            Try again
          </Button>
          {sending.first && (
            <Button size="sm" variant="outline-primary" onClick={() => void store.putAside()}>
              Put it aside, send the rest
            </Button>
          )}
        </section>
      )}
      {(age ?? waits) && (
        <p className="condition age no-print" role="status">
          <Clock size={18} aria-hidden />
          <span>
            {age && `As the server had it ${momentText(new Date(age.readAt).toISOString())}. ${age.reason} `}
            {waits && !age && `${sending.reason} `}
            {waits && 'What you do is kept in this browser, and sent when it is back.'}
          </span>
        </p>
      )}
      {numbers.length > 0 && (
        <section className="condition renamed no-print" role="status" aria-label="Numbered otherwise">
          <div>
            <strong>Somebody else had taken a number of yours.</strong>{' '}
            {numbers.map((one) => renamedText(one)).join(' ')} What you put on it has followed.
          </div>
          <Button size="sm" onClick={store.seen}>
            Seen
          </Button>
        </section>
      )}
      {problem && (
        <p className="condition stopped no-print" role="alert">
          <TriangleAlert size={18} aria-hidden /> <span>{problem}</span>
        </p>
      )}
    </>
  )
}
