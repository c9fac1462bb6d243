import fc from 'fast-check'
import { called, circuitOf } from '../../testing'
import { restOf } from '../hypotheses'
import { Hunt, type HuntEntry } from '.'
import { Course } from './course'
import { liftsApart, liftsFor } from './lifts'
import { rewiringOf } from './rewiring'

const twoPort = new Hunt(circuitOf('two-port-heating'))
const { circuit } = twoPort
const insulation: HuntEntry = {
  id: 'low',
  see: { at: 'points', with: 'insulation', red: 'wc.1', black: 'wc.10' },
  found: { value: 0, unit: 'MΩ' },
}
const isolated: HuntEntry[] = [
  { id: 'off', do: 'spur.switch=off' },
  { id: 'rest', do: 'settle' },
]

describe('devices joined side by side', () => {
  const house = circuitOf('two-port-two-heating-hot-water')
  const valves = ['zv-1', 'zv-2', 'zv-hw']

  it('are each read over their own parts, with the conductor lifted that leads to that device and to no other', () => {
    const lifts = liftsApart(house, [], valves)
    for (const valve of valves) {
      const own = lifts.filter(({ act }) => act.startsWith(`lift=${valve}-lead.`))
      expect(own.length).toBeGreaterThan(0)
      // The end switches lie side by side: it is the same reading for all of them.
      expect(own.map(({ see }) => see)).toContainEqual(lifts.find(({ act }) => act.includes('.grey.'))!.see)
    }
    expect(lifts.every(({ act }) => valves.some((valve) => act.startsWith(`lift=${valve}-lead.`)))).toBe(true)
    expect(liftsApart(house, [], [])).toEqual([])
    const [{ act }] = lifts
    expect(liftsApart(house, [{ id: 'lifted', do: act }], valves).map((lift) => lift.act)).not.toContain(act)
  })

  it('are told apart once one of two causes is put right, where nothing else would tell which of them is the other', () => {
    const hunt = new Hunt(house)
    const truth = ['programmer.hot-water.never-operates', 'zv-1.end-switch.stuck-made'].map(
      (id) => hunt.suspects.find((one) => one.id === id)!.hypothesis!,
    )
    const { found, wrongParts, wrongElse, log } = called(hunt, { truth, seed: 3, exact: true })
    expect({ found, wrongParts, wrongElse }).toEqual({ found: true, wrongParts: 0, wrongElse: 0 })
    expect(log.some((entry) => 'do' in entry && /^lift=zv-\w+-lead/.test(entry.do))).toBe(true)
  })
})

