import { circuitOf, installationOf, loosenCore, moveCore, rigAfter } from '../../testing'
import { check } from '../checks'
import { compile } from '../circuit'
import { observables } from '../diagnosis'
import { candidateStates } from '../hunt'
import { faultsOf } from '../hypotheses'
import { demandStates, whyTerminal, type Cause } from '../trace'
import {
  basisText,
  claimText,
  controlStateText,
  demandText,
  eventText,
  findingText,
  methodText,
  observableText,
  openPointText,
  questionText,
  shortVerdictText,
  verdictText,
} from '.'

const circuit = circuitOf('two-port-two-heating-hot-water')
const everything = [
  'programmer.heating=on',
  'programmer.hot-water=on',
  'stat-1.set=30',
  'stat-2.set=30',
  'cyl-stat.set=75',
]

/** A sentence is whole: no reference left bare, nothing undefined. */
const whole = (text: string) => {
  expect(text).not.toMatch(/undefined|null|NaN|\[object|\b(zv|stat|wc)-?\w*\./)
  expect(text.length).toBeGreaterThan(2)
}

describe('every sentence', () => {
  it('of events, open points and causes is whole, under every fault', () => {
    const tell = (cause: Cause): void => {
      whole(claimText(circuit, cause.claim, cause.failed))
      cause.because.forEach(tell)
    }
    for (const { name } of faultsOf(circuit)) {
      const rig = rigAfter(circuit, `fault=${name}`, ...everything, 'wait=30s', 'stat-1.set=5', 'wait=10s')
      for (const event of rig.simulation.history) whole(eventText(circuit, event, rig.faults))
      for (const { openPoints } of demandStates(rig.simulation))
        for (const p of openPoints) whole(openPointText(circuit, p))
      tell(whyTerminal(rig.simulation, 'boiler.SL'))
      tell(whyTerminal(rig.simulation, 'pump.L'))
    }
  })

  it('of readings and states of the controls is whole', () => {
    for (const look of observables(circuit))
      [observableText, questionText, methodText].forEach((text) => whole(text(circuit, look)))
    const states = candidateStates(circuit).map((state) => controlStateText(circuit, state))
    states.forEach(whole)
    expect(new Set(states).size).toBe(states.length)
    expect(states[0]).toBe('Everything off, thermostats down')
    expect(states[1]).toBe('Programmer heating on · Downstairs thermostat calling')
  })

  it('of the check says what, why and what to do, and never that anything is safe', () => {
    const spoilt = [
      (d: ReturnType<typeof installationOf>) => loosenCore(d, 'zv-1-lead', 'blue', 1),
      (d: ReturnType<typeof installationOf>) => loosenCore(d, 'boiler-cable', 'brown', 0),
      (d: ReturnType<typeof installationOf>) => loosenCore(d, 'zv-1-lead', 'grey', 1),
      (d: ReturnType<typeof installationOf>) => moveCore(d, 'boiler-cable', 'black', 1, 'wc.5'),
      (d: ReturnType<typeof installationOf>) => moveCore(d, 'supply', 'blue', 1, 'wc.1'),
      (d: ReturnType<typeof installationOf>) => moveCore(d, 'programmer-cable', 'brown', 0, 'programmer.HTG-OFF'),
      () => undefined,
    ]
    for (const spoil of spoilt) {
      const doc = installationOf('two-port-heating-hot-water')
      spoil(doc)
      const altered = compile(doc)
      const result = check(altered)
      const texts = result.findings.flatMap((f) => Object.values(findingText(altered, f)))
      for (const text of [...texts, verdictText(result), shortVerdictText(result), basisText(result.known)]) {
        whole(text)
        expect(text).not.toMatch(/\bsafe\b/i)
      }
    }
  })

  it('joins demands as people do', () => {
    expect(demandText(circuit, [])).toBe('nothing wanted')
    expect(demandText(circuit, ['heating-1'])).toBe('Downstairs wanted')
    expect(demandText(circuit, ['heating-1', 'heating-2', 'hot-water'])).toBe(
      'Downstairs, Upstairs and Hot water wanted',
    )
  })
})
