import { useState } from 'react'
import { Button } from 'react-bootstrap'

const key = (job: string) => `nobbet.isolation.${job}.${new Date().toISOString().slice(0, 10)}`

/** Has the isolation step been acknowledged for today's visit to this job? */
export function useIsolation(job: string): [boolean, () => void] {
  const [done, setDone] = useState(() => {
    try {
      return localStorage.getItem(key(job)) !== null
    } catch {
      return false
    }
  })
  const acknowledge = () => {
    setDone(true)
    try {
      localStorage.setItem(key(job), 'yes')
    } catch {
      // Without storage it is asked again after a reload.
    }
  }
  return [done, acknowledge]
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
  return (
    <>
      {done && <p className="isolation acknowledged no-print">Isolation step acknowledged for today’s visit.</p>}
      <section className={done ? 'isolation d-none d-print-block' : 'isolation'} aria-label="Isolation step">
        <h2>Isolation step, before {before}</h2>
        <ol>
          <li>Isolate every pole. Lock off, or take out the fuse or the plug.</li>
          <li>Prove the tester, prove dead, prove the tester again.</li>
          <li>Beware of a second supply: immersion heater, boiler output.</li>
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
