import { daysInBin } from '@nobbet/contract'
import { errorText } from '../api/client'
import { useJobs } from '../api/hooks'
import { momentText } from '../drawing/dates'

const dayMs = 86_400_000

/** Deleted jobs that can still be brought back. */
export function Bin({ back }: { back: (id: string) => void }) {
  const { data, error } = useJobs({ status: 'deleted', find: '', site: '', kind: 'all' })
  const jobs = data?.pages.flatMap((page) => page.jobs) ?? []
  return (
    <section aria-label="Bin">
      <h2 className="mt-3">Bin</h2>
      {error && <p className="quiet">{errorText(error)}</p>}
      <ul className="job-list">
        {jobs.map(({ id, site, deletedAt = '' }) => (
          <li key={id} className="sheet closed">
            <div>
              <div className="site">{site}</div>
              <div className="meta">
                deleted {momentText(deletedAt)} · gone for good{' '}
                {momentText(new Date(Date.parse(deletedAt) + daysInBin * dayMs).toISOString())}
              </div>
            </div>
            <div className="go">
              <button className="btn btn-outline-primary" onClick={() => back(id)}>
                Bring back
              </button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  )
}
