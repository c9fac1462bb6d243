import { openVisit, recordOf, unsettled } from '@nobbet/contract'
import { Link } from 'react-router'
import { clockText, momentText } from '../drawing/dates'
import { useJob } from '../store/use-job'
import { beginVisit } from './begin-visit'
import { TakePhoto } from './take-photo'

/** Which visit is open, wherever in the job one is; a new one starts with one press. */
export function VisitChip({ job }: { job: string }) {
  const { state, store } = useJob(job)
  if (!state) return null
  const record = recordOf(state)
  const visit = openVisit(record)
  if (!visit)
    return (
      <button className="visit-chip none" onClick={() => void beginVisit(store)}>
        <span className="dot" aria-hidden /> <span className="long">Begin a visit</span>
        <span className="short">Visit</span>
      </button>
    )
  const left = unsettled(record).length
  const today = new Date(visit.at).toDateString() === new Date().toDateString()
  return (
    <>
      <TakePhoto store={store} visit={visit.id} />
      <Link className="visit-chip" to={`/jobs/${job}/visit`} title="The visit that is open">
        <span className="dot" aria-hidden />
        <span className="long">Visit since {today ? clockText(visit.at) : momentText(visit.at)}</span>
        {left === 0 && <span className="short">{clockText(visit.at)}</span>}
        {left > 0 && (
          <strong className="count">
            {left} <span className="long">to put back</span>
            <span className="short">back</span>
          </strong>
        )}
      </Link>
    </>
  )
}
