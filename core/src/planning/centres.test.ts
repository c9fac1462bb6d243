import fc from 'fast-check'
import { broughtByScheme, numbers, rigAfter, someBrief } from '../../testing'
import { staticFindings } from '../checks'
import { compile, wiredNets } from '../circuit'
import {
  centreKind,
  centreKindIds,
  circuitKindIds,
  circuitsTaken,
  inCentres,
  planBriefSchema,
  planSystem,
  schemeIds,
  terminalSchedule,
  type CentreKindId,
  type SchemeId,
} from '.'
import type { Installation } from '../installation'
import { lookAt, wordOf } from '../looks'
import { allocated } from './allocate'

const circuitsFor = (scheme: SchemeId, most = 2) =>
  circuitKindIds.flatMap((kind) =>
    Array.from({ length: Math.min(most, circuitsTaken(scheme, kind)[1]) }, (_, i) => ({ kind, name: `${kind} ${i}` })),
  )
const house = [
  { kind: 'heating', name: 'House' },
  { kind: 'hot-water', name: 'Hot water' },
]
const planned = (terminals: string, scheme = 'two-port', circuits: object[] = house) =>
  planSystem(planBriefSchema.parse({ scheme, circuits, terminals }), 'p', 'Plan')

const boxFuse = 'board-fuse'

/** What the wiring joins of devices, whatever terminals of a wiring centre it goes through: per device terminal, those it is joined to. */
function joins(installation: Installation): string {
  const owners = installation.devices.map(({ id }) => id)
  const isDevice = (ref: string) => owners.includes(ref.slice(0, ref.indexOf('.')))
  const circuit = compile(installation)
  const { atoms } = circuit
  const nets = wiredNets(circuit)
  // A box's own fuse stands in its line, and parts nothing.
  const netOf = (ref: string) => nets[atoms.findIndex((atom) => atom.ref === ref)]
  const [before, behind] = owners.includes(boxFuse) ? [netOf(`${boxFuse}.IN`), netOf(`${boxFuse}.OUT`)] : []
  const together = new Map<number, string[]>()
  atoms.forEach(({ ref }, atom) => {
    if (!isDevice(ref) || ref.startsWith(`${boxFuse}.`)) return
    const net = nets[atom] === behind ? before! : nets[atom]
    together.set(net, [...(together.get(net) ?? []), ref])
  })
  return [...together.values()]
    .filter((refs) => refs.length > 1)
    .map((refs) => refs.sort().join(' '))
    .sort()
    .join('\n')
}

describe('a kind of wiring centre', () => {
  it('changes where conductors meet and nothing that is joined; nothing is wrong in any', () => {
    for (const scheme of schemeIds) {
      const circuits = circuitsFor(scheme)
      const [first, ...others] = inCentres(planBriefSchema.parse({ scheme, circuits }))
        .filter(({ fits }) => fits)
        .map(({ kind }) => planned(kind, scheme, circuits))
      expect(others.length).toBeGreaterThan(2)
      for (const other of others) expect(joins(other)).toBe(joins(first))
      for (const plan of [first, ...others])
        expect(staticFindings(compile(plan)).filter((f) => !broughtByScheme.includes(f.rule))).toEqual([])
    }
  })

  it('of a strip holds an ordinary house: every terminal has its number, its function, and no more than it takes', () => {
    const rows = terminalSchedule(planned('strip-12'), 'wc')
    expect(rows.map((r) => r.number)).toEqual(Array.from({ length: 12 }, (_, i) => String(i + 1)))
    for (const { conductors } of rows) expect(conductors.length).toBeLessThanOrEqual(4)
    expect(rows.filter((r) => r.legend === 'Boiler call').map((r) => r.conductors.length)).toEqual([3])
    // The one place that is left takes a spare core; the others are cut back.
    expect(rows.filter((r) => r.conductors.some((c) => c.parked))).toHaveLength(1)
  })

  it('that is too small is refused, with what it would take and what would do', () => {
    const refused = planBriefSchema.safeParse({ scheme: 'two-port', circuits: house, terminals: 'strip-8' })
    expect(refused.error?.issues).toMatchObject([
      {
        path: ['terminals'],
        message: 'the wiring takes 11 terminals, and a strip of 8 has 8: Strip of 12 would do',
      },
    ])
    const many = planBriefSchema.safeParse({
      scheme: 'two-port',
      circuits: circuitsFor('two-port', 4),
      terminals: 'strip-12',
    })
    expect(many.error?.issues[0].message).toContain('Bars and levers would do')
  })

  it('of bars and levers has a bar each for line, neutral and earth, and a connector just large enough to each function', () => {
    const rows = terminalSchedule(planned('levers'), 'wc')
    expect(rows.slice(0, 3).map((r) => [r.number, r.legend])).toEqual([
      ['L', 'Line'],
      ['N', 'Neutral'],
      ['E', 'Earth'],
    ])
    for (const { conductors, ways, number } of rows.slice(3)) {
      expect(number).toMatch(/^K\d+$/)
      expect(ways).toBe(conductors.length <= 2 ? 2 : conductors.length <= 3 ? 3 : 5)
    }
  })

  it('of a board by device has a row to each cable, in the order of its conductors; tracks join the mains', () => {
    const plan = planned('board')
    const rows = terminalSchedule(plan, 'wc')
    const cables = rows.map((r) => [r.number.replace(/\d+/, ''), r.conductors[0].cable])
    expect(new Set(cables.map((c) => c.join())).size).toBe(new Set(cables.map(([row]) => row)).size)
    const kindOf = (legend: string) =>
      new Set(
        plan.links
          .filter(({ between }) => rows.some((r) => r.ref === between[0] && r.legend === legend))
          .map((l) => l.kind),
      )
    expect([...kindOf('Neutral')]).toEqual(['factory'])
    expect([...kindOf('Boiler call')]).toEqual(['fitted'])
  })
})

