import { installationOf, loosenCore, moveCore, rigAfter } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import type { Installation } from '../installation'
import { unaskedCalls } from '../trace'
import { basisText, findingText, verdictText } from '../wording'
import { check } from '.'

const titles = (spoil: (doc: Installation) => void, example = 'two-port-heating-hot-water'): string[] => {
  const doc = installationOf(example)
  spoil(doc)
  const circuit = compile(doc)
  return check(circuit).findings.map((f) => findingText(circuit, f).title)
}
const unlink = (doc: Installation, a: string, b: string) => {
  doc.links = doc.links.filter((l) => l.between.join() !== [a, b].join())
}

describe('check', () => {
  it('finds nothing in any shipped example, and claims no more than that', () => {
    for (const { installation } of examples) {
      const result = check(compile(installation))
      expect(result.findings).toEqual([])
      expect(result.combinations).toBe(2 ** installation.intent.demands.length)
      expect(verdictText(result)).toBe('No defect found in the wiring as recorded')
      expect(basisText(result)).toMatch(/\d+ ends not verified, 0 ends not found/)
    }
  })

  it.each<[string, (doc: Installation) => void, string[]]>([
    [
      'neutral off at a valve',
      (d) => loosenCore(d, 'zv-1-lead', 'blue', 1),
      ['No neutral at House valve blue', 'House wanted: does not end at Boiler SL'],
    ],
    [
      'permanent live off at the boiler',
      (d) => loosenCore(d, 'boiler-cable', 'brown', 0),
      ['No permanent live at Boiler L'],
    ],
    ['earth off at the pump', (d) => loosenCore(d, 'pump-cable', 'green-yellow', 1), ['No earth at Pump E']],
    [
      'end switch not fed',
      (d) => loosenCore(d, 'zv-hw-lead', 'grey', 1),
      ['Nothing feeds Hot water valve grey', 'Hot water wanted: does not end at Boiler SL'],
    ],
    [
      'call conductor off',
      (d) => loosenCore(d, 'boiler-cable', 'black', 0),
      ['House wanted: does not end at Boiler SL', 'Hot water wanted: does not end at Boiler SL'],
    ],
    [
      'call conductor on a Line terminal',
      (d) => moveCore(d, 'boiler-cable', 'black', 1, 'wc.5'),
      ['Boiler is called with no demand'],
    ],
    [
      'neutral conductor on a Line terminal',
      (d) => moveCore(d, 'supply', 'blue', 1, 'wc.1'),
      ['Line joined to neutral or earth'],
    ],
    [
      'switched live on a Neutral terminal',
      (d) => moveCore(d, 'stat-1-cable', 'black', 1, 'wc.9'),
      ['Line joined to neutral or earth', 'House wanted: does not end at Boiler SL'],
    ],
    ['a link left out', (d) => unlink(d, 'wc.21', 'wc.22'), ['House wanted: does not end at Boiler SL']],
  ])('%s', (_, spoil, expected) => {
    const found = titles(spoil)
    for (const title of expected) expect(found).toContain(title)
  })

  it('puts danger first and gives actions that show the finding again', () => {
    const doc = installationOf('two-port-heating-hot-water')
    moveCore(doc, 'boiler-cable', 'black', 1, 'wc.5')
    loosenCore(doc, 'zv-1-lead', 'blue', 1)
    const circuit = compile(doc)
    const { findings } = check(circuit)
    expect(findings[0].severity).toBe('danger')
    const call = findings.find((f) => f.rule === 'call-without-demand')!
    const rig = rigAfter(circuit, ...call.actions!)
    rig.simulation.settle()
    expect(unaskedCalls(rig.simulation)).toHaveLength(1)
  })

  it('counts the ends nobody has found', () => {
    const doc = installationOf('two-port-heating')
    loosenCore(doc, 'stat-1-cable', 'grey', 0, 'unknown')
    expect(check(compile(doc)).unknownEnds).toBe(1)
  })
})
