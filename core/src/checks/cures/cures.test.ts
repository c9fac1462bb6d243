import fc from 'fast-check'
import { installationOf, loosenCore, moveCore } from '../../../testing'
import { compile } from '../../circuit'
import { alterationsOf } from '../../hypotheses'
import { edited, type Installation } from '../../installation'
import { culpritText, deedText, findingText } from '../../wording'
import { check, cured, findingKey, isGrave, staticFindings, type CheckFinding } from '..'
import { Trials } from './trials'

function curedOf(doc: Installation, plan?: Installation): { of: ReturnType<typeof compile>; findings: CheckFinding[] } {
  const of = compile(doc)
  const run = cured(of, check(of).findings, { plan })
  for (;;) {
    const { done, value } = run.next()
    if (done) return { of, findings: value }
  }
}
const spoilt = (example: string, spoil: (doc: Installation) => void): Installation => {
  const doc = installationOf(example)
  spoil(doc)
  return doc
}
const unlinked = (doc: Installation, ...between: string[]) =>
  (doc.links = doc.links.filter((l) => l.between.join() !== between.join()))

/** A rule, what is behind it without a plan, and what is behind it where there is one. */
const cases: [string, string, (doc: Installation) => void, CheckFinding['rule'], string, string?][] = [
  [
    'a call conductor on Line',
    'two-port-heating-hot-water',
    (d) => moveCore(d, 'boiler-cable', 'black', 1, 'wc.5'),
    'all-off-ends-calls',
    'black of Boiler cable is in Wiring centre 5 (Line), it does what is needed in Wiring centre 29 (Boiler call)',
    'black of Boiler cable is in Wiring centre 5 (Line), planned in Wiring centre 29 (Boiler call)',
  ],
  [
    'a factory link left in',
    'single-zone-mains',
    (d) => (d.links.find((l) => l.kind === 'cut')!.kind = 'factory'),
    'all-off-ends-calls',
    'The factory link between Boiler T1 and Boiler T2 is in, and should be out',
  ],
  [
    'the jumper of a valve driven both ways',
    'three-wire-diverter',
    (d) => (d.devices.find((x) => x.id === 'valve')!.settings.reversed = 1),
    'demand-served',
    'Diverter valve, jumper reverses the sense: stands at “fitted”, needed at “not fitted”',
  ],
  [
    'neutral joined to earth',
    'two-port-heating-hot-water',
    (d) => d.links.push({ id: 'ne', kind: 'fitted', between: ['wc.9', 'wc.13'] }),
    'neutral-earth-joined',
    'The link between Wiring centre 9 (Neutral) and Wiring centre 13 (Earth) is in, and should be out',
  ],
  [
    'a neutral on earth',
    'two-port-heating-hot-water',
    (d) => moveCore(d, 'boiler-cable', 'blue', 1, 'wc.13'),
    'earth-as-neutral',
    'blue of Boiler cable is in Wiring centre 13 (Earth), it does what is needed in Wiring centre 11 (Neutral)',
    'blue of Boiler cable is in Wiring centre 13 (Earth), planned in Wiring centre 11 (Neutral)',
  ],
  [
    'a link left out',
    'two-port-heating-hot-water',
    (d) => unlinked(d, 'wc.21', 'wc.22'),
    'demand-served',
    'A link between Wiring centre 21 (House valve) and Wiring centre 22 (House valve) is missing',
  ],
]

