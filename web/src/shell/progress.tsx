import type { ReactNode } from 'react'
import { Button } from 'react-bootstrap'

interface RunningProps {
  label: string
  share?: number
  onStop: () => void
  /** How far it is, in words. */
  children: ReactNode
}

/** A long run under way, which can be stopped. */
export function Running({ label, share, onStop, children }: RunningProps) {
  return (
    <div className="run-progress">
      <Progress label={label} share={share} />
      <span role="status">{children}</span>
      <Button size="sm" variant="outline-dark" onClick={onStop}>
        Stop
      </Button>
    </div>
  )
}

/** How far a long run is; without a share, that it goes on. */
export function Progress({ label, share }: { label: string; share?: number }) {
  return <progress className="run-bar" aria-label={label} max={1} value={share} />
}