describe('a conductor lifted to tell apart what a dead test found of everything joined there', () => {
  it('is thought of where such a test was made; no earth, nothing twice, and no fixed lead at its own valve', () => {
    expect(liftsFor(circuit, isolated)).toEqual([])
    const of = (log: readonly HuntEntry[]) => liftsFor(circuit, log).map(({ act }) => act)
    const first = of([...isolated, insulation])
    expect(first).toContain('lift=supply.brown.1')
    expect(first.filter((act) => act.includes('green-yellow'))).toEqual([])
    const leadEnd = circuit.installation.cables
      .find(({ id }) => id === 'zv-1-lead')!
      .cores.find(({ id }) => id === 'grey')!
      .ends.findIndex((end) => end.at === 'terminal' && end.terminal.startsWith('zv-1.'))
    expect(first).toContain(`lift=zv-1-lead.grey.${1 - leadEnd}`)
    expect(first).not.toContain(`lift=zv-1-lead.grey.${leadEnd}`)
    const second = of([...isolated, insulation, { id: 'lift', do: 'lift=supply.brown.1' }])
    expect(second).toEqual(first.filter((act) => act !== 'lift=supply.brown.1'))
  })

  it('tells cables apart that touch between the same terminals: each alone is then what the reading says', () => {
    const touching = ['supply', 'boiler-cable', 'programmer-cable'].map((cable) => `touching ${cable}.blue+brown`)
    const see = { at: 'points', with: 'resistance', red: 'wc.1', black: 'boiler.PL' } as const
    /** What is read after these acts where this is so. */
    const read = (id: string, truth: string, acts: readonly HuntEntry[]): HuntEntry => {
      const { hypothesis } = twoPort.singles.find((one) => one.id === truth)!
      const course = new Course(restOf(circuit, hypothesis!.variant).fork())
      acts.forEach((entry) => 'do' in entry && course.act(entry.do))
      const shown = course.shows(see).expected
      if (shown === 'open' || !('value' in shown)) throw new Error('a resistance is a number')
      return { id, see, found: { value: shown.value, unit: 'Ω' } }
    }
    const joined: HuntEntry[] = [...isolated, read('joined', touching[0], isolated)]
    const hunt = twoPort.again()
    hunt.follow(joined)
    const before = touching.map((id) => hunt.ranking().shares[hunt.suspects.findIndex((s) => s.id === id)])
    expect(new Set(before).size).toBe(1)
    for (const id of touching) {
      const cable = id.split(/[ .]/)[1]
      const at = circuit.installation.cables
        .find((one) => one.id === cable)!
        .cores.find((core) => core.id === 'brown')!
        .ends.findIndex((end) => end.at === 'terminal' && end.terminal.startsWith('wc.'))
      const lifted: HuntEntry[] = [...joined, { id: 'lift', do: `lift=${cable}.brown.${at}` }]
      hunt.follow([...lifted, read('lifted', id, lifted)])
      const shareOf = (one: string) => hunt.ranking().shares[hunt.suspects.findIndex((s) => s.id === one)]
      touching.filter((one) => one !== id).forEach((other) => expect(shareOf(id)).toBeGreaterThan(10 * shareOf(other)))
    }
  })

  it('finds every suspect as its own simulation would show it, whoever is joined alike', () => {
    const ends = liftsFor(circuit, [insulation]).map(({ act }) => act)
    const see = insulation
    const wiring = twoPort.singles.flatMap(({ hypothesis }, i) =>
      hypothesis?.variant.change ? [{ hypothesis, i }] : [],
    )
    fc.assert(
      fc.property(fc.constantFrom(...ends), fc.constantFrom(...wiring), (lift, { hypothesis, i }) => {
        const hunt = twoPort.again()
        const log: HuntEntry[] = [...isolated, { id: 'lift', do: lift }, { id: 'rest-2', do: 'settle' }, insulation]
        hunt.follow(log)
        const own = new Course(restOf(circuit, hypothesis.variant).fork())
        log.forEach((entry) => 'do' in entry && own.act(entry.do))
        expect(hunt.fits(i).at(-1)!.expected).toEqual(own.shows(see.see).expected)
        // Worked out ahead, before it is lifted, it is the same.
        hunt.follow(isolated)
        const ahead = hunt.courseApart(i)
        log.slice(2).forEach((entry) => 'do' in entry && ahead.act(entry.do))
        expect(ahead.shows(see.see).expected).toEqual(own.shows(see.see).expected)
      }),
      { numRuns: 12 },
    )
  })

  it.each([
    ['two-port-heating', 'touching supply.blue+brown'],
    ['two-port-heating', 'touching boiler-cable.brown+green-yellow'],
  ])('%s, %s: found, nothing changed for nothing, and nothing is live while a conductor hangs loose', (id, name) => {
    const hunt = new Hunt(circuitOf(id))
    const truth = hunt.suspects.find((s) => s.id === name)!.hypothesis!
    const { found, wrongParts, wrongElse, log } = called(hunt, { truth: [truth], seed: 4, exact: true })
    expect({ found, wrongParts, wrongElse }).toEqual({ found: true, wrongParts: 0, wrongElse: 0 })
    const loose = new Set<string>()
    let lifted = 0
    for (const entry of log) {
      if (!('do' in entry)) continue
      const rewiring = rewiringOf(entry.do)
      if (rewiring?.what === 'lift' && !rewiring.back) lifted++
      if (rewiring?.what === 'lift') loose[rewiring.back ? 'delete' : 'add'](rewiring.of)
      if (entry.do === 'spur.switch=on') expect([...loose]).toEqual([])
    }
    expect(lifted).toBeGreaterThan(0)
  })
})
