import type { LeftOpen } from '@nobbet/contract'
import { useEffect, useRef, useState } from 'react'
import { Button } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { judgeAsLeft } from './as-left'
import type { RecordHandle } from './use-record'

interface LeaveForNowProps {
  handle: RecordHandle
  open: LeftOpen
  onDone: () => void
}

const today = () => new Date()
const inDays = (days: number) => new Date(today().getTime() + days * 86_400_000).toISOString().slice(0, 10)

/**
 * A temporary measure: what is left, why, within what limits, at what risk, who was told, until when. Where it leaves another wiring,
 * that goes through all states first, and a dangerous one is not left.
 */
export function LeaveForNow({ handle, open, onDone }: LeaveForNowProps) {
  const { state, store } = handle
  const [said, setSaid] = useState({
    what: open.by === 'hunt' ? `Not put back yet. ${open.text}` : open.text,
    why: '',
    limits: '',
    risk: '',
    told: '',
    until: inDays(7),
  })
  const [busy, setBusy] = useState(false)
  const [refused, setRefused] = useState<readonly string[]>()
  const [problem, setProblem] = useState<string>()
  const run = useRef<AbortController>(undefined)
  useEffect(() => () => run.current?.abort(), [])
  const fits =
    said.what.trim() !== '' && said.limits.trim() !== '' && said.told.trim() !== '' && said.until >= inDays(0)

  const leave = async () => {
    if (!state || !fits) return
    setBusy(true)
    setRefused(undefined)
    setProblem(undefined)
    run.current = new AbortController()
    const { signal } = run.current
    try {
      const judgement = await judgeAsLeft(state, open.id, signal)
      if (signal.aborted) return
      if (judgement.refused.length > 0) return setRefused(judgement.refused)
      const revision = judgement.wiring && newId()
      if (judgement.wiring)
        await store.record({
          do: 'keep',
          revision: revision!,
          kind: 'as-left',
          name: `As left until ${said.until}`,
          installation: judgement.wiring,
        })
      await store.record({
        do: 'measure',
        measure: {
          id: newId(),
          what: said.what.trim(),
          limits: said.limits.trim(),
          told: said.told.trim(),
          until: said.until,
          puts: open.id,
          at: new Date().toISOString(),
          ...(said.why.trim() && { why: said.why.trim() }),
          ...(said.risk.trim() && { risk: said.risk.trim() }),
          ...(revision && { revision }),
        },
      })
      onDone()
    } catch (failure) {
      if (!signal.aborted) setProblem((failure as Error).message)
    } finally {
      setBusy(false)
    }
  }
  const field = (key: keyof typeof said, label: string, placeholder = '', most = 300) => (
    <label>
      {label}
      <input
        className="form-control"
        value={said[key]}
        maxLength={most}
        placeholder={placeholder}
        onChange={(event) => setSaid({ ...said, [key]: event.target.value })}
      />
    </label>
  )
  return (
    <form
      className="leave-for-now"
      onSubmit={(event) => {
        event.preventDefault()
        void leave()
      }}
    >
      {field('what', 'What is left')}
      {field('why', 'Why', 'For example: the new head comes on Thursday')}
      {field('limits', 'Its limits', 'For example: heating alone; the cylinder thermostat limits the hot water')}
      {field('risk', 'What may happen', 'For example: the house is heated without the thermostat')}
      {field('told', 'Who was told', 'For example: Mrs Penhale', 200)}
      <label>
        Ends on
        <input
          className="form-control"
          type="date"
          value={said.until}
          min={inDays(0)}
          required
          onChange={(event) => setSaid({ ...said, until: event.target.value })}
        />
      </label>
      {refused && (
        <div className="refused" role="alert">
          <strong>It must not be left so.</strong>
          <ul>
            {refused.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        </div>
      )}
      {problem && (
        <p role="alert" className="refused">
          Not left: what comes of it could not be checked. {problem}
        </p>
      )}
      <span className="buttons">
        <Button type="submit" disabled={busy || !fits}>
          {busy ? 'Going through all states' : 'Leave it until then'}
        </Button>
        <Button
          variant="link"
          onClick={() => {
            run.current?.abort()
            onDone()
          }}
        >
          Back
        </Button>
        {/* It keeps its room: nothing moves under the thumb when it goes. */}
        <span className="quiet" style={{ visibility: fits ? 'hidden' : 'visible' }}>
          Limits and who was told have to be said.
        </span>
      </span>
    </form>
  )
}
