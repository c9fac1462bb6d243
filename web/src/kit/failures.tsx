import type { DeviceType, SymptomText } from '@nobbet/core'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { Failed, Loading } from '../shell/notes'
import { ask } from '../workers/compute'

/** Every fault of a type with what it shows: found by putting it into a whole system, off the main thread. */
export function Failures({ type }: { type: DeviceType }) {
  const { data, error, isPending, refetch } = useQuery({
    queryKey: ['symptoms', type.id, type.version],
    queryFn: () => ask('kit', (api) => api.symptoms(type)),
    staleTime: Infinity,
    networkMode: 'always',
  })
  if (isPending) return <Loading what="what each fault shows" />
  if (error) return <Failed error={error} retry={() => void refetch()} />
  if (data.symptoms.length === 0)
    return (
      <p>No fault of it is in the catalogue{data.example ? '' : ', and no shipped system holds one to watch it on'}.</p>
    )
  const most = Math.max(...data.symptoms.map((s) => s.prior))
  return (
    <ul className="failures">
      {[...data.symptoms]
        .sort((x, y) => y.prior - x.prior)
        .map((symptom) => (
          <Failure key={symptom.fault} symptom={symptom} most={most} example={data.ships ? data.example : undefined} />
        ))}
    </ul>
  )
}

const often = (share: number) => (share > 0.6 ? 'often' : share > 0.25 ? 'at times' : 'seldom')

function Failure({ symptom, most, example }: { symptom: SymptomText; most: number; example?: string }) {
  const { failure, remedy, prior, shows, fault } = symptom
  return (
    <li data-fault={fault}>
      <div className="failure-head">
        <h3>{failure}</h3>
        <span className="often">{often(prior / most)}</span>
      </div>
      {shows.length === 0 ? (
        <p>Nothing shows on the system it was watched on: only a measurement finds it, or another use of the device.</p>
      ) : (
        <dl className="shows">
          {shows.map(({ asked, lines }) => (
            <div key={asked}>
              <dt>{asked}</dt>
              <dd>{lines.join(' · ')}</dd>
            </div>
          ))}
        </dl>
      )}
      <p className="remedy">
        {remedy}{' '}
        {example && (
          <Link to={`/examples/${example}?${new URLSearchParams({ do: `fault=${fault}` })}`}>Put it in and watch</Link>
        )}
      </p>
    </li>
  )
}
