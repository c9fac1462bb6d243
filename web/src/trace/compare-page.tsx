import {
  compile,
  formatAction,
  partingsOf,
  recordingText,
  signalText,
  signalValueText,
  type Circuit,
  type Recording,
} from '@nobbet/core'
import type { KeptScenario } from '@nobbet/contract'
import { useMemo } from 'react'
import { Form } from 'react-bootstrap'
import { Link, useParams, useSearchParams } from 'react-router'
import { errorText } from '../api/client'
import { Failed, Loading } from '../shell/notes'
import { Progress } from '../shell/progress'
import { useJob } from '../store/use-job'
import { actionsOf, isFault } from './session'
import { Signals, sinceText } from './signals'
import { useLeftSitting } from './use-desk'
import { useRecording } from './use-recording'

/** What can be compared, by the name it has in the address. */
interface History {
  id: string
  name: string
  acts: readonly string[]
}

/** Two histories one over the other: kept ones, the one in Trace, or either of them with nothing put in that is wrong. */
export function ComparePage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  const left = useLeftSitting(job)
  const wiring = state?.document.wiring
  const circuit = useMemo(() => wiring && compile(wiring), [wiring])
  if (error) return <Failed error={error} retry={store.again} />
  if (!circuit || !state) return <Loading what="the wiring" />
  if (!left) return <Loading what="what was done in Trace" />
  return <Compare job={job} circuit={circuit} histories={historiesOf(state.scenarios, left.do ?? [])} />
}

function historiesOf(scenarios: readonly KeptScenario[], now: readonly string[]): History[] {
  const all: History[] = [{ id: 'trace', name: 'Trace as it is', acts: now }, ...scenarios]
  return all.flatMap(({ id, name, acts }) => {
    const read = actionsOf(acts).actions
    const whole = read.filter((act) => !isFault(act)).map(formatAction)
    return whole.length < read.length
      ? [
          { id, name, acts },
          { id: `${id}-whole`, name: `${name}, with nothing wrong`, acts: whole },
        ]
      : [{ id, name, acts }]
  })
}

function Compare({ job, circuit, histories }: { job: string; circuit: Circuit; histories: History[] }) {
  const [search, setSearch] = useSearchParams()
  const one = histories.find((h) => h.id === search.get('one')) ?? histories[0]
  const other =
    histories.find((h) => h.id === search.get('other')) ??
    histories.find((h) => h.id === `${one.id}-whole`) ??
    histories.find((h) => h !== one) ??
    one
  const set = (which: 'one' | 'other', id: string) =>
    setSearch({ one: one.id, other: other.id, [which]: id }, { replace: true })
  return (
    <main className="page compare">
      <h1>Two histories side by side</h1>
      <p>
        <Link to={`/jobs/${job}/trace`}>Back to Trace</Link>
      </p>
      {histories.length < 2 && (
        <p className="sheet p-3">
          There is one history only. Do something in Trace, keep it under a name, and do it again another way; or put a
          fault in: what it does without is compared with it.
        </p>
      )}
      <Both circuit={circuit} one={one} other={other}>
        {(which) => (
          <Form.Select
            aria-label={which === 'one' ? 'Above' : 'Below'}
            value={(which === 'one' ? one : other).id}
            onChange={(event) => set(which, event.target.value)}
          >
            {histories.map((h) => (
              <option key={h.id} value={h.id}>
                {h.name}
              </option>
            ))}
          </Form.Select>
        )}
      </Both>
    </main>
  )
}

interface BothProps {
  circuit: Circuit
  one: History
  other: History
  children: (which: 'one' | 'other') => React.ReactNode
}

function Both({ circuit, one, other, children }: BothProps) {
  const above = useRecording(circuit.installation, one.acts)
  const below = useRecording(circuit.installation, other.acts)
  const partings = useMemo(
    () => (above.data && below.data ? partingsOf(above.data, below.data) : undefined),
    [above.data, below.data],
  )
  const also = useMemo(() => partings?.map(({ signal }) => signal.id), [partings])
  const shown = ({ data, error }: ReturnType<typeof useRecording>) =>
    error ? (
      <p className="alarm">It could not be worked out: {errorText(error)}</p>
    ) : data ? (
      <Told circuit={circuit} recording={data} also={also} />
    ) : (
      <Progress label="History" />
    )
  return (
    <>
      <section className="sheet p-3" aria-label="The one">
        {children('one')}
        {shown(above)}
      </section>
      <section className="sheet p-3 partings" aria-label="Where they part">
        <h2>Where they part</h2>
        {partings?.length === 0 && <p>Nowhere: both do the same, as long as both last.</p>}
        <ol>
          {partings?.map(({ signal, at, one: a, other: b }) => (
            <li key={signal.id}>
              <span className="mono">{sinceText(at)}</span> {signalText(circuit, signal)}:{' '}
              <strong>{signalValueText(circuit, signal, a)}</strong> above,{' '}
              <strong>{signalValueText(circuit, signal, b)}</strong> below
            </li>
          ))}
        </ol>
      </section>
      <section className="sheet p-3" aria-label="The other">
        {children('other')}
        {shown(below)}
      </section>
    </>
  )
}

function Told({ circuit, recording, also }: { circuit: Circuit; recording: Recording; also?: string[] }) {
  if (recording.to === 0) return <p className="quiet m-2">No time has passed in it.</p>
  return (
    <>
      <p className="mb-1">{recordingText(circuit, recording).join(' · ')}</p>
      <Signals circuit={circuit} recording={recording} also={also} />
    </>
  )
}
