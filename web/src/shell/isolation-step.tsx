import { openVisit, recordOf } from '@nobbet/contract'
import { typeIn, type Installation } from '@nobbet/core'
import { Button } from 'react-bootstrap'
import { useJob } from '../store/use-job'
import { beginVisit } from '../visit/begin-visit'

/** Has the isolation step been acknowledged for the visit that is open? Acknowledging it begins a visit where none is. */
export function useIsolation(job: string): [boolean, () => void] {
  const { state, store } = useJob(job)
  const visit = state && openVisit(recordOf(state))
  const acknowledge = async () => {
    await store.record({ do: 'isolated', visit: visit?.id ?? (await beginVisit(store)) })
  }
  return [visit?.isolated !== undefined, () => void acknowledge()]
}

/** Where more than one thing supplies an installation, which: each has to be isolated by itself. Undefined where one does. */
export function severalSupplies(wiring: Installation | undefined): string | undefined {
  const names = (wiring?.devices ?? []).flatMap(({ type, name }) =>
    wiring && typeIn(wiring, type).primitives.some(({ kind }) => kind === 'source') ? [name] : [],
  )
  return names.length > 1 ? `More than one supply: ${names.join(', ')}. Each off and locked.` : undefined
}

/** Said where a hand would open an enclosure; acknowledged once for the visit; always in print. */
export function IsolationStep({
  job,
  before,
  onAcknowledged,
}: {
  job: string
  before: string
  onAcknowledged?: () => void
}) {
  const [done, acknowledge] = useIsolation(job)
  const { state } = useJob(job)
  return (
    <>
      {done && <p className="isolation acknowledged no-print">Isolation step acknowledged for this visit.</p>}
      <section className={done ? 'isolation d-none d-print-block' : 'isolation'} aria-label="Isolation step">
        <h2>Isolation step, before {before}</h2>
        <ol>
          <li>Isolate every pole. Lock off, or take out the fuse or the plug.</li>
          <li>Prove the tester, prove dead, prove the tester again.</li>
          <li>
            {severalSupplies(state?.document.wiring) ?? 'Beware of a second supply: immersion heater, boiler output.'}
          </li>
        </ol>
        <Button
          variant="danger"
          className="no-print"
          onClick={() => {
            acknowledge()
            onAcknowledged?.()
          }}
        >
          Acknowledge for this visit
        </Button>
      </section>
    </>
  )
}
