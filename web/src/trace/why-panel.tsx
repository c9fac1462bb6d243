import {
  claimText,
  demandHeadline,
  demandStates,
  failedIn,
  firingPhases,
  phaseText,
  settingText,
  unmetDemands,
  whyDemand,
  whyPhase,
  type Action,
  type Background,
  type Cause,
  type Circuit,
  type Effect,
  type Goal,
  type Operation,
} from '@nobbet/core'
import { useQuery } from '@tanstack/react-query'
import { Button, CloseButton } from 'react-bootstrap'
import { errorText } from '../api/client'
import { ask } from '../workers/compute'
import { Causes, ClaimLine } from './causes'
import { Miswiring } from './miswiring'
import type { TraceSession } from './session'
import type { SessionHandle } from './use-session'

interface WhyPanelProps {
  handle: SessionHandle
  /** The demand or boiler, by its id. */
  of: string
  background: Background
  job?: string
  onPick: (ref: string) => void
  onClose: () => void
}

/** Why a demand or a boiler is as it is: what is wrong, how that comes about, and what would have to change. */
export function WhyPanel({ handle, of, background, job, onPick, onClose }: WhyPanelProps) {
  const { simulation } = handle.session.rig
  const { circuit } = simulation
  const asked = questionOf(handle, of, background)
  if (!asked) return null
  const wrong = asked.causes.flatMap(failedIn)
  const named = wrong.filter((c, i) => wrong.findIndex((d) => textOf(circuit, d) === textOf(circuit, c)) === i)
  const { session } = handle
  // By a clock or with temperatures of their own, every moment is another state while time runs.
  const resting = !session.underWay && !(session.lives && handle.running)
  return (
    <section className="sheet terminal-panel why-panel" aria-label="Why">
      <header>
        <h2>{asked.title}</h2>
        <CloseButton onClick={onClose} />
      </header>
      {named.length > 0 && (
        <ul className="wrong">
          {named.map((cause, i) => (
            <li key={i}>
              <ClaimLine circuit={circuit} cause={cause} job={job} onPick={onPick} />
            </li>
          ))}
        </ul>
      )}
      {named.length === 0 && asked.effect && background.plan && resting && (
        <TriedBehind session={session} plan={background.plan} effect={asked.effect} job={job} onPick={onPick} />
      )}
      {asked.reached ? null : resting ? (
        <WhatWouldChange handle={handle} goal={asked.goal} broken={named.length > 0} />
      ) : (
        <p className="quiet">What would have to change is told once everything has come to rest.</p>
      )}
      {asked.causes.length > 0 && (
        <details>
          <summary>How it comes about</summary>
          <Causes circuit={circuit} causes={asked.causes} job={job} onPick={onPick} />
        </details>
      )}
      {asked.stuck && !background.plan && handle.session.rig.faultsIn.length === 0 && (
        <Miswiring circuit={circuit} job={job} />
      )}
    </section>
  )
}

const textOf = (circuit: Circuit, { claim, failed }: Cause) => claimText(circuit, claim, failed)

interface Question {
  title: string
  causes: Cause[]
  goal: Goal
  /** There is nothing to change: it is served, or fires. */
  reached: boolean
  /** Something that is asked for does not come. */
  stuck: boolean
  /** What is not as the demands would have it. */
  effect?: Effect
}

function questionOf({ session }: SessionHandle, of: string, background: Background): Question | undefined {
  const { simulation } = session.rig
  const { circuit } = simulation
  const state = demandStates(simulation).find((s) => s.demand.id === of)
  if (state) {
    // What is called for and stays cold is not served either: its pump, its valve, its water.
    const cold = !session.underWay && unmetDemands(simulation).includes(state.demand)
    const unmet = state.word === 'held-up' || cold
    return {
      title: `${state.demand.name}: ${demandHeadline(simulation, state).toLowerCase()}`,
      causes: unmet ? whyDemand(simulation, state.demand, background) : [],
      goal: { is: 'served', demand: of },
      reached: state.word === 'calling' && !unmet,
      stuck: unmet,
      ...(unmet && { effect: { is: 'unmet', demand: of } }),
    }
  }
  const behaviour = circuit.behaviours.findIndex(({ device }) => circuit.devices[device].device.id === of)
  if (behaviour < 0) return undefined
  const { phase } = simulation.phase(behaviour)
  const cause = whyPhase(simulation, behaviour, background)
  return {
    title: `${circuit.devices[circuit.behaviours[behaviour].device].device.name}: ${phaseText(circuit, behaviour, phase)}`,
    causes: cause.failed ? [cause] : cause.because,
    goal: { is: 'fires', boiler: of },
    reached: firingPhases.has(phase),
    stuck: demandStates(simulation).some((s) => s.word === 'held-up'),
  }
}

