import type { TerminationStage, TerminationStep } from '@nobbet/core'
import { Conductor } from '../drawing/conductor'
import { StepActs, type StepActsProps } from './step-acts'
import { purposeText, stepWords } from './step-words'

interface StepCardProps extends StepActsProps {
  stage: TerminationStage
  step: TerminationStep
  number: number
  of: number
}

/** One step, to be read at arm's length in a dark cupboard. */
export function StepCard({ stage, step, number, of, ...acts }: StepCardProps) {
  return (
    <section className="sheet step-card no-print" aria-label="This step">
      <p className="step-where">
        {stage.title}
        {stage.place !== '' && <span className="quiet">, {stage.place}</span>}
      </p>
      <p className="step-do">{stepWords[step.do]}</p>
      {step.core && (
        <p className="step-core">
          <Conductor colour={step.core.colour} sleeve={step.core.sleeve} />
        </p>
      )}
      {step.cable && <p className="step-cable">{step.cable}</p>}
      {step.terminal && (
        <p className="step-terminal">
          <span className="big-terminal">{step.terminal}</span> {step.legend}
        </p>
      )}
      <p className="step-purpose">{purposeText(step)}</p>
      <StepActs {...acts} />
      <p className="quiet mb-0">
        Step {number} of {of}
      </p>
    </section>
  )
}
