import { circuitOf, installationOf, loosenCore, moveCore, rigAfter } from '../../testing'
import { check } from '../checks'
import { compile } from '../circuit'
import { answersTo, thingsOf, type HuntEntry } from '../hunt'
import { faultsOf } from '../hypotheses'
import { demandStates, whyTerminal, type Cause } from '../trace'
import {
  actText,
  answerText,
  basisText,
  claimText,
  demandText,
  huntEntryText,
  eventText,
  findingText,
  lookText,
  methodText,
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

  it.each(['two-port-two-heating-hot-water', 'hot-water-priority', 'gravity', 'fan-convector', 'single-zone-bus'])(
    'of looks, answers and acts in %s is whole',
    (id) => {
      const circuit = circuitOf(id)
      const looks = thingsOf(circuit).flatMap((thing) => thing.looks)
      for (const look of looks) {
        const answers = answersTo(circuit, look)
        for (const text of [lookText(circuit, look), questionText(circuit, look), methodText(look)]) whole(text)
        for (const found of answers.words) whole(answerText(circuit, look, found))
        expect(answers.words.length > 1 || answers.unit !== undefined).toBe(true)
      }
      expect(new Set(looks.map((look) => lookText(circuit, look))).size).toBe(looks.length)
      for (const { device, type } of circuit.devices)
        for (const control of type.controls)
          whole(actText(circuit, `${device.id}.${control.id}=${control.kind === 'choice' ? control.values[0].id : 30}`))
    },
  )

  it('of a hunt’s log says what was done and found, as it was then', () => {
    const log: HuntEntry[] = [
      { id: '1', says: { what: 'only-with-another', demand: 'heating-1' } },
      { id: '2', do: 'stat-1.set=30' },
      { id: '3', do: 'stat-1.set=12' },
      { id: '4', do: 'settle' },
      { id: '5', see: { at: 'points', with: 'tester', red: 'wc.1' }, found: { value: 231.4, unit: 'V' } },
      { id: '6', see: { at: 'display', device: 'boiler' }, found: { word: 'self-check' } },
      { id: '7', do: 'off-plate=programmer' },
      { id: '8', renew: 'zv-1', part: 'motor' },
      { id: '9', mended: 'zv-1.motor.open' },
      { id: '10', see: { at: 'spindle', device: 'zv-1' }, found: 'cannot-do' },
      {
        id: '11',
        see: { at: 'boiler', device: 'boiler' },
        found: 'cannot-do',
        after: ['off-plate=programmer', 'stat-1.set=30', 'settle'],
      },
    ]
    expect(log.map((entry, i) => huntEntryText(circuit, entry, log.slice(0, i), () => 'motor open'))).toEqual([
      'Customer on Downstairs: only works while another is on',
      'Downstairs thermostat: up to 30 °C',
      'Downstairs thermostat: down to 12 °C',
      'Wait until everything has come to rest',
      'Wiring centre 1: volts, tester: 231.4 V',
      'Boiler: the display: Self-check',
      'Take the programmer off its plate',
      'New: downstairs valve motor',
      'Put right: motor open',
      'Downstairs valve: the spindle, head off: Can’t do that',
      'Boiler: does it show a call: Can’t do that; not done: take the programmer off its plate, downstairs thermostat: up to 30 °C',
    ])
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
