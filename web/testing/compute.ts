import {
  allStates,
  atOnceOf,
  commissioningRun,
  compile,
  conflictOf,
  cured,
  ForeseenHunt,
  Hunt,
  knownOf,
  operationsFor,
  parseAction,
  practised,
  recorded,
  Rig,
  shownBy,
  staticFindings,
  surveyed,
  symptomTexts,
  triedBehind,
  type AllStates,
  type AtOnce,
  type AtOnceOptions,
  type CheckFinding,
  type Effect,
  type HuntEntry,
  type Goal,
  type HuntOptions,
  type Installation,
  type PlanBrief,
  type RunOptions,
  type SoFar,
} from '@nobbet/core'
import { changeTold } from '../src/change/told'

const looked = new Map<string, AllStates>()

/** What a worker is asked for by the screens that component tests show, worked out at once where there is no worker. */
const api = {
  rules(installation: Installation) {
    const circuit = compile(installation)
    return { findings: staticFindings(circuit), known: knownOf(circuit) }
  },
  states(_: number, installation: Installation) {
    const key = JSON.stringify(installation)
    const known = looked.get(key)
    if (known) return known
    const run = allStates(compile(installation))
    for (;;) {
      const next = run.next()
      if (!next.done) continue
      looked.set(key, next.value)
      return next.value
    }
  },
  cures(_: number, installation: Installation, findings: CheckFinding[], plan: Installation | undefined) {
    const run = cured(compile(installation), findings, { plan })
    for (;;) {
      const next = run.next()
      if (next.done) return next.value
    }
  },
  operations: (installation: Installation, acts: readonly string[], goal: Goal) =>
    operationsFor(Rig.after(compile(installation), acts.map(parseAction)).simulation, goal),
  tried(installation: Installation, plan: Installation, acts: readonly string[], effect: Effect) {
    const circuit = compile(installation)
    const done = acts.map(parseAction)
    return triedBehind(Rig.after(circuit, done).simulation, effect, { plan: compile(plan), from: circuit, acts: done })
  },
  recording(_: number, installation: Installation, acts: readonly string[]) {
    const run = recorded(compile(installation), acts.map(parseAction))
    for (;;) {
      const next = run.next()
      if (next.done) return next.value
    }
  },
  shown: (installation: Installation, names: readonly string[]) =>
    Object.fromEntries(names.map((name) => [name, shownBy(compile(installation), { name })])),
  conflict: (brief: PlanBrief) => conflictOf(brief) ?? null,
  symptoms: symptomTexts,
  change: changeTold,
  survey: surveyed,
  run: (installation: Installation, options: RunOptions) => commissioningRun(compile(installation), options),
  practice: (installation: Installation, options: RunOptions, seed: number) =>
    practised(compile(installation), options, seed),
  hunt(_: number, installation: Installation, log: HuntEntry[], options: HuntOptions, onSoFar: (soFar: SoFar) => void) {
    const hunt = huntOf(installation, options)
    const aside = hunt.misfits(log)
    const run = hunt.answering(log.filter(({ id }) => !aside.some(({ entry }) => entry === id)))
    for (;;) {
      const next = run.next()
      if (next.done) return { answer: next.value, aside }
      onSoFar(next.value)
    }
  },
  atOnce(
    _: number,
    installation: Installation,
    log: HuntEntry[],
    options: HuntOptions,
    wanted: AtOnceOptions,
    onSoFar: (at: AtOnce) => void,
  ) {
    const hunt = new Hunt(compile(installation), options)
    hunt.follow(log)
    for (const at of atOnceOf(hunt, log, { ...wanted, most: 80, threes: Math.min(wanted.threes ?? 0, 40) })) onSoFar(at)
  },
  foresee: () => undefined,
}

const hunts = new Map<string, ForeseenHunt>()
function huntOf(installation: Installation, options: HuntOptions): ForeseenHunt {
  const key = JSON.stringify([installation, options])
  const hunt = hunts.get(key) ?? new ForeseenHunt(compile(installation), options)
  hunts.set(key, hunt)
  return hunt
}

export const ask = (_: string, question: (own: typeof api) => unknown) => Promise.resolve().then(() => question(api))
export const longRun = (_: string, run: (own: typeof api, number: number) => unknown) =>
  Promise.resolve().then(() => run(api, 1))
