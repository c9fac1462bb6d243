import { firstsDone, terminationOrder, type TerminationStep } from '@nobbet/core'
import { useMemo } from 'react'
import { Button } from 'react-bootstrap'
import { Link, useParams, useSearchParams } from 'react-router'
import { IsolationStep } from '../shell/isolation-step'
import { Failed, Loading } from '../shell/notes'
import { useJob } from '../store/use-job'
import { firsts } from './firsts'
import { StepCard } from './step-card'
import { StepList } from './step-list'

/** The wiring as steps for a screwdriver: one at a time, large; what is done stays ticked. */
export function StepsPage() {
  const { job = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  const { state, error, store } = useJob(job)
  const usual = state?.document.brief.fitted.first ?? 'links'
  const first = firstsDone.find((one) => one === search.get('first')) ?? usual
  const wiring = state?.document.wiring
  const stages = useMemo(() => (wiring ? terminationOrder(wiring, first) : []), [wiring, first])
  if (error) return <Failed error={error} retry={store.again} />
  if (!state || !wiring) return <Loading what="the steps" />

  const steps = stages.flatMap((stage) => stage.steps.map((step) => ({ stage, step })))
  const ticked = new Set(state.ticks)
  const isDone = ({ id }: TerminationStep) => ticked.has(id)
  const asked = steps.findIndex(({ step }) => step.id === search.get('step'))
  const open = steps.findIndex(({ step }) => !isDone(step))
  const at = asked >= 0 ? asked : open
  const current = steps[at]
  const done = steps.filter(({ step }) => isDone(step)).length

  const put = (key: string, value: string | undefined) => {
    const next = new URLSearchParams(search)
    if (value === undefined) next.delete(key)
    else next.set(key, value)
    setSearch(next, { replace: true })
  }
  const tick = (step: TerminationStep, is: boolean) => void store.record({ do: 'tick', step: step.id, done: is })
  const goTo = (index: number) => put('step', steps[index]?.step.id)
  /** The next one that is not done, from here round. */
  const finish = () => {
    tick(current.step, true)
    const next = [...steps.slice(at + 1), ...steps.slice(0, at)].find(({ step }) => !isDone(step))
    put('step', next?.step.id)
  }

  return (
    <main className="page">
      <h1>
        Steps<span className="d-none d-print-inline">: {wiring.name}</span>
      </h1>
      <div className="steps-head">
        <strong className="steps-count">
          {done} of {steps.length} done
        </strong>
        <div className="choices no-print" role="group" aria-label="What comes first">
          {firstsDone.map((one) => (
            <Button
              key={one}
              size="sm"
              variant={one === first ? 'primary' : 'outline-primary'}
              aria-pressed={one === first}
              onClick={() => put('first', one === usual ? undefined : one)}
            >
              {firsts[one].name}
            </Button>
          ))}
        </div>
        <Button size="sm" variant="outline-primary" className="no-print" onClick={() => window.print()}>
          Print
        </Button>
        <Link className="no-print" to="../plan">
          The whole plan
        </Link>
      </div>
      {steps.length > 0 && (
        <p className="quiet mb-2 no-print">
          {firsts[first].name}: {firsts[first].why}.
        </p>
      )}
      {steps.length === 0 && <p className="sheet">There is nothing to terminate: no conductor has a place yet.</p>}
      {steps.length > 0 && <IsolationStep job={job} before="any conductor is moved" />}
      <div className="steps-grid">
        {current ? (
          <StepCard
            stage={current.stage}
            step={current.step}
            number={at + 1}
            of={steps.length}
            done={isDone(current.step)}
            onDone={finish}
            onTakeBack={() => tick(current.step, false)}
            onBack={at > 0 ? () => goTo(at - 1) : undefined}
            onNext={at < steps.length - 1 ? () => goTo(at + 1) : undefined}
          />
        ) : (
          steps.length > 0 && (
            <section className="sheet step-card" role="status">
              <p className="step-do">Every step is done</p>
              <p>Dead tests before the power goes on: earth, polarity, and what the boiler’s maker asks.</p>
            </section>
          )
        )}
        <StepList
          stages={stages}
          isDone={isDone}
          current={current?.step.id}
          onTick={tick}
          onPick={(step) => put('step', step.id)}
        />
      </div>
    </main>
  )
}
