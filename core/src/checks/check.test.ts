import fc from 'fast-check'
import { circuitOf, installationOf, loosenCore, moveCore, rigAfter, scrambled } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import { edited, type Installation } from '../installation'
import { planBriefSchema, planSystem, schemeIds, circuitKindIds, circuitsTaken } from '../planning'
import { callsUnasked } from '../trace'
import { assumptions, basisText, findingText, propertyWords, verdictText } from '../wording'
import { check, findingKey, isGrave, staticFindings, type CheckFinding } from '.'

const graveOf = (doc: Installation) => check(compile(doc)).findings.filter(isGrave)
const titles = (spoil: (doc: Installation) => void, example = 'two-port-heating-hot-water'): string[] => {
  const doc = installationOf(example)
  spoil(doc)
  const circuit = compile(doc)
  return check(circuit).findings.map((f) => findingText(circuit, f).title)
}
const unlink = (doc: Installation, a: string, b: string) => {
  doc.links = doc.links.filter((l) => l.between.join() !== [a, b].join())
}
const coreOf = (doc: Installation, cable: string, core: string) =>
  doc.cables.find((c) => c.id === cable)!.cores.find((k) => k.id === core)!

describe('check', () => {
  it.each(examples.map((e) => [e.id, e.installation] as const))(
    'finds nothing dangerous and nothing that will not work in %s, in every reachable state',
    (_, installation) => {
      const result = check(compile(installation))
      expect(result.findings.filter(isGrave)).toEqual([])
      expect(result.states.complete).toBe(true)
      expect(result.states.table.every((row) => row.right)).toBe(true)
    },
  )

  it('claims no more than that nothing was found, and says what it rests on', () => {
    const result = check(circuitOf('two-port-heating'))
    expect(verdictText(result)).toBe('No defect found in the wiring as planned')
    expect(basisText(result.known, result.states)).toMatch(
      /^All \d+ states looked at. \d+ ends not verified, 0 ends not found\.$/,
    )
    const five = check(circuitOf('two-port-five-heating-hot-water'))
    expect(basisText(five.known, five.states)).toMatch(
      /^\d+ states looked at, 6 circuits two at a time with one more that calls or not\. /,
    )
    // What was looked at in part says so; what one circuit does alone was looked at whole.
    expect(five.states.table.map((row) => [row.wanted.length > 1, row.inPart ?? false])).toEqual(
      five.states.table.map((row) => [row.wanted.length > 1, row.wanted.length > 1]),
    )
    const said = [
      verdictText(result),
      basisText(result.known, result.states),
      ...assumptions,
      ...Object.values(propertyWords),
    ]
    for (const text of said) expect(text).not.toMatch(/\bsafe\b/i)
  })

  it.each<[string, (doc: Installation) => void, string[]]>([
    [
      'neutral off at a valve',
      (d) => loosenCore(d, 'zv-1-lead', 'blue', 1),
      ['No neutral at House valve blue', 'House: its circuit does not open and Boiler is not called'],
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
      ['Nothing feeds Hot water valve grey', 'Hot water: Boiler is not called'],
    ],
    [
      'call conductor on a Line terminal',
      (d) => moveCore(d, 'boiler-cable', 'black', 1, 'wc.5'),
      ['Boiler is called with no demand', '2 conductors in Wiring centre 5, which takes 1'],
    ],
    [
      'neutral on a Line terminal',
      (d) => moveCore(d, 'supply', 'blue', 1, 'wc.1'),
      ['Line joined to neutral or earth'],
    ],
    [
      'switched live on a Neutral terminal',
      (d) => moveCore(d, 'stat-1-cable', 'black', 1, 'wc.9'),
      ['Line meets neutral or earth'],
    ],
    [
      'line and neutral crossed at the boiler',
      (d) => {
        moveCore(d, 'boiler-cable', 'brown', 0, 'boiler.N')
        moveCore(d, 'boiler-cable', 'blue', 0, 'boiler.L')
      },
      ['Line and neutral swapped at Boiler'],
    ],
    [
      'green-yellow used as the call',
      (d) => {
        moveCore(d, 'boiler-cable', 'green-yellow', 0, 'boiler.SL')
        moveCore(d, 'boiler-cable', 'green-yellow', 1, 'wc.25')
      },
      ['green-yellow of Boiler cable is used for something other than earth'],
    ],
    [
      'a blue conductor switched and not sleeved',
      (d) => {
        moveCore(d, 'stat-1-cable', 'blue', 0, 'stat-1.SL')
        moveCore(d, 'stat-1-cable', 'blue', 1, 'wc.22')
      },
      ['blue of House thermostat cable does what its colour does not say'],
    ],
    [
      'an end nobody has found',
      (d) => loosenCore(d, 'stat-1-cable', 'grey', 0, 'unknown'),
      ['grey of House thermostat cable: end not found'],
    ],
    [
      'a loose end that can be live',
      (d) => loosenCore(d, 'boiler-cable', 'black', 0),
      ['black of Boiler cable is loose and can be live'],
    ],
    [
      'thin conductors behind a large fuse',
      (d) => (d.devices.find((x) => x.id === 'spur')!.settings.fuse = 13),
      ['brown of Supply cable behind a fuse of 13 A; it carries 6 A'],
    ],
    [
      'a link left out',
      (d) => unlink(d, 'wc.21', 'wc.22'),
      ['House: its circuit does not open and Boiler is not called'],
    ],
    [
      'neutral joined to earth in the wiring centre',
      (d) => d.links.push({ id: 'ne', kind: 'fitted', between: ['wc.9', 'wc.13'] }),
      ['Neutral joined to earth'],
    ],
    [
      'a neutral that comes back by earth',
      (d) => moveCore(d, 'boiler-cable', 'blue', 1, 'wc.13'),
      ['Boiler N is on earth'],
    ],
    [
      'a conductor cut back that is live while its valve is shut',
      (d) => {
        const valve = d.devices.find((x) => x.id === 'zv-1')!
        valve.type = 'two-port-valve-six-wire'
        d.types.push({ id: valve.type, version: 1 })
        d.cables
          .find((c) => c.id === 'zv-1-lead')!
          .cores.push({
            id: 'white',
            colour: 'white',
            areaMm2: 0.75,
            ends: [{ at: 'terminal', terminal: 'zv-1.SC' }, { at: 'cut-back' }],
          })
      },
      ['white of House valve lead is cut back and can be live'],
    ],
    [
      'no cylinder thermostat',
      (d) => (d.intent.demands.find((x) => x.id === 'hot-water')!.thermostat = null),
      ['Hot water has no cylinder thermostat'],
    ],
  ])('%s', (_, spoil, expected) => {
    const found = titles(spoil)
    for (const title of expected) expect(found).toContain(title)
  })

  it.each<[string, string, (doc: Installation) => void, string]>([
    [
      'mains on a 24 V valve',
      'low-voltage',
      (d) => moveCore(d, 'transformer-cable', 'red', 0, 'spur.L'),
      'Mains reaches ',
    ],
    [
      'the limit bridged',
      'unvented',
      (d) => d.links.push({ id: 'past', kind: 'fitted', between: ['high-limit.IN', 'high-limit.OUT'] }),
      'High limit does not shut the hot water valve',
    ],
    [
      'a factory link left in',
      'single-zone-mains',
      (d) => (d.links.find((l) => l.kind === 'cut')!.kind = 'factory'),
      'Boiler is called with no demand',
    ],
    [
      'too many valves on a transformer',
      'low-voltage',
      (d) => (d.devices.find((x) => x.id === 'transformer')!.settings.va = 10),
      ' on Transformer, made for 10 VA',
    ],
  ])('%s', (_, example, spoil, part) => {
    expect(titles(spoil, example).filter((t) => t.includes(part)).length).toBeGreaterThan(0)
  })

  it('does not say of a contact that carries backwards that it will not work', () => {
    const doc = installationOf('two-port-heating-hot-water')
    moveCore(doc, 'cyl-stat-cable', 'brown', 0, 'cyl-stat.DEMAND')
    moveCore(doc, 'cyl-stat-cable', 'black', 0, 'cyl-stat.C')
    const { findings, states } = check(compile(doc))
    expect(findings.filter(isGrave)).toEqual([])
    expect(findings.map((f) => [f.rule, f.severity])).toContainEqual(['contact-fed-backwards', 'advice'])
    expect(states.table.every((row) => row.right)).toBe(true)
  })

  it('offers no sleeve where neutral and earth are joined, and calls a neutral on earth dangerous', () => {
    const doc = installationOf('two-port-heating-hot-water')
    doc.links.push({ id: 'ne', kind: 'fitted', between: ['wc.9', 'wc.13'] })
    const found = staticFindings(compile(doc))
    expect(found.find((f) => f.rule === 'neutral-earth-joined')!.severity).toBe('danger')
    expect(found.flatMap((f) => f.proposal?.changes ?? []).filter((c) => c.do === 'core')).toEqual([])
  })

  it('says of each finding just what is so of it', () => {
    const sleeved = installationOf('two-port-heating-hot-water')
    coreOf(sleeved, 'pump-cable', 'green-yellow').sleeve = 'black'
    const circuit = compile(sleeved)
    expect(staticFindings(circuit).map((f) => findingText(circuit, f).title)).toContain(
      'green-yellow (sleeved black) of Pump cable is earth and wears a sleeve of another colour',
    )
    expect(
      titles((d) => {
        d.links.push({ id: 'both', kind: 'fitted', between: ['transformer.V', 'transformer.C'] })
      }, 'low-voltage'),
    ).toContain('Both sides of a transformer meet')
    // Under priority the normally open valve is not driven: heating warms although hot water goes first.
    expect(titles((d) => loosenCore(d, 'priority-valve-lead', 'brown', 1), 'hot-water-priority')).toContain(
      'Downstairs warms while it has to wait',
    )
  })

  it('says where the water goes that does not go where it is wanted', () => {
    const doc = installationOf('three-wire-diverter')
    // The two outlets are piped the wrong way round.
    for (const pipe of doc.pipes)
      for (const end of ['from', 'to'] as const)
        pipe[end] =
          pipe[end] === 'valve.heating'
            ? 'valve.hot-water'
            : pipe[end] === 'valve.hot-water'
              ? 'valve.heating'
              : pipe[end]
    const circuit = compile(doc)
    const moves = check(circuit).findings.filter((f) => f.rule === 'water-moves')
    expect(moves.map((f) => findingText(circuit, f).title)).toEqual([
      'House: the water goes through another circuit',
      'Hot water: the water goes through another circuit',
    ])
  })

  it('puts danger first and gives actions that show the finding again', () => {
    const doc = installationOf('two-port-heating-hot-water')
    moveCore(doc, 'boiler-cable', 'black', 1, 'wc.5')
    loosenCore(doc, 'zv-1-lead', 'blue', 1)
    const circuit = compile(doc)
    const { findings } = check(circuit)
    expect(findings[0].severity).toBe('danger')
    const shown = findings.filter((f) => f.rule === 'all-off-ends-calls' || f.rule === 'no-call-without-demand')
    expect(shown.length).toBeGreaterThan(0)
    for (const call of shown) {
      expect(call.reproduced).toBe(true)
      expect(callsUnasked(rigAfter(circuit, ...call.actions!).simulation)).toHaveLength(1)
    }
  })

  it('heals what it says it can heal, and the healing can be taken back', () => {
    const spoils: ((doc: Installation) => void)[] = [
      (d) => loosenCore(d, 'pump-cable', 'green-yellow', 1),
      (d) => loosenCore(d, 'zv-1-lead', 'blue', 1),
      (d) => loosenCore(d, 'programmer-cable', 'brown', 1),
      (d) => delete coreOf(d, 'stat-1-cable', 'blue').sleeve && moveCore(d, 'stat-1-cable', 'blue', 0, 'stat-1.SL'),
      (d) => moveCore(d, 'boiler-cable', 'grey', 1, 'wc.3'),
    ]
    let healed = 0
    for (const spoil of spoils) {
      const doc = installationOf('two-port-heating-hot-water')
      spoil(doc)
      for (const finding of staticFindings(compile(doc))) {
        if (!finding.proposal) continue
        const after = edited(doc, finding.proposal)
        const left = staticFindings(compile(after.doc)).map(findingKey)
        expect(left).not.toContain(findingKey(finding))
        expect(edited(after.doc, after.inverse).doc).toEqual(doc)
        healed++
      }
    }
    expect(healed).toBeGreaterThanOrEqual(4)
  })

  it('does not depend on the order of terminals and devices, on colours or on ids', () => {
    const ids = ['two-port-heating-hot-water', 'mid-position', 'hot-water-priority', 'relay-panel', 'single-zone-mains']
    const rulesOf = (findings: CheckFinding[]) => [...new Set(findings.filter(isGrave).map((f) => f.rule))].sort()
    fc.assert(
      fc.property(fc.constantFrom(...ids), fc.integer(), fc.nat(), (id, seed, n) => {
        const doc = installationOf(id)
        const ends = doc.cables.flatMap((c) =>
          c.cores.filter((k) => k.colour !== 'green-yellow').map((k) => [c.id, k.id] as const),
        )
        const [cable, core] = ends[n % ends.length]
        // Every other time something is wrong: the verdict must stay the same then too.
        if (n % 2) loosenCore(doc, cable, core, 1)
        expect(rulesOf(graveOf(scrambled(doc, seed)))).toEqual(rulesOf(graveOf(doc)))
      }),
      { numRuns: 10 },
    )
  })

  it('finds nothing grave in any scheme by any school of practice', () => {
    for (const scheme of schemeIds)
      for (const cable of ['five-core', 'only-needed'] as const)
        for (const terminals of ['separate', 'merged'] as const) {
          const circuits = circuitKindIds.flatMap((kind) =>
            Array.from({ length: Math.min(circuitsTaken(scheme, kind)[1], kind === 'heating' ? 2 : 1) }, (_, i) => ({
              kind,
              name: `${kind} ${i + 1}`,
            })),
          )
          const doc = planSystem(planBriefSchema.parse({ scheme, circuits, cable, terminals }), 'school', 'School')
          const circuit = compile(doc)
          const told = staticFindings(circuit).filter(isGrave)
          expect([scheme, cable, terminals, told.map((f) => findingText(circuit, f).title)]).toEqual([
            scheme,
            cable,
            terminals,
            [],
          ])
        }
  })
})