describe('what is behind a finding', () => {
  it.each(cases)('%s is named without a plan and with one', (_, example, spoil, rule, byTrial, byPlan = byTrial) => {
    for (const [plan, text] of [
      [undefined, byTrial],
      [installationOf(example), byPlan],
    ] as const) {
      const doc = spoilt(example, spoil)
      const { of, findings } = curedOf(doc, plan)
      const finding = findings.find((f) => f.rule === rule)!
      expect(culpritText(of, finding.culprit!)).toBe(text)
      // One press, and nothing of it is left.
      const after = check(compile(edited(doc, finding.remedy!).doc)).findings.filter(isGrave)
      expect(after.map((f) => findingText(of, f).title)).toEqual([])
    }
  })

  it('puts a missing link back without taking the place of another that has its id by now', () => {
    const plan = installationOf('two-port-heating-hot-water')
    const doc = structuredClone(plan)
    unlinked(doc, 'wc.21', 'wc.22')
    const gone = plan.links.find((l) => l.between.join() === 'wc.21,wc.22')!
    doc.links.find((l) => l.between.join() === 'wc.1,wc.2')!.id = gone.id
    for (const with_ of [plan, undefined]) {
      const remedy = curedOf(doc, with_).findings.find((f) => f.rule === 'demand-served')!.remedy!
      const after = edited(doc, remedy).doc.links.map((l) => l.between.join())
      expect(after.sort()).toEqual(plan.links.map((l) => l.between.join()).sort())
    }
  })

  it('never names a rule by its identifier in what people read', () => {
    for (const [, example, spoil] of cases) {
      const { of, findings } = curedOf(spoilt(example, spoil))
      for (const f of findings) {
        const text = [
          ...Object.values(findingText(of, f)),
          f.culprit ? culpritText(of, f.culprit) : '',
          f.remedy && deedText(of.installation, f.remedy.deed),
        ]
        expect(text.join(' ')).not.toMatch(/\b[a-z]+-[a-z]+-[a-z]+\b(?<!green-yellow|extra-low-voltage)/)
      }
    }
  })
})

describe('a remedy', () => {
  it('brings a thermostat the feed its demand has: its channel, not line past the programmer', () => {
    const doc = spoilt('two-port-heating-hot-water', (d) => loosenCore(d, 'stat-1-cable', 'brown', 1))
    const { findings } = curedOf(doc)
    const finding = findings.find((f) => f.rule === 'contact-without-feed')!
    expect(deedText(doc, finding.remedy!.deed)).toBe('Bring Heating ON to House thermostat L')
    expect(finding.remedy!.changes).toEqual([
      { do: 'end', cable: 'stat-1-cable', core: 'brown', end: 1, to: { at: 'terminal', terminal: 'wc.20' } },
    ])
  })

  it('is none where it parts line from earth in one state and not in another: the short that a rule hid is new', () => {
    // The earth of a valve's lead on its end switch's feed: line is on earth as it stands, and through the switch.
    const of = compile(
      spoilt('two-port-heating-hot-water', (d) => moveCore(d, 'zv-1-lead', 'green-yellow', 0, 'zv-1.SF')),
    )
    const { findings } = check(of)
    expect(findings.map((f) => f.rule)).toContain('line-neutral-joined')
    const run = new Trials(of, findings).gone(
      {
        deed: { do: 'cut-back', core: { cable: 'zv-1-lead', core: 'grey' } },
        changes: [{ do: 'end', cable: 'zv-1-lead', core: 'grey', end: 1, to: { at: 'terminal', terminal: 'wc.19' } }],
      },
      findings,
    )
    for (;;) {
      const { done, value } = run.next()
      if (!done) continue
      expect([...value]).toEqual([])
      break
    }
  })

  it('brings nothing of the upper two severities, whatever was altered', () => {
    const examples = ['two-port-heating', 'single-zone-mains', 'single-zone-relay', 'low-voltage']
    fc.assert(
      fc.property(fc.constantFrom(...examples), fc.nat(), (example, n) => {
        const whole = compile(installationOf(example))
        const alterations = alterationsOf(whole)
        const doc = edited(whole.installation, alterations[n % alterations.length].command).doc
        const { findings } = curedOf(doc)
        const before = new Set(findings.filter(isGrave).map(findingKey))
        for (const { remedy } of findings) {
          if (!remedy) continue
          const after = check(compile(edited(doc, remedy).doc)).findings.filter(isGrave)
          expect(after.filter((f) => !before.has(findingKey(f))).map(findingKey)).toEqual([])
        }
      }),
      { numRuns: 25 },
    )
  })

  it('never makes a conductor of one purpose look like another', () => {
    for (const example of ['two-port-heating-hot-water', 'mid-position', 'relay-panel']) {
      const whole = compile(installationOf(example))
      for (const { command } of alterationsOf(whole).filter((_, i) => i % 3 === 0)) {
        const circuit = compile(edited(whole.installation, command).doc)
        for (const { proposal } of staticFindings(circuit))
          for (const change of proposal?.changes ?? []) {
            if (change.do !== 'core') continue
            const core = circuit.installation.cables
              .find((c) => c.id === change.cable)!
              .cores.find((k) => k.id === change.core)!
            expect(['green-yellow', 'bare', 'green']).not.toContain(core.colour)
            expect(['green-yellow', 'bare', 'green']).not.toContain(change.set.sleeve)
          }
      }
    }
  })
})
