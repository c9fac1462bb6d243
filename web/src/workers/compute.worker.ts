import {
  check,
  compile,
  deviceType,
  diagnose,
  Predictor,
  symptomTexts,
  type Circuit,
  type Installation,
  type LoggedFinding,
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

const api = {
  check: (installation: Installation) => check(ready(installation).circuit),
  diagnose(installation: Installation, findings: LoggedFinding[]) {
    const { circuit, predictor } = ready(installation)
    return diagnose(circuit, findings, predictor)
  },
  /** What every fault of a device type shows, watched on a shipped system. */
  symptoms: (type: string) => symptomTexts(deviceType(type)),
}
export type ComputeApi = typeof api

expose(api)
