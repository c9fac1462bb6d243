import fc from 'fast-check'
import { allocated, CentreTooSmall } from './allocate'
import { cascaded, type Cascade, type JoinedAnywhere } from './cascade'
import { planBriefSchema, planSystem, terminalSchedule } from '.'

const kind = 'strips-12'
const ids = ['L', 'N', 'E', 'A', 'B', 'C', 'D', 'F', 'G', 'H']

/** Devices, each with a cable whose conductors go to some functions; some of extra-low voltage. */
const wirings = fc
  .record({
    devices: fc.array(fc.array(fc.constantFrom(...ids), { minLength: 1, maxLength: 5 }), {
      minLength: 2,
      maxLength: 14,
    }),
    low: fc.subarray(['D', 'F', 'G', 'H']),
  })
  .map(({ devices, low }) => {
    const cables = devices.map((_, i) => [`cable-${i}`])
    const functions = ids
      .map((id): JoinedAnywhere => ({
        id,
        legend: `Function ${id}`,
        extraLow: low.includes(id),
        from: devices.flatMap((to, i) => to.filter((one) => one === id).map(() => `cable-${i}`)),
      }))
      .filter(({ from }) => from.length > 0)
    return { functions, cables }
  })

/** The terminals that are joined with one, over links in its box and conductors between boxes, as `box.terminal`. */
function joinedWith({ boxes, joints }: Cascade, start: string): Set<string> {
  const pairs = [
    ...boxes.flatMap(({ links }, box) => links.map(({ between: [a, b] }) => [`${box}.${a}`, `${box}.${b}`])),
    ...joints.flatMap(({ from, conductors }) =>
      conductors.map(({ between: [a, b] }) => [`${from}.${a}`, `${from + 1}.${b}`]),
    ),
  ]
  const found = new Set([start])
  for (const one of found) for (const pair of pairs) if (pair.includes(one)) pair.forEach((other) => found.add(other))
  return found
}

describe('wiring in several boxes', () => {
  it('joins every function and nothing else; each conductor has one place, and no terminal more than it takes', () => {
    fc.assert(
      fc.property(wirings, ({ functions, cables }) => {
        const cascade = cascaded(functions, [], kind, cables)
        const { boxes, joints } = cascade
        const taken = new Map<string, number>()
        const take = (at: string) => taken.set(at, (taken.get(at) ?? 0) + 1)
        functions.forEach(({ from }, f) => {
          const at = from.map((_, i) => {
            const places = boxes.flatMap(({ places: own }, box) =>
              own[f][i] === undefined ? [] : [`${box}.${own[f][i]}`],
            )
            expect(places).toHaveLength(1)
            take(places[0])
            return places[0]
          })
          const net = joinedWith(cascade, at[0])
          for (const one of at) expect(net.has(one)).toBe(true)
          functions.forEach((_, other) => {
            if (other === f) return
            const theirs = boxes.flatMap(({ places }, box) => places[other].map((p) => `${box}.${p}`))
            expect(theirs.some((one) => net.has(one))).toBe(false)
          })
        })
        for (const { from, conductors } of joints)
          for (const { between } of conductors) between.forEach((terminal, i) => take(`${from + i}.${terminal}`))
        for (const { terminals } of boxes) expect(terminals.length).toBe(12)
        expect(Math.max(...taken.values())).toBeLessThanOrEqual(4)
      }),
      { numRuns: 60 },
    )
  })

  it('keeps what is extra-low apart in its own cable, and gives every cable with mains an earth where there is one', () => {
    fc.assert(
      fc.property(wirings, ({ functions, cables }) => {
        for (const { extraLow, conductors } of cascaded(functions, [], kind, cables).joints) {
          const own = conductors.map(({ function: f }) => functions[f])
          expect(own.every((one) => one.extraLow === extraLow)).toBe(true)
          expect(own.length).toBeLessThanOrEqual(5)
          if (!extraLow && functions.some(({ id }) => id === 'E')) expect(own.map(({ id }) => id)).toContain('E')
        }
      }),
      { numRuns: 60 },
    )
  })

  it('takes one box where one does, laid out as a single strip is', () => {
    fc.assert(
      fc.property(wirings, ({ functions, cables }) => {
        const alone = () => allocated(functions, [], 'strip-12')
        let fits = true
        try {
          alone()
        } catch (error) {
          if (!(error instanceof CentreTooSmall)) throw error
          fits = false
        }
        const { boxes } = cascaded(functions, [], kind, cables)
        expect(boxes.length === 1).toBe(fits)
      }),
      { numRuns: 60 },
    )
  })

  it('is refused where no box takes a single device', () => {
    const many = Array.from({ length: 14 }, (_, i) => ({ id: `F${i}`, legend: 'Own', from: ['cable-0'] }))
    expect(() => cascaded(many, [], kind, [['cable-0']])).toThrow('the wiring takes 14 terminals')
  })
})

describe('a plan in strips of 12 in cascade', () => {
  const circuits = ['Down', 'Up', 'Annexe'].map((name) => ({ kind: 'heating', name }))
  const plan = planSystem(
    planBriefSchema.parse({
      scheme: 'two-port',
      circuits: [...circuits, { kind: 'hot-water', name: 'Hot water' }],
      terminals: kind,
    }),
    'p',
    'Plan',
  )

  it('has the supply in its first box, all cables of a device in one, and one five-core cable between the two', () => {
    expect(plan.wiringCentres.map(({ id, name }) => [id, name])).toEqual([
      ['wc', 'Wiring centre'],
      ['wc-2', 'Second wiring centre'],
    ])
    const boxesOf = (cable: string) =>
      new Set(
        plan.cables
          .find(({ id }) => id === cable)!
          .cores.flatMap(({ ends }) => ends.flatMap((end) => ('terminal' in end ? [end.terminal.split('.')[0]] : [])))
          .filter((owner) => owner.startsWith('wc')),
      )
    expect([...boxesOf('supply')]).toEqual(['wc'])
    const joints = plan.cables.filter(({ id }) => id.startsWith('joint'))
    expect(joints.map(({ cores }) => cores.length)).toEqual([5])
    expect([...boxesOf('joint-1')]).toEqual(['wc', 'wc-2'])
    for (const { id } of plan.cables) if (!id.startsWith('joint')) expect(boxesOf(id).size).toBeLessThanOrEqual(1)
  })

  it('is told as it stands in the schedules: a conductor of the cable between has its other end in the other box', () => {
    const far = terminalSchedule(plan, 'wc')
      .flatMap(({ conductors }) => conductors)
      .filter(({ cable }) => cable === 'joint-1')
      .map(({ farText }) => farText)
    expect(far).toHaveLength(5)
    for (const text of far) expect(text).toMatch(/^Second wiring centre (1[3-9]|2[0-4])/)
    expect(terminalSchedule(plan, 'wc-2').map(({ number }) => number)).toEqual(
      Array.from({ length: 12 }, (_, i) => String(13 + i)),
    )
  })
})
