import { waitText } from '@nobbet/core'
import { useEffect, useState } from 'react'

/** What is to be waited for, counted down from a press; nothing waits for it. */
export function Timer({ ms }: { ms: number }) {
  const [since, setSince] = useState<number>()
  const [now, setNow] = useState(0)
  const left = since === undefined ? ms : Math.max(0, ms - (now - since))
  const isRunning = since !== undefined && left > 0
  useEffect(() => {
    if (!isRunning) return
    const timer = setInterval(() => setNow(Date.now()), 250)
    return () => clearInterval(timer)
  }, [isRunning])
  return (
    <div className="row-timer">
      <button
        type="button"
        className="btn btn-outline-dark"
        onClick={() => {
          setNow(Date.now())
          setSince(Date.now())
        }}
      >
        {since === undefined ? `Count ${waitText(ms)}` : 'Count again'}
      </button>
      <progress value={ms - left} max={ms} aria-label="Waited" />
      <span role="status">{since === undefined ? '' : left > 0 ? `${waitText(left)} left` : 'Now look'}</span>
    </div>
  )
}
