import type { TerminationStage, TerminationStep } from '@nobbet/core'
import { Form } from 'react-bootstrap'
import { Conductor } from '../drawing/conductor'
import { purposeText, stepWords } from './step-words'

interface StepListProps {
  stages: readonly TerminationStage[]
  isDone: (step: TerminationStep) => boolean
  /** Id of the step that is shown large. */
  current?: string
  onTick: (step: TerminationStep, done: boolean) => void
  onPick: (step: TerminationStep) => void
}

/** Every step in order, with a box to tick; so it goes on paper as well. */
export function StepList({ stages, isDone, current, onTick, onPick }: StepListProps) {
  return (
    <div className="step-list">
      {stages.map((stage) => {
        const done = stage.steps.filter(isDone).length
        return (
          <section key={stage.id} className="sheet" aria-label={stage.title}>
            <h2>
              {stage.title}
              <span className="quiet">
                {stage.place !== '' && ` ${stage.place},`} {done} of {stage.steps.length}
              </span>
            </h2>
            <ul>
              {stage.steps.map((step) => (
                <li key={step.id} className={step.id === current ? 'current' : ''} data-step={step.id}>
                  <Form.Check
                    checked={isDone(step)}
                    aria-label={`${stepWords[step.do]} ${step.core?.name ?? step.terminal ?? step.cable ?? ''}`}
                    onChange={(e) => onTick(step, e.target.checked)}
                  />
                  <button type="button" onClick={() => onPick(step)} aria-current={step.id === current || undefined}>
                    <span className="what">{stepWords[step.do]}</span>
                    <span>{step.core && <Conductor colour={step.core.colour} sleeve={step.core.sleeve} />}</span>
                    <span className="where">
                      {step.terminal && <span className="terminal-number">{step.terminal}</span>} {step.legend}
                    </span>
                    <span className="quiet">{purposeText(step)}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )
      })}
    </div>
  )
}
