import { openVisit, recordOf, unsettled } from '@nobbet/contract'
import { Link } from 'react-router'
import { clockText, momentText } from '../drawing/dates'
import { useJob } from '../store/use-job'
import { beginVisit } from './begin-visit'

/** Which visit is open, wherever in the job one is; a new one starts with one press. */
export function VisitChip({ job }: { job: string }) {
  const { state, store } = useJob(job)
  if (!state) return null
  const record = recordOf(state)
  const visit = openVisit(record)
  if (!visit)
    return (
      <button className="visit-chip none" onClick={() => void beginVisit(store)}>
        <span className="dot" aria-hidden /> Begin a visit
      </button>
    )
  const left = unsettled(record).length
  const today = new Date(visit.at).toDateString() === new Date().toDateString()
  return (
    <Link className="visit-chip" to={`/jobs/${job}/visit`} title="The visit that is open">
      <span className="dot" aria-hidden /> Visit since {today ? clockText(visit.at) : momentText(visit.at)}
      {left > 0 && <strong className="count">{left} to put back</strong>}
    </Link>
  )
}
