import { supplies } from '../catalogue'
import { installationOf } from '../../testing'
import { check, staticFindings } from '../checks'
import { compile } from '../circuit'
import {
  cableSchedule,
  circuitKindIds,
  circuitsTaken,
  planBriefSchema,
  planSystem,
  schemeIds,
  supplyIds,
  terminalSchedule,
  type PlanBrief,
} from '.'
import { terminalText } from '../catalogue'

const circuits: PlanBrief['circuits'][] = [
  [{ kind: 'hot-water', name: 'Cylinder' }],
  [{ kind: 'heating', name: 'A' }],
  [
    { kind: 'heating', name: 'A' },
    { kind: 'heating', name: 'B' },
    { kind: 'heating', name: 'C' },
  ],
  [
    { kind: 'hot-water', name: 'W' },
    { kind: 'heating', name: 'A' },
    { kind: 'heating', name: 'B' },
  ],
]

describe('a plan', () => {
  it('of every scheme, for every supply and school of practice, has no defect', () => {
    for (const scheme of schemeIds)
      for (const supply of supplyIds)
        for (const cable of ['five-core', 'only-needed'] as const)
          for (const terminals of ['separate', 'merged'] as const) {
            const list: PlanBrief['circuits'] = circuitKindIds.flatMap((kind) =>
              Array.from({ length: Math.min(2, circuitsTaken(scheme, kind)[1]) }, (_, i) => ({
                kind,
                name: `${kind} ${i}`,
              })),
            )
            const brief = planBriefSchema.parse({ scheme, supply, circuits: list, cable, terminals })
            const plan = planSystem(brief, 'p', 'Plan')
            // What the scheme itself brings: gravity without a cylinder thermostat, two supplies that meet.
            const brought = ['no-cylinder-thermostat', 'second-supply']
            const told = staticFindings(compile(plan)).filter((f) => !brought.includes(f.rule))
            expect([scheme, supply, told]).toEqual([scheme, supply, []])
            expect(plan.supply.volts).toBe(supplies[supply].volts)
          }
  })
})

describe('the name of a terminal', () => {
  it('is what is printed there, and a lead’s the colour it has in this installation', () => {
    const doc = installationOf('two-port-heating')
    expect(terminalText(doc, 'programmer.HTG-ON')).toBe('Programmer HTG-ON')
    expect(terminalText(doc, 'zv-1.SO')).toBe('House valve orange')
    doc.devices.find((d) => d.id === 'programmer')!.legends = { 'HTG-ON': '3 Heat' }
    doc.cables.find((c) => c.leadOf === 'zv-1')!.cores.find((k) => k.colour === 'orange')!.colour = 'black'
    expect(terminalText(doc, 'programmer.HTG-ON')).toBe('Programmer 3 Heat')
    expect(terminalText(doc, 'zv-1.SO')).toBe('House valve black')
  })
})

describe('the plan of a two-port system', () => {
  it('is correct for every brief and every school of practice', () => {
    for (const list of circuits)
      for (const cable of ['five-core', 'only-needed'] as const)
        for (const terminals of ['separate', 'merged'] as const) {
          const plan = planSystem(
            { scheme: 'two-port', supply: '230-50', circuits: list, cable, terminals },
            'p',
            'Plan',
          )
          expect(check(compile(plan)).findings).toEqual([])
          expect(plan.intent.demands).toHaveLength(list.length)
        }
  })

  it('gives each conductor a terminal of its own, or merges up to four', () => {
    const most = (terminals: PlanBrief['terminals']) => {
      const plan = planSystem(
        { scheme: 'two-port', supply: '230-50', circuits: circuits[3], cable: 'five-core', terminals },
        'p',
        'Plan',
      )
      return Math.max(...terminalSchedule(plan, 'wc').map((t) => t.conductors.length))
    }
    expect(most('separate')).toBe(1)
    expect(most('merged')).toBe(4)
  })

  it('never uses the green-yellow core as anything but earth, and sleeves what is used against its colour', () => {
    const plan = planSystem(
      { scheme: 'two-port', supply: '230-50', circuits: circuits[3], cable: 'only-needed', terminals: 'separate' },
      'p',
      'Plan',
    )
    const schedule = terminalSchedule(plan, 'wc')
    for (const { legend, conductors } of schedule)
      for (const c of conductors) {
        if (legend === 'Spare') continue
        expect(c.colour === 'green-yellow').toBe(legend === 'Earth')
        if (legend === 'Neutral') expect(c.sleeve ?? c.colour).toBe('blue')
      }
  })

  it('parks every spare core and lists it as spare', () => {
    const doc = installationOf('two-port-heating')
    const spares = cableSchedule(doc).flatMap((c) => c.cores.filter((k) => k.spare))
    expect(spares.length).toBe(terminalSchedule(doc, 'wc').filter((t) => t.legend === 'Spare').length)
    for (const { ends } of spares) expect(ends[1]).toMatch(/^parked in Wiring centre \d+$/)
  })

  it.each([
    [[], 'at least one circuit'],
    [[...'ABCDEFGHI'].map((name) => ({ kind: 'heating', name })), 'Two-port takes at most 8 heating circuits, not 9'],
    [[...circuits[0], { kind: 'hot-water', name: 'Second' }], 'Two-port takes at most 1 hot water circuit, not 2'],
    [
      [
        { kind: 'heating', name: 'A' },
        { kind: 'heating', name: 'a' },
      ],
      'is there twice',
    ],
    [[{ kind: 'heating', name: ' ' }], 'give the circuit a name'],
  ])('refuses %j and says why', (list, reason) => {
    const result = planBriefSchema.safeParse({ scheme: 'two-port', circuits: list })
    expect(result.error?.issues.map((i) => i.message).join()).toContain(reason)
  })
})
