import { shownAnotherWay, type Found, type RunRow } from '@nobbet/core'
import { useMemo, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { put } from './put'
import { placesOf, type NotSo, type NotSoDone } from './row-done'
import { RowLooks } from './row-looks'
import type { RunInHand } from './use-run'
import { outcomeWords } from './words'

const hints: Record<NotSo, string> = {
  'another-way': 'For example: cylinder too hot to call',
  deferred: 'For example: thermostat not fitted yet',
  'left-out': 'For example: no access to the flat above',
}

interface NotSoProps {
  job: string
  hand: RunInHand
  row: RunRow
  how: NotSo
  onDone: (done: NotSoDone) => void
  onBack: () => void
}

/** A row that is not done as it stands: why, and when it will be, or what shows the same. */
export function NotSoPanel({ job, hand, row, how, onDone, onBack }: NotSoProps) {
  const { circuit, rows } = hand
  const [reason, setReason] = useState('')
  const [until, setUntil] = useState('')
  const [found, setFound] = useState<ReadonlyMap<number, Found>>(new Map())
  const [looked, setLooked] = useState(false)
  const looks = useMemo(
    () => (how === 'another-way' && rows ? shownAnotherWay(circuit, rows, row.id) : []),
    [how, circuit, rows, row.id],
  )
  const fits = reason.trim() !== '' && (how !== 'deferred' || until !== '')
  return (
    <Form
      className="not-so"
      aria-label={outcomeWords[how]}
      onSubmit={(event) => {
        event.preventDefault()
        if (!fits) return
        const shown = looked ? looks.map((look, i) => ({ look, found: found.get(i) ?? ('as-expected' as const) })) : []
        onDone({ how, reason: reason.trim(), looks: shown, ...(how === 'deferred' && { until }) })
      }}
    >
      <h3>{outcomeWords[how]}</h3>
      {looks.length > 0 && (
        <>
          <p>
            With the thermostat satisfied, everything else set as above. It shows that the thermostat is fed and holds
            the demand off; not that what it calls for would run.
          </p>
          <p className="next-live">Live reading: only for people competent to take it. Fingers behind the guard.</p>
          <RowLooks
            job={job}
            circuit={circuit}
            looks={looks}
            places={placesOf(circuit, looks)}
            found={found}
            onFound={(i, was) => {
              setFound(put(found, i, was))
              setLooked(true)
            }}
          />
          <Form.Check
            id="read-all"
            checked={looked}
            label="Read so, where nothing else is said"
            onChange={(event) => setLooked(event.target.checked)}
          />
        </>
      )}
      <Form.Control
        aria-label="Why"
        placeholder={hints[how]}
        maxLength={500}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      {how === 'deferred' && (
        <label className="until">
          It will be done on
          <Form.Control
            type="date"
            aria-label="It will be done on"
            value={until}
            onChange={(event) => setUntil(event.target.value)}
          />
        </label>
      )}
      <div className="buttons">
        <Button type="submit" size="lg" disabled={!fits}>
          Write it down
        </Button>
        <Button variant="outline-dark" size="lg" onClick={onBack}>
          Back
        </Button>
      </div>
    </Form>
  )
}
