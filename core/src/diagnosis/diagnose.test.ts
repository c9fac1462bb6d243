import { circuitOf } from '../../testing'
import { faultsOf, hypothesesOf, restOf } from '../hypotheses'
import { actsTo, Hunt, type HuntEntry } from '../hunt'
import { lookAt, wordOf, type Look } from '../looks'
import { Simulation } from '../simulation'
import {
  diagnose,
  lookFor,
  observables,
  observationSchema,
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
const hunt = new Hunt(circuit)
const after = (...entries: Parameters<typeof log>) => diagnose(circuit, log(...entries), hunt)
const shareOf = ({ suspects, unlikely }: ReturnType<typeof diagnose>, id: string) =>
  [...suspects, ...unlikely].find((s) => s.id === id)!.share

describe('hunt', () => {
  it('starts with every fault, every miswiring, nothing wrong and what is not on the list under suspicion', () => {
    const { suspects, unlikely } = after()
    const ids = [...suspects, ...unlikely].map((s) => s.id)
    for (const { name } of faultsOf(circuit)) expect(ids).toContain(name)
    expect(ids).toEqual(expect.arrayContaining(['nothing-wrong', 'not-on-the-list']))
    expect(ids.length).toBeGreaterThan(2 * faultsOf(circuit).length)
  })

  it('comes to the programmer’s heating channel in a few findings, and says that it is enough', () => {
    const told = [
      [heating, boiler, 'not-called'],
      [heating, terminal('programmer.HTG-ON'), 'dead'],
      [hotWater, boiler, 'called'],
      [heating, terminal('programmer.L'), 'live'],
      [heating, terminal('wc.19'), 'dead'],
      [heating, terminal('stat-1.L'), 'dead'],
    ] as const satisfies [string[], Observable, FindingResult][]
    const counts = [1, 2].map((n) => after(...told.slice(0, n)).suspects.length)
    expect(counts[1]).toBeLessThan(counts[0])
    const { suspects, enough } = after(...told)
    // The relay that does not pull in, and its burnt contact: one part cures either.
    expect(suspects.slice(0, 2).map((s) => s.id)).toEqual([
      'programmer.heating.never-operates',
      'programmer.heating.made-contact-open',
    ])
    expect(enough!.text).toBe('Replace the programmer.')
    expect(enough!.suspects).toEqual(expect.arrayContaining(suspects.slice(0, 2).map((s) => s.id)))
    expect(enough!.share).toBeGreaterThan(0.85)
  })

  it('says of each unlikely suspect which finding speaks against it and what it would have shown', () => {
    const { unlikely, suspects } = after([heating, boiler, 'not-called'], [hotWater, boiler, 'called'])
    const against = (id: string) => [...suspects, ...unlikely].find((s) => s.id === id)!.against
    expect(against('spur.fuse.blown')).toEqual([{ finding: 'f2', expected: { word: 'not-called' } }])
    expect(against('nothing-wrong')).toEqual([{ finding: 'f1', expected: { word: 'called' } }])
  })

  it('learns nothing from "can’t tell" but does not ask the same again in that state', () => {
    const before = after()
    const [first] = before.next
    const asked = after([first.asking, first.observable, 'cannot-tell'])
    expect(asked.suspects.map((s) => [s.id, s.share])).toEqual(before.suspects.map((s) => [s.id, s.share]))
    expect(asked.next).not.toContainEqual(
      expect.objectContaining({ asking: first.asking, observable: first.observable }),
    )
  })

  it('loses nobody to findings that contradict each other, and says which of them is doubtful', () => {
    const d = after(
      [heating, { kind: 'valve', device: 'zv-1' }, 'open'],
      [heating, terminal('zv-1.M'), 'live'],
      [heating, terminal('stat-1.SL'), 'dead'],
    )
    expect(d.suspects.length).toBeGreaterThan(0)
    expect(d.doubtful).toEqual(['f3'])
  })

  it('takes a valve that stays over for what it is: the order in which things were seen is the order they happened in', () => {
    const mid = circuitOf('mid-position')
    const stays = diagnose(
      mid,
      log(
        [heating, { kind: 'valve', device: 'valve' }, 'open'],
        [[], { kind: 'valve', device: 'valve' }, 'open'],
        [[], boiler, 'not-called'],
      ),
    )
    expect(stays.doubtful).toEqual([])
    expect(shareOf(stays, 'nothing-wrong')).toBeGreaterThan(0.02)
  })

  it('led by its own next reading, never loses the truth, and ends where it is what is to be mended', () => {
    const names = ['zv-hw.end-switch.never-makes']
    const truths = hypothesesOf(circuit).filter((h) => names.includes(h.id))
    let [minutes, found] = [0, 0]
    for (const truth of truths) {
      const findings: LoggedFinding[] = []
      const acts: HuntEntry[] = []
      const sim = restOf(circuit, truth.variant, new Simulation(circuit))
      for (;;) {
        const { next, enough, suspects } = diagnose(circuit, findings, hunt)
        if (enough || next.length === 0) {
          const cured = enough?.suspects ?? suspects.map((s) => s.id)
          if (cured.includes(truth.id)) found++
          expect(suspects.map((s) => s.id)).toContain(truth.id)
          break
        }
        const [{ asking, observable, minutes: more }] = next
        minutes += more
        for (const text of actsTo(circuit, asking, acts)) {
          acts.push({ id: `a${acts.length}`, do: text })
          const [device, control, value] = text.split(/[.=]/)
          sim.set(device, control, value)
        }
        sim.settle()
        const result = (wordOf(lookAt(sim, lookFor(observable) as Look)) ?? 'cannot-tell') as FindingResult
        findings.push({ id: `f${findings.length}`, asking, observable, result })
        expect(findings.length).toBeLessThan(40)
      }
    }
    expect(found).toBe(names.length)
    expect(minutes / truths.length).toBeLessThan(45)
  }, 60_000)

  it('offers only looks that can be had: no spare terminal, nothing under a fixed lead, no earth', () => {
    const refs = observables(circuit).flatMap((o) => (o.kind === 'terminal' ? [o.terminal] : []))
    expect(refs).not.toContain('zv-1.M')
    expect(refs).not.toContain('wc.30')
    expect(refs).not.toContain('boiler.E')
  })

  it('asks for no lever where a valve has none', () => {
    const valves = observables(circuitOf('hot-water-priority')).flatMap((o) => (o.kind === 'valve' ? [o.device] : []))
    expect(valves).toEqual(['zv-1', 'zv-2', 'zv-hw'])
    expect(observables(circuitOf('three-wire-diverter')).filter((o) => o.kind === 'valve')).toEqual([])
  })

  it('narrows a mid-position fault by the words of the customer: heating only while hot water calls too', () => {
    const mid = circuitOf('mid-position')
    const d = diagnose(
      mid,
      log([heating, boiler, 'not-called'], [hotWater, boiler, 'called'], [[...heating, ...hotWater], boiler, 'called']),
    )
    expect(shareOf(d, 'valve.s2.never-operates')).toBeGreaterThan(0.05)
    expect(shareOf(d, 'boiler.call.open')).toBeLessThan(shareOf(d, 'valve.s2.never-operates') / 20)
  })

  it('takes only answers that fit the look', () => {
    expect(observationSchema.safeParse({ asking: [], observable: boiler, result: 'live' }).success).toBe(false)
  })
})
