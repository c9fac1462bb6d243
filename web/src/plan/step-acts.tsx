import { Button } from 'react-bootstrap'

export interface StepActsProps {
  done: boolean
  onDone: () => void
  onTakeBack: () => void
  onBack?: () => void
  onNext?: () => void
}

/** What the thumb does with a step: done or not, back, later. */
export function StepActs({ done, onDone, onTakeBack, onBack, onNext }: StepActsProps) {
  return (
    <div className="step-acts">
      {done ? (
        <Button size="lg" variant="outline-primary" onClick={onTakeBack}>
          Done. Take the tick back
        </Button>
      ) : (
        // The next step's button comes where this one was: the second tap of two is not for it.
        <Button size="lg" className="step-done" onClick={({ detail }) => detail < 2 && onDone()}>
          Done
        </Button>
      )}
      <Button variant="outline-dark" onClick={onBack} disabled={!onBack}>
        Back
      </Button>
      <Button variant="outline-dark" onClick={onNext} disabled={!onNext}>
        Later
      </Button>
    </div>
  )
}
