import { installationOf } from '../../testing'
import {
  centreKindIds,
  circuitKindIds,
  circuitsTaken,
  firstsDone,
  planBriefSchema,
  planSystem,
  schemeIds,
  type SchemeId,
} from '../planning'
import { terminationOrder, type TerminationStep } from '.'

/** A circuit of every kind that a scheme takes. */
const oneOfEach = (scheme: SchemeId) =>
  circuitKindIds.filter((kind) => circuitsTaken(scheme, kind)[1] > 0).map((kind) => ({ kind, name: kind }))
const house = [
  { kind: 'heating', name: 'House' },
  { kind: 'hot-water', name: 'Hot water' },
]
const plan = (terminals: string, scheme: SchemeId = 'two-port', circuits: object[] = house) =>
  planSystem(planBriefSchema.parse({ scheme, terminals, circuits }), 'p', 'Plan')
const stepsOf = (...order: Parameters<typeof terminationOrder>): TerminationStep[] =>
  terminationOrder(...order).flatMap(({ steps }) => steps)

describe('the order of termination', () => {
  it.each(schemeIds)('of %s has every end of every core in just one step, and every link that is fitted', (scheme) => {
    for (const kind of scheme === 'two-port' ? centreKindIds.slice(3) : (['levers', 'separate'] as const)) {
      const doc = plan(kind, scheme, oneOfEach(scheme))
      const ids = stepsOf(doc).map(({ id }) => id)
      expect(new Set(ids).size).toBe(ids.length)
      for (const first of firstsDone)
        expect(
          stepsOf(doc, first)
            .map(({ id }) => id)
            .sort(),
        ).toEqual([...ids].sort())
      const ends = doc.cables.flatMap(({ id, leadOf, cores }) =>
        cores.flatMap((core) =>
          core.ends.flatMap((end, i) =>
            leadOf !== undefined && 'terminal' in end && end.terminal.startsWith(`${leadOf}.`)
              ? []
              : [`${id}.${core.id}.${i}`],
          ),
        ),
      )
      const told = ids.filter((id) => id.includes('@') && !id.startsWith('clamp')).map((id) => id.split('@')[0])
      expect([...told].sort()).toEqual([...ends].sort())
      const links = doc.links.filter((l) => l.kind === 'fitted').map(({ between: [a, b] }) => `fitted ${a}+${b}`)
      expect(ids.filter((id) => id.startsWith('fitted')).sort()).toEqual(links.sort())
    }
  })

  it('begins with the links, or with the supply, as one was taught; covers are last', () => {
    const doc = plan('separate')
    const titles = (first: 'links' | 'supply') => terminationOrder(doc, first).map(({ title }) => title)
    expect(titles('links').slice(0, 2)).toEqual(['Links of the Wiring centre', 'Supply cable, at the Wiring centre'])
    expect(titles('supply').slice(0, 2)).toEqual(['Supply cable, at the Wiring centre', 'Links of the Wiring centre'])
    expect(titles('links').at(-1)).toBe('Covers')
    expect(stepsOf(doc).at(-1)).toMatchObject({ do: 'close' })
    const [centre] = terminationOrder(doc).at(-1)!.steps
    expect(centre.purpose).toMatch(/^Count its links: \d+\. Nothing under the edge; cover on$/)
  })

  it.each(['strip-12', 'levers', 'strips-12', 'board-cut', 'separate'])(
    'in %s has line, neutral and earth of all cables together where that was taught, and nothing else',
    (kind) => {
      const zones = ['Loft', 'Annexe'].map((name) => ({ kind: 'heating', name }))
      const doc = plan(kind, 'two-port', kind === 'strip-12' ? house : [...house, ...zones])
      const stages = terminationOrder(doc, 'mains').filter(({ id }) => !id.startsWith('device') && id !== 'covers')
      const landed = stages.flatMap(({ id, steps }) =>
        steps.filter((s) => s.do === 'land').map((step) => ({ id, step })),
      )
      const isMains = ({ step }: (typeof landed)[number]) => /^(Line|Line in|Neutral|Earth)$/.test(step.legend!)
      const together = landed.filter(({ id }) => id.startsWith('mains'))
      expect(together.length).toBeGreaterThan(10)
      expect(together.filter((one) => !isMains(one))).toEqual([])
      const left = landed.filter((one) => isMains(one) && !one.id.startsWith('mains'))
      expect([...new Set(left.map(({ step }) => step.cable))]).toEqual(['Supply cable'])
    },
  )

  it('lands a conductor that stands alone before those that share a terminal, reserves after them, and clamps the cable last', () => {
    const doc = plan('strip-12')
    const crowd = (terminal: string) =>
      doc.cables
        .flatMap((c) => c.cores.flatMap((k) => k.ends))
        .filter((e) => 'terminal' in e && e.terminal === `wc.${terminal}`).length
    const stages = terminationOrder(doc).filter(({ id }) => id.endsWith('@wc'))
    expect(stages.length).toBeGreaterThan(4)
    for (const { steps } of stages) {
      const ranks = steps.map((s) => {
        if (s.do === 'clamp') return 4
        if (s.do === 'cut-back') return 3
        if (s.do === 'park') return 2
        return crowd(s.terminal!) > 1 ? 1 : 0
      })
      expect(ranks).toEqual([...ranks].sort())
      expect(ranks.at(-1)).toBe(4)
    }
  })

  it('says of a step what goes where and what for', () => {
    const [step] = stepsOf(plan('strip-12')).filter((s) => s.legend === 'Heating ON')
    expect(step).toMatchObject({
      do: 'land',
      terminal: '7',
      cable: 'Programmer cable',
      core: { colour: 'black' },
      purpose: 'Programmer HTG-ON',
    })
  })

  it('has a factory link that does not belong cut, not fitted', () => {
    const doc = installationOf('single-zone-mains')
    const cut = doc.links.filter((l) => l.kind === 'cut')
    expect(cut.length).toBeGreaterThan(0)
    const steps = stepsOf(doc).filter((s) => s.do === 'cut-link')
    expect(steps.map(({ id }) => id)).toEqual(cut.map(({ between: [a, b] }) => `cut ${a}+${b}`))
  })

  it('leaves out ends that nobody has found, and is another step where a conductor goes elsewhere', () => {
    const doc = structuredClone(installationOf('two-port-heating'))
    const [core] = doc.cables.find(({ id }) => id === 'boiler-cable')!.cores
    const before = stepsOf(doc).map(({ id }) => id)
    core.ends[1] = { at: 'unknown' }
    expect(stepsOf(doc)).toHaveLength(before.length - 1)
    core.ends[1] = { at: 'terminal', terminal: 'wc.1' }
    const moved = stepsOf(doc).map(({ id }) => id)
    expect(moved.filter((id) => !before.includes(id))).toEqual([`boiler-cable.${core.id}.1@wc.1`])
  })
})
