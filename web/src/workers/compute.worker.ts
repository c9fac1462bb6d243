import {
  check,
  compile,
  diagnose,
  liveThrough,
  Predictor,
  symptomTexts,
  type Circuit,
  type DeviceType,
  type Installation,
  type LoggedFinding,
  type WeekPlan,
  type WeekResult,
} from '@nobbet/core'
import { expose } from 'comlink'

/** The last installation stays compiled, and what was predicted for it known, from one question to the next. */
let known: { text: string; circuit: Circuit; predictor: Predictor } | undefined

function ready(installation: Installation) {
  const text = JSON.stringify(installation)
  if (known?.text !== text) {
    const circuit = compile(installation)
    known = { text, circuit, predictor: new Predictor(circuit) }
  }
  return known
}

/** Which week is being lived through: another one, or none, ends it. */
let weeks = 0
/** Other questions, and being left, come in between this often. */
const yieldAfterMs = 40

const api = {
  check: (installation: Installation) => check(ready(installation).circuit),
  diagnose(installation: Installation, findings: LoggedFinding[]) {
    const { circuit, predictor } = ready(installation)
    return diagnose(circuit, findings, predictor)
  },
  /** A week lived through; undefined where it was left for another. Says how far it is, and lets itself be left. */
  async week(
    installation: Installation,
    plan: WeekPlan,
    onProgress: (done: number) => void,
  ): Promise<WeekResult | undefined> {
    const mine = ++weeks
    const run = liveThrough(compile(installation), plan)
    let last = performance.now()
    for (;;) {
      const next = run.next()
      if (next.done) return next.value
      if (performance.now() - last < yieldAfterMs) continue
      onProgress(next.value)
      await new Promise((done) => setTimeout(done))
      if (mine !== weeks) return undefined
      last = performance.now()
    }
  },
  leaveWeek: () => void weeks++,
  /** What every fault of a device type shows, watched on a shipped system. */
  symptoms: (type: DeviceType) => symptomTexts(type),
}
export type ComputeApi = typeof api

expose(api)
