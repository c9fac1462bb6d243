import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { faultsOf } from '../hypotheses'
import {
  candidateStates,
  diagnose,
  observables,
  observationSchema,
  Predictor,
  type FindingResult,
  type LoggedFinding,
  type Observable,
} from '.'

const circuit = circuitOf('two-port-heating-hot-water')
const heating = ['programmer.heating', 'stat-1.contact']
const hotWater = ['programmer.hot-water', 'cyl-stat.contact']
const boiler: Observable = { kind: 'boiler', device: 'boiler' }
const terminal = (ref: string): Observable => ({ kind: 'terminal', terminal: ref })

const log = (...entries: [string[], Observable, FindingResult][]): LoggedFinding[] =>
  entries.map(([asking, observable, result], i) => ({ id: `f${i + 1}`, asking, observable, result }))
const names = (findings: LoggedFinding[]) => diagnose(circuit, findings).suspects.map((s) => s.fault?.name ?? 'nothing')

describe('hunt', () => {
  it('starts with every fault and "nothing wrong" under suspicion', () => {
    expect(names([])).toHaveLength(faultsOf(circuit).length + 1)
  })

  it('shrinks to the programmer’s heating channel in three findings', () => {
    const findings = log(
      [heating, boiler, 'not-called'],
      [hotWater, boiler, 'called'],
      [heating, terminal('programmer.HTG-ON'), 'dead'],
    )
    expect(names(findings.slice(0, 1)).length).toBeGreaterThan(names(findings.slice(0, 2)).length)
    // The relay that does not pull in, and its burnt contact: one part cures either.
    expect(names(findings)).toEqual(['programmer.heating.never-operates', 'programmer.heating.made-contact-open'])
  })

  it('says of each excluded suspect which finding excludes it and what it would have shown', () => {
    const { excluded } = diagnose(circuit, log([heating, boiler, 'not-called'], [hotWater, boiler, 'called']))
    expect(excluded.find((e) => e.fault?.name === 'spur.fuse.blown')!.by).toEqual([
      { finding: 'f2', expected: 'not-called' },
    ])
    expect(excluded.find((e) => e.fault === null)!.by).toEqual([{ finding: 'f1', expected: 'called' }])
  })

  it('learns nothing from "can’t tell" but does not ask the same again', () => {
    const [first] = diagnose(circuit, []).next
    const after = diagnose(circuit, [
      { id: 'f1', asking: first.asking, observable: first.observable, result: 'cannot-tell' },
    ])
    expect(after.suspects).toHaveLength(faultsOf(circuit).length + 1)
    expect(after.next).not.toContainEqual(
      expect.objectContaining({ asking: first.asking, observable: first.observable }),
    )
  })

  it('is left with no suspect by findings that contradict each other', () => {
    const d = diagnose(circuit, log([[], boiler, 'called'], [[], boiler, 'not-called']))
    expect(d.suspects).toEqual([])
    expect(d.next).toEqual([])
  })

  it('stops when no look would tell the rest apart, and groups them', () => {
    const { suspects, next } = diagnose(
      circuit,
      log(
        [[], { kind: 'valve', device: 'zv-1' }, 'shut'],
        [heating, { kind: 'valve', device: 'zv-1' }, 'open'],
        [heating, boiler, 'not-called'],
        [hotWater, boiler, 'called'],
      ),
    )
    expect(suspects.map((s) => s.fault!.name)).toEqual([
      'zv-1.end-switch.never-makes',
      'zv-1.end-switch.makes-sometimes',
      'zv-1-lead.grey.open',
      'zv-1-lead.orange.open',
    ])
    expect(new Set(suspects.map((s) => s.group)).size).toBe(1)
    expect(next).toEqual([])
  })

  it('led by its own next reading, always keeps the true fault and ends with suspects no reading tells apart', () => {
    const predictor = new Predictor(circuit)
    const faults = faultsOf(circuit)
    fc.assert(
      fc.property(fc.constantFrom(...faults, null), (truth) => {
        const findings: LoggedFinding[] = []
        for (;;) {
          const { suspects, next } = diagnose(circuit, findings, predictor)
          expect(suspects.map((s) => s.fault?.name)).toContain(truth?.name)
          if (next.length === 0) {
            expect(suspects.filter((s) => s.share > 0.05 && s.group !== suspects[0].group)).toEqual([])
            break
          }
          const [{ asking, observable, outcomes }] = next
          const expected = predictor.expected(truth, asking, observable)
          const result = expected === 'either' ? outcomes[0].answer : expected
          findings.push({ id: `f${findings.length}`, asking, observable, result })
          expect(findings.length).toBeLessThan(25)
        }
      }),
      { numRuns: faults.length },
    )
  })

  it('offers only looks that can be had: no spare terminal, nothing under a fixed lead, no earth', () => {
    const refs = observables(circuit).flatMap((o) => (o.kind === 'terminal' ? [o.terminal] : []))
    expect(refs).not.toContain('zv-1.M')
    expect(refs).not.toContain('wc.30')
    expect(refs).not.toContain('boiler.E')
    expect(candidateStates(circuit)[0]).toEqual([])
  })

  it('asks for no lever where a valve has none', () => {
    const valves = observables(circuitOf('hot-water-priority')).flatMap((o) => (o.kind === 'valve' ? [o.device] : []))
    expect(valves).toEqual(['zv-1', 'zv-2', 'zv-hw'])
    expect(observables(circuitOf('three-wire-diverter')).filter((o) => o.kind === 'valve')).toEqual([])
  })

  it('narrows a mid-position fault by the words of the customer: heating only while hot water calls too', () => {
    const mid = circuitOf('mid-position')
    const { suspects } = diagnose(
      mid,
      log([heating, boiler, 'not-called'], [hotWater, boiler, 'called'], [[...heating, ...hotWater], boiler, 'called']),
    )
    const left = suspects.map((s) => s.fault?.name)
    expect(left).toContain('valve.s2.never-operates')
    expect(left).not.toContain('valve.s1.never-operates')
    expect(left).not.toContain('boiler.call.open')
  })

  it('takes only answers that fit the look', () => {
    expect(observationSchema.safeParse({ asking: [], observable: boiler, result: 'live' }).success).toBe(false)
  })
})