describe('a board with links to cut', () => {
  const zones = [{ kind: 'heating', name: 'Up' }, { kind: 'heating', name: 'Down' }, ...house.slice(1)]
  const plan = planned('board-cut', 'two-port', zones)
  const rows = terminalSchedule(plan, 'wc')
  const legendOf = (ref: string) => rows.find((r) => r.ref === ref)!.legend
  const pairs = (kind: string) =>
    plan.links.filter((l) => l.kind === kind).map(({ between }) => between.map(legendOf).join(' / '))

  it('has the valves apart where each has a thermostat of its own, and together where they call the boiler', () => {
    expect(pairs('cut')).toEqual(['Up valve / Down valve', 'Down valve / Hot water valve', 'Up valve / Down valve'])
    expect(pairs('factory').filter((pair) => pair.startsWith('Boiler call'))).toHaveLength(2)
    expect(pairs('fitted').filter((pair) => pair.startsWith('Boiler call'))).toHaveLength(1)
  })

  it('says beside a terminal what is to be cut from it', () => {
    const [valve] = rows.filter(({ legend, cutFrom }) => legend === 'Up valve' && cutFrom.length > 0)
    expect(valve.cutFrom.map((number) => legendOf(`wc.${number}`))).toEqual(['Down valve'])
    expect(valve.linkedTo).not.toContain(valve.cutFrom[0])
  })

  it('works as one where nothing is cut: each link left in joins what is to work apart', () => {
    const left = plan.links.filter(({ kind }) => kind === 'cut')
    for (const link of left) {
      const links = plan.links.map((l) => (l === link ? { ...l, kind: 'factory' as const } : l))
      expect(joins({ ...plan, links })).not.toBe(joins(plan))
    }
  })

  it('has its fuse in the line of everything', () => {
    const { simulation } = rigAfter(
      compile(plan),
      'programmer.heating=on',
      'stat-1.set=25',
      'fault=board-fuse.fuse.blown',
    )
    expect(lookAt(simulation, { at: 'fuse', device: 'board-fuse' })).toEqual({ word: 'blown' })
    const at = (red: string) => lookAt(simulation, { at: 'points', with: 'tester', red, black: 'spur.N' })
    expect(wordOf(at('spur.L'))).toBe('live')
    expect(wordOf(at('programmer.L'))).toBe('dead')
  })
})

describe('the terminals of a plan', () => {
  const functions = fc.uniqueArray(
    fc.record({
      id: fc.constantFrom('L', 'N', 'E', 'A', 'B', 'C', 'D'),
      legend: fc.constant('Function'),
      from: fc.array(fc.constantFrom('one', 'two', 'three'), { minLength: 1, maxLength: 20 }),
    }),
    { selector: ({ id }) => id },
  )
  const kinds = fc.constantFrom<CentreKindId>(...centreKindIds.filter((id) => centreKind(id).terminals === undefined))

  it('take no more conductors than they have ways, are joined function by function, by as few links as that can be done with', () => {
    fc.assert(
      fc.property(functions, kinds, (joined, kind) => {
        const { terminals, places, links } = allocated(joined, [], kind)
        expect(new Set(terminals.map((t) => t.id)).size).toBe(terminals.length)
        const jumper = centreKind(kind).by === 'levers'
        terminals.forEach(({ ways }, at) => {
          const conductors = places.flat().filter((p) => p === at).length
          const pieces = jumper ? links.filter((l) => l.kind === 'fitted' && l.between.includes(at)).length : 0
          expect(conductors + pieces).toBeLessThanOrEqual(ways)
          expect(conductors).toBeGreaterThan(0)
        })
        let fewest = 0
        places.forEach((own) => {
          const used = [...new Set(own)]
          fewest += used.length - 1
          const joints = links.filter(({ kind, between }) => kind !== 'cut' && between.some((at) => used.includes(at)))
          // Every terminal of the function is reached from its first, and none of another.
          const reached = new Set(used.slice(0, 1))
          for (const at of reached)
            for (const { between } of joints) if (between.includes(at)) between.forEach((other) => reached.add(other))
          expect([...reached].sort()).toEqual([...used].sort())
          if (centreKind(kind).by === 'device') return
          // Side by side, each joined to the next.
          expect(joints.map(({ between }) => between)).toEqual(used.slice(1).map((at, i) => [used[i], at]))
        })
        expect(links.filter((link) => link.kind !== 'cut')).toHaveLength(fewest)
      }),
      {
        numRuns: 300,
        examples: [[[{ id: 'A', legend: 'Function', from: ['one', 'three', 'one', 'two'] }], 'board-cut']],
      },
    )
  })
})

it('a brief that somebody might ask for is refused, or its plan breaks no rule', () => {
  let planned = 0
  fc.assert(
    fc.property(fc.integer({ min: 0 }), (seed) => {
      const read = planBriefSchema.safeParse(someBrief(numbers(seed)))
      if (!read.success) return expect(read.error.issues[0].message).not.toBe('')
      planned++
      const told = staticFindings(compile(planSystem(read.data, 'p', 'Plan')))
      expect(told.filter(({ rule }) => !broughtByScheme.includes(rule))).toEqual([])
    }),
    { numRuns: 200 },
  )
  expect(planned).toBeGreaterThan(80)
})
