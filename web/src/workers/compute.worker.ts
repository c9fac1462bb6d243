import {
  allStates,
  atOnceOf,
  commissioningRun,
  compile,
  conflictOf,
  cured,
  faultRun,
  ForeseenHunt,
  Hunt,
  knownOf,
  liveThrough,
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
  type Cause,
  type Circuit,
  type Conflict,
  type DeviceType,
  type Effect,
  type FaultEnd,
  type CheckFinding,
  type Goal,
  type Installation,
  type Operation,
  type Shown,
  type HuntAnswer,
  type HuntEntry,
  type HuntOptions,
  type Misfit,
  type PlanBrief,
  type Practised,
  type Recording,
  type RunOptions,
  type RunRow,
  type SoFar,
  type WeekPlan,
  type WeekResult,
} from '@nobbet/core'
import { expose } from 'comlink'
import { changeTold } from '../change/told'

/** The last installation stays compiled, and every suspect where the last log has left it, from one question to the next. */
let known: { text: string; circuit: Circuit; hunt?: { options: string; of: ForeseenHunt } } | undefined

/** What a hunt says, and which entries of its log do not fit the installation as it is now. */
export interface HuntTold {
  answer: HuntAnswer
  aside: Misfit[]
}

function ready(installation: Installation) {
  const text = JSON.stringify(installation)
  if (known?.text !== text) {
    const circuit = compile(installation)
    known = { text, circuit }
  }
  return known
}

function huntOf(installation: Installation, options: HuntOptions): ForeseenHunt {
  const now = ready(installation)
  const text = JSON.stringify(options)
  if (now.hunt?.options !== text) now.hunt = { options: text, of: new ForeseenHunt(now.circuit, options) }
  return now.hunt.of
}

/** Runs that somebody still waits for. */
const wanted = new Set<number>()
let runs = 0
/** Other questions, and being left, come in between this often. */
const yieldAfterMs = 40

/** Drives a long run on, saying how far it is; undefined where it was left. */
async function driven<P, T>(
  number: number,
  run: Generator<P, T>,
  onProgress: (at: P) => void,
  isTold: (at: P) => boolean = () => false,
): Promise<T | undefined> {
  let last = performance.now()
  for (;;) {
    const next = run.next()
    if (next.done) {
      wanted.delete(number)
      return next.value
    }
    if (performance.now() - last < yieldAfterMs && !isTold(next.value)) continue
    onProgress(next.value)
    await new Promise((done) => setTimeout(done))
    if (!wanted.has(number)) return undefined
    last = performance.now()
  }
}

/** A run that says at its end what it said last. */
function* toItsEnd<T>(run: Generator<T, void>): Generator<T, T | undefined> {
  let last: T | undefined
  for (const at of run) yield (last = at)
  return last
}