interface TriedProps {
  session: TraceSession
  plan: Circuit
  effect: Effect
  job?: string
  onPick: (ref: string) => void
}

/** Where no way shows what is wrong: what departs from the plan and, put right by itself with the same things done, makes it good. */
function TriedBehind({ session, plan, effect, job, onPick }: TriedProps) {
  const { installation } = session.circuit
  const written = session.written
  const { data } = useQuery({
    staleTime: Infinity,
    networkMode: 'always',
    retry: false,
    queryKey: ['tried', installation, plan.installation, written, effect],
    queryFn: () => ask('checks', (api) => api.tried(installation, plan.installation, written, effect)),
  })
  if (!data || data.length === 0) return null
  return (
    <ul className="wrong">
      {data.map((cause, i) => (
        <li key={i}>
          <ClaimLine circuit={session.rig.simulation.circuit} cause={cause} job={job} onPick={onPick} />
        </li>
      ))}
    </ul>
  )
}

interface ChangeProps {
  handle: SessionHandle
  goal: Goal
  /** Something is wrong that no control puts right. */
  broken: boolean
}

/** The least sets of switches and dials that would bring it about, each done with one press. */
function WhatWouldChange({ handle, goal, broken }: ChangeProps) {
  const { session } = handle
  const { circuit } = session
  const written = session.written
  const { data, error, isPending } = useQuery({
    staleTime: Infinity,
    networkMode: 'always',
    retry: false,
    queryKey: ['operations', circuit.installation, written, goal],
    queryFn: () => ask('checks', (api) => api.operations(circuit.installation, written, goal)),
  })
  const wish = goal.is === 'fires' ? 'for it to fire' : 'for it to be served'
  const stands = (op: Operation) => session.rig.simulation.control(op.device, op.control)
  return (
    <div className="what-would">
      <h3>What would have to change {wish}?</h3>
      {error && <p>It could not be worked out: {errorText(error)}</p>}
      {isPending && <p className="quiet">Trying out</p>}
      {data?.length === 0 && (
        <p>
          {broken
            ? 'No switch or dial helps: what is marked ✕ has to be put right.'
            : 'No switch or dial was found that helps.'}
        </p>
      )}
      <ul>
        {together(data ?? []).map(({ ops, or }) => (
          <li key={ops.map((op) => `${op.device}.${op.control}=${op.value}`).join()}>
            <span>
              {ops.map((op, i) => (
                <span key={op.control}>
                  {i > 0 && '; and '}
                  {settingText(circuit, op, stands(op))}
                  {or
                    .filter((o) => o.device === op.device && o.control === op.control)
                    .map((o) => ` or ${lastWord(settingText(circuit, o, stands(o)))}`)}
                </span>
              ))}
            </span>
            <Button size="sm" variant="outline-dark" onClick={() => handle.act(...(ops as Action[]))}>
              Do it
            </Button>
          </li>
        ))}
      </ul>
    </div>
  )
}

const lastWord = (text: string) => text.slice(text.lastIndexOf(' ') + 1)

/** Sets that differ in one value of one control are one line: on, or boost. */
function together(sets: readonly Operation[][]): { ops: Operation[]; or: Operation[] }[] {
  const lines: { ops: Operation[]; or: Operation[] }[] = []
  for (const ops of sets) {
    const others = (line: Operation[]) => ops.filter((op) => !line.some((o) => same(o, op)))
    const like = lines.find(
      ({ ops: line }) =>
        line.length === ops.length &&
        others(line).length === 1 &&
        line.some((o) => o.device === others(line)[0].device && o.control === others(line)[0].control),
    )
    if (like) like.or.push(others(like.ops)[0])
    else lines.push({ ops, or: [] })
  }
  return lines
}

const same = (a: Operation, b: Operation) => a.device === b.device && a.control === b.control && a.value === b.value
