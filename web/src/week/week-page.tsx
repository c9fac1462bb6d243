import { useParams } from 'react-router'
import { Failed, Loading } from '../shell/notes'
import { useWiring } from '../wiring/use-wiring'
import { WiringTools } from '../wiring/saving-note'
import { Week } from './week'

/** The week of a job: a clock that is changed is a step like any other, kept with the job. */
export function WeekPage() {
  const { job = '' } = useParams()
  const wiring = useWiring(job)
  const { doc, view, become } = wiring
  if (view.error) return <Failed error={view.error} retry={wiring.again} />
  if (!doc) return <Loading what="the wiring" />
  return <Week installation={doc} onChange={(wanted) => become('Clocks', wanted)} tools={<WiringTools {...wiring} />} />
}
