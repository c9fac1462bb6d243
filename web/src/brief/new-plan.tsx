import { differencesOf, recordedEnds, recordedEndText, type Installation } from '@nobbet/core'
import { useMemo } from 'react'
import { Button } from 'react-bootstrap'
import { DifferenceTable } from '../bench/difference-table'

interface NewPlanProps {
  now: Installation
  plan: Installation
  onLay: () => void
  onBriefOnly: () => void
  onBack: () => void
}

/** A new plan beside what is recorded: what would go, and what to do. Nothing has changed yet. */
export function NewPlan({ now, plan, onLay, onBriefOnly, onBack }: NewPlanProps) {
  const differences = useMemo(() => differencesOf(now, plan), [now, plan])
  const lost = useMemo(
    () => recordedEnds(now).filter((end) => !recordedEnds(plan).some((e) => e.key === end.key)),
    [now, plan],
  )
  const out = differences.devices.filter((d) => d.change === 'removed')
  const gone = differences.conductors.filter((c) => c.change === 'removed')
  return (
    <section className="sheet new-plan" role="alertdialog" aria-label="A new plan">
      <h2>This would be wired otherwise: nothing has changed yet</h2>
      <ul className="would-go">
        <li>
          <strong>{lost.length === 1 ? '1 end' : `${lost.length} ends`}</strong> that somebody has seen or tested would
          go
          {lost.length > 0 && <>: {lost.slice(0, 6).map(recordedEndText).join(', ')}</>}
          {lost.length > 6 && <> and {lost.length - 6} more</>}
        </li>
        <li>
          <strong>{out.length === 1 ? '1 device' : `${out.length} devices`}</strong> would go
          {out.length > 0 && <>: {out.map((d) => d.name).join(', ')}</>}
        </li>
        <li>
          <strong>{gone.length === 1 ? '1 conductor' : `${gone.length} conductors`}</strong> would go,{' '}
          {differences.conductors.length - gone.length} come or lie elsewhere, {differences.same} stay
        </li>
      </ul>
      <div className="new-plan-acts">
        <Button size="lg" onClick={onLay}>
          Lay it out anew, keep the present wiring as a revision
        </Button>
        <Button variant="outline-primary" onClick={onBriefOnly}>
          Save the brief only, leave the wiring
        </Button>
        <Button variant="outline-dark" onClick={onBack}>
          Back to the form
        </Button>
      </div>
      <details>
        <summary>Every difference</summary>
        <DifferenceTable differences={differences} before={now} after={plan} left="Now" right="New plan" />
      </details>
    </section>
  )
}
