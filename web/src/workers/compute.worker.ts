import {
  allStates,
  compile,
  conflictOf,
  cured,
  diagnose,
  faultRun,
  Hunt,
  knownOf,
  liveThrough,
  staticFindings,
  symptomTexts,
  type AllStates,
  type Circuit,
  type Conflict,
  type DeviceType,
  type FaultEnd,
  type CheckFinding,
  type Installation,
  type LoggedFinding,
  type PlanBrief,
  type WeekPlan,
  type WeekResult,
} from '@nobbet/core'
import { expose } from 'comlink'

/** The last installation stays compiled, and every suspect where the last log has left it, from one question to the next. */
let known: { text: string; circuit: Circuit; hunt?: Hunt } | undefined

function ready(installation: Installation) {
  const text = JSON.stringify(installation)
  if (known?.text !== text) {
    const circuit = compile(installation)
    known = { text, circuit }
  }
  return known
}

/** Runs that somebody still waits for. */
const wanted = new Set<number>()
let runs = 0
/** Other questions, and being left, come in between this often. */
const yieldAfterMs = 40

/** Drives a long run on, saying how far it is; undefined where it was left. */
async function driven<P, T>(number: number, run: Generator<P, T>, onProgress: (at: P) => void): Promise<T | undefined> {
  let last = performance.now()
  for (;;) {
    const next = run.next()
    if (next.done) {
      wanted.delete(number)
      return next.value
    }
    if (performance.now() - last < yieldAfterMs) continue
    onProgress(next.value)
    await new Promise((done) => setTimeout(done))
    if (!wanted.has(number)) return undefined
    last = performance.now()
  }
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
  /** Which answers of a brief stand in each other's way; null where it can be laid out. */
  conflict: (brief: PlanBrief): Conflict | null => conflictOf(brief) ?? null,
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
  diagnose(installation: Installation, findings: LoggedFinding[]) {
    const now = ready(installation)
    now.hunt ??= new Hunt(now.circuit)
    return diagnose(now.circuit, findings, now.hunt)
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
