import { circuitOf, installationOf, loosenCore } from '../../testing'
import { compile } from '../circuit'
import { ownValve } from '../examples'
import { typeEntry } from '../catalogue'
import type { Installation } from '../installation'
import { basisText, gapText, verdictText } from '../wording'
import { check, knownOf, nobodyLooked, type PropertyVerdict } from '.'

const checked = (spoil: (doc: Installation) => void, example = 'two-port-heating-hot-water') => {
  const doc = installationOf(example)
  spoil(doc)
  const circuit = compile(doc)
  const result = check(circuit)
  const verdicts = Object.fromEntries(result.states.properties.map((p) => [p.id, p.verdict]))
  const gaps = result.known.gaps.map((g) => gapText(circuit, g))
  return { circuit, ...result, verdicts: verdicts as Record<string, PropertyVerdict>, gaps }
}

describe('what was not looked at', () => {
  it('is never counted as held: without demands nothing is served, opened, moved or rested', () => {
    const { verdicts, gaps, findings, known } = checked((d) => (d.intent.demands = []))
    expect(verdicts).toMatchObject({
      'demand-served': 'not-looked-at',
      'water-moves': 'not-looked-at',
      'valves-rest': 'not-looked-at',
      'runs-when-wanted': 'not-looked-at',
      'no-call-without-demand': 'not-looked-at',
      'no-heat-without-demand': 'not-looked-at',
      'extra-low-stays-low': 'not-looked-at',
      'no-short': 'held',
      isolates: 'held',
    })
    expect(gaps).toContain('No demand is recorded: what the installation should do was not looked at')
    expect(verdictText({ findings, known })).toBe('No rule broken; no demand recorded to judge by')
  })

  it('is named of a valve whose ports are not known: whether its circuit opens nobody can say', () => {
    const { verdicts, gaps, states } = checked((d) => {
      const valve = ownValve()
      valve.primitives = valve.primitives.filter((p) => p.kind !== 'port')
      d.types.push(typeEntry(valve))
      d.devices.push({ id: 'zv-9', name: 'Attic valve', type: valve.id, place: 'plant', settings: {} })
      d.intent.demands = [{ ...d.intent.demands[0], circuit: { valves: [{ device: 'zv-9' }], emitters: [] } }]
    })
    expect(verdicts['demand-served']).toBe('not-looked-at')
    expect(gaps.join()).toContain('House: whether its circuit opens was not looked at, since the ports of Attic valve')
    expect(states.table.flatMap((row) => row.found.flatMap((f) => f.open))).toEqual([])
  })

  it('is told of pipes that nobody has recorded: what rests on them is assumed, the bypass with them', () => {
    const { verdicts, gaps, known, states } = checked((d) => {
      d.pipes = []
      d.tees = []
    })
    expect([verdicts['water-moves'], verdicts['no-heat-without-demand']]).toEqual(['assumed', 'assumed'])
    expect(gaps.join()).toMatch(/Pipes and what they warm are assumed, a bypass with them: nobody has recorded any/)
    expect(basisText(known, states)).toMatch(/Pipes assumed\.$/)
  })

  it('is told of a link between two places, which no link reaches', () => {
    const { findings, gaps } = checked((d) =>
      d.links.push({ id: 'far', kind: 'fitted', between: ['wc.29', 'boiler.SL'] }),
    )
    expect(findings.map((f) => f.rule)).toContain('link-between-places')
    expect(gaps.join()).toContain('are taken for joined, by a link that cannot reach')
  })

  it('is not held where the run was left before its end', () => {
    const result = check(circuitOf('two-port-heating-hot-water'), 40)
    const { states } = result
    expect(states.complete).toBe(false)
    expect(verdictText(result)).toBe('No defect found in the wiring as planned, as far as it was looked at')
    expect(new Set(states.properties.map((p) => p.verdict))).not.toContain('held')
  })
})

describe('a verdict on wiring that nobody has seen', () => {
  it('says so, and says it of nothing of which one end was looked at', () => {
    const doc: Installation = { ...installationOf('two-port-heating'), provenance: 'assumed' }
    const known = knownOf(compile(doc))
    expect(nobodyLooked(known)).toBe(true)
    expect(verdictText({ findings: [], known })).toBe('Assumed standard wiring: nobody has looked yet')
    doc.cables[0].cores[0].ends[0].provenance = 'seen'
    const seen = knownOf(compile(doc))
    expect(nobodyLooked(seen)).toBe(false)
    expect(verdictText({ findings: [], known: seen })).toBe('No defect found in the wiring as recorded')
  })

  it('is of the plan where it is planned, and of what is recorded as soon as anything was looked at', () => {
    const doc = installationOf('two-port-heating')
    expect(verdictText({ findings: [], known: knownOf(compile(doc)) })).toBe('No defect found in the wiring as planned')
    loosenCore(doc, 'boiler-cable', 'black', 1)
    doc.cables[0].cores[0].ends[0].provenance = 'tested'
    const { findings, known } = { ...check(compile(doc)), known: knownOf(compile(doc)) }
    expect(verdictText({ findings, known })).toMatch(/^\d+ defects? found in the wiring as recorded$/)
  })
})