const api = {
  /** A long run gets a number, by which it can be left. */
  newRun(): number {
    wanted.add(++runs)
    return runs
  },
  leave: (run: number) => void wanted.delete(run),
  /** What breaks a rule, and how much of the wiring is known. */
  rules(installation: Installation) {
    const { circuit } = ready(installation)
    return { findings: staticFindings(circuit), known: knownOf(circuit) }
  },
  /** The least sets of controls that bring a goal about, after what was done so far. */
  operations(installation: Installation, acts: readonly string[], goal: Goal): Operation[][] {
    const { circuit } = ready(installation)
    return operationsFor(Rig.after(circuit, acts.map(parseAction)).simulation, goal)
  },
  /** What departs from the plan behind an effect that no way shows, after what was done so far. */
  tried(installation: Installation, plan: Installation, acts: readonly string[], effect: Effect): Cause[] {
    const { circuit } = ready(installation)
    const done = acts.map(parseAction)
    const { simulation } = Rig.after(circuit, done)
    return triedBehind(simulation, effect, { plan: compile(plan), from: circuit, acts: done })
  },
  /** What every part does over some acts, as signals; undefined where it was left. */
  recording: (
    run: number,
    installation: Installation,
    acts: readonly string[],
    onProgress: (share: number) => void,
  ): Promise<Recording | undefined> => driven(run, recorded(compile(installation), acts.map(parseAction)), onProgress),
  /** What each of these shows that can be put in, by name. */
  shown(installation: Installation, names: readonly string[]): Record<string, Shown[]> {
    const { circuit } = ready(installation)
    return Object.fromEntries(names.map((name) => [name, shownBy(circuit, { name })]))
  },
  /** Which answers of a brief stand in each other's way; null where it can be laid out. */
  conflict: (brief: PlanBrief): Conflict | null => conflictOf(brief) ?? null,
  change: changeTold,
  survey: surveyed,
  /** The rows of a run. */
  run: (installation: Installation, options: RunOptions): RunRow[] =>
    commissioningRun(ready(installation).circuit, options),
  /** A run of the installation with something wrong that is not told, or with nothing. */
  practice: (installation: Installation, options: RunOptions, seed: number): Practised =>
    practised(ready(installation).circuit, options, seed),
  /** Every reachable state; undefined where it was left. */
  states: (
    run: number,
    installation: Installation,
    onProgress: (states: number) => void,
  ): Promise<AllStates | undefined> => driven(run, allStates(compile(installation)), onProgress),
  /** Findings again, with what is behind them and a remedy that was tried; undefined where it was left. */
  cures: (
    run: number,
    installation: Installation,
    findings: CheckFinding[],
    plan: Installation | undefined,
    onProgress: (states: number) => void,
  ): Promise<CheckFinding[] | undefined> => driven(run, cured(compile(installation), findings, { plan }), onProgress),
  /** Every reachable state with each single device fault in turn; undefined where it was left. */
  faults: (
    run: number,
    installation: Installation,
    onProgress: (at: { done: number; of: number }) => void,
  ): Promise<FaultEnd[] | undefined> => driven(run, faultRun(compile(installation)), onProgress),
  /** A hunt after a log; how it stands is told before what to look at next is known. Undefined where it was left. */
  async hunt(
    run: number,
    installation: Installation,
    log: HuntEntry[],
    options: HuntOptions,
    onSoFar: (soFar: SoFar) => void,
  ): Promise<HuntTold | undefined> {
    const hunt = huntOf(installation, options)
    const aside = hunt.misfits(log)
    const fitting = log.filter(({ id }) => !aside.some(({ entry }) => entry === id))
    const answer = await driven(run, hunt.answering(fitting), onSoFar, (soFar) => 'standing' in soFar)
    return answer && { answer, aside }
  },
  /** Works out ahead what a hunt would say after each answer to its look. */
  async foresee(run: number, installation: Installation, log: HuntEntry[], options: HuntOptions): Promise<void> {
    const hunt = huntOf(installation, options)
    const aside = hunt.misfits(log)
    const fitting = log.filter(({ id }) => !aside.some(({ entry }) => entry === id))
    await driven(run, hunt.foreseeing(fitting), () => undefined)
  },
  /** Several causes at once, gone through; it is told as it goes. */
  async atOnce(
    run: number,
    installation: Installation,
    log: HuntEntry[],
    options: HuntOptions,
    wanted: AtOnceOptions,
    onSoFar: (at: AtOnce) => void,
  ): Promise<void> {
    const hunt = new Hunt(compile(installation), options)
    const aside = hunt.misfits(log)
    const fitting = log.filter(({ id }) => !aside.some(({ entry }) => entry === id))
    hunt.follow(fitting)
    const last = await driven(run, toItsEnd(atOnceOf(hunt, fitting, wanted)), onSoFar)
    if (last) onSoFar(last)
  },
  /** A week lived through; undefined where it was left. */
  week: (
    run: number,
    installation: Installation,
    plan: WeekPlan,
    onProgress: (done: number) => void,
  ): Promise<WeekResult | undefined> => driven(run, liveThrough(compile(installation), plan), onProgress),
  /** What every fault of a device type shows, watched on a shipped system. */
  symptoms: (type: DeviceType) => symptomTexts(type),
}
export type ComputeApi = typeof api

expose(api)
