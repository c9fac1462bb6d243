import { circuitOf } from '../../testing'
import { linkOutsOf } from '../../testing/link-outs'
import { examples } from '../examples'
import { lookAt } from '../looks'
import { Simulation } from '../simulation'
import { advice, Course, Hunt, type HuntEntry } from '.'
import { withRewiring } from './rewiring'

const asEntries = (...acts: string[]): HuntEntry[] => acts.map((text, i) => ({ id: `a${i}`, do: text }))
const neverGoesOff: HuntEntry = { id: 'c', says: { what: 'never-goes-off', demand: 'heating-1' } }
const offPlate = (hunt: Hunt, log: HuntEntry[]) =>
  advice(hunt, log, 3000, { everyState: true }).next.filter(({ acts }) =>
    acts.some((act) => act.startsWith('off-plate=')),
  )

describe('a control taken off its plate', () => {
  it('is worth it where something runs that nobody asks for, and not where nothing comes on', () => {
    const circuit = circuitOf('two-port-heating-hot-water')
    const hunt = new Hunt(circuit)
    hunt.follow([neverGoesOff])
    const offered = offPlate(hunt, [neverGoesOff])
    expect(offered.some(({ acts }) => acts.includes('off-plate=programmer'))).toBe(true)
    const cold: HuntEntry[] = [
      { id: 'c', says: { what: 'does-not-come-on' } },
      ...asEntries('programmer.heating=on', 'stat-1.set=30', 'settle'),
      { id: 'boiler', see: { at: 'boiler', device: 'boiler' }, found: { word: 'not-called' } },
      ...asEntries('programmer.heating=off', 'settle').map((entry) => ({ ...entry, id: `${entry.id}-off` })),
      { id: 'boiler-2', see: { at: 'boiler', device: 'boiler' }, found: { word: 'not-called' } },
    ]
    hunt.follow(cold)
    expect(offPlate(hunt, cold)).toEqual([])
  })

  it('comes off dead, and is live again for the look; the next look elsewhere has it back on', () => {
    const circuit = circuitOf('two-port-heating-hot-water')
    const hunt = new Hunt(circuit)
    hunt.follow([neverGoesOff])
    for (const { acts } of offPlate(hunt, [neverGoesOff])) {
      const at = acts.findIndex((act) => act.startsWith('off-plate='))
      expect(acts.slice(0, at)).toContain('spur.switch=off')
      expect(acts.slice(at)).toContain('spur.switch=on')
    }
    const taken = [neverGoesOff, ...asEntries(...offPlate(hunt, [neverGoesOff])[0].acts)]
    hunt.follow(taken)
    for (const { acts } of advice(hunt, taken, 3000, { everyState: true }).next)
      if (acts.some((act) => /^(programmer|stat-1|cyl-stat)\./.test(act)))
        expect(acts.some((act) => act.startsWith('on-plate='))).toBe(true)
  })

  it('tells a welded channel from all that lies behind it', () => {
    const circuit = circuitOf('two-port-heating-hot-water')
    const hunt = new Hunt(circuit)
    const acts = ['stat-1.set=30', 'spur.switch=off', 'off-plate=programmer', 'spur.switch=on', 'settle']
    const after = (word: string) => {
      const log: HuntEntry[] = [
        neverGoesOff,
        ...asEntries(...acts),
        { id: 'boiler', see: { at: 'boiler', device: 'boiler' }, found: { word } },
      ]
      hunt.follow(log)
      const { shares } = hunt.ranking()
      const of = (is: (id: string) => boolean) =>
        hunt.suspects.reduce((sum, { id }, i) => (is(id) ? sum + shares[i] : sum), 0)
      return of((id) => id.startsWith('programmer.heating.'))
    }
    const [runsOn, stops] = [after('called'), after('not-called')]
    expect(stops).toBeGreaterThan(10 * runsOn)
  })

  it('leaves joined what its plate holds: conductors in one terminal, and links fitted on it', () => {
    for (const { id } of examples) {
      const { installation } = circuitOf(id)
      for (const { id: device } of installation.devices) {
        const ends = (doc: typeof installation) =>
          doc.cables.flatMap(({ cores }) => cores.flatMap(({ ends: both }) => both.map((end) => end)))
        const [before, after] = [
          ends(installation),
          ends(withRewiring(installation, [{ what: 'off-plate', of: device }])),
        ]
        const at = new Map<string, string[]>()
        before.forEach((end, i) => {
          if (end.at !== 'terminal' || !end.terminal.startsWith(`${device}.`)) return
          const now = after[i]
          expect(now.at).not.toBe('terminal')
          at.set(end.terminal, [...(at.get(end.terminal) ?? []), now.at === 'connector' ? now.connector : `loose ${i}`])
        })
        for (const held of at.values()) expect(new Set(held).size).toBe(1)
      }
    }
  })
})

describe('a link that needs something parked', () => {
  const circuit = circuitOf('mid-position')
  const past = (role: string) => linkOutsOf(circuit, new Set(['hot-water'])).find(({ past: [what] }) => what === role)!

  it('goes past the cylinder thermostat of a mid-position valve with its satisfied conductor parked', () => {
    const [parked] = past('thermostat').parked
    const [cable, core, end] = parked.split('.')
    const { ends } = circuit.installation.cables.find((c) => c.id === cable)!.cores.find((k) => k.id === core)!
    // Parked in the box: its other end is at the thermostat.
    expect(ends[1 - Number(end)]).toMatchObject({ at: 'terminal', terminal: 'cyl-stat.SATISFIED' })
    expect(past('channel').parked).toEqual([])
  })

  it('would call the boiler with all controls off were it not parked', () => {
    const { between, parked } = past('thermostat')
    const called = (...acts: string[]) => {
      const course = new Course(new Simulation(circuit))
      for (const act of [...acts, `link=${between.join('+')}`, 'settle']) course.act(act)
      return lookAt(course.sim, { at: 'boiler', device: 'boiler' })
    }
    expect(called()).toEqual({ word: 'called' })
    expect(called(`park=${parked[0]}`)).toEqual({ word: 'not-called' })
  })

  it('is never looked at without, whether every state was thought of or the best only', () => {
    const hunt = new Hunt(circuit)
    const log: HuntEntry[] = [{ id: 'c', says: { what: 'does-not-come-on', demand: 'hot-water' } }]
    hunt.follow(log)
    const offered = linkOutsOf(circuit, new Set(['hot-water'])).map(({ between, parked }) =>
      [...parked.map((end) => `park=${end}`), `link=${between.join('+')}`].join(),
    )
    // Where nothing but the boiler is looked at, a link is among the best states.
    const looks = [{ at: 'boiler', device: 'boiler' }] as const
    for (const everyState of [true, false]) {
      const disturbed = advice(hunt, log, 3000, { everyState, looks }).next.map(({ acts }) =>
        acts.filter((act) => /^(park|link)=/.test(act)).join(),
      )
      const linked = new Set(disturbed.filter((acts) => acts !== ''))
      expect(linked.size).toBeGreaterThan(0)
      for (const acts of linked) expect(offered).toContain(acts)
    }
  })

  it('is parked before the link goes in, both with the supply off, and comes back with it', () => {
    const hunt = new Hunt(circuit)
    const log: HuntEntry[] = [{ id: 'c', says: { what: 'does-not-come-on', demand: 'hot-water' } }]
    hunt.follow(log)
    const { parked } = past('thermostat')
    const next = advice(hunt, log, 3000, { everyState: true }).next.find(({ acts }) =>
      acts.includes(`park=${parked[0]}`),
    )!
    const [park, link, on] = [`park=${parked[0]}`, /^link=/, 'spur.switch=on'].map((what) =>
      next.acts.findIndex((act) => (typeof what === 'string' ? act === what : what.test(act))),
    )
    expect(next.acts.slice(0, park)).toContain('spur.switch=off')
    expect([park < link, link < on]).toEqual([true, true])
    const linked = [...log, ...asEntries(...next.acts)]
    hunt.follow(linked)
    for (const { acts } of advice(hunt, linked, 3000, { everyState: true }).next)
      if (acts.some((act) => act.startsWith('unlink='))) expect(acts).toContain(`unpark=${parked[0]}`)
  })
})

it('a channel that two zones share is linked past for both', () => {
  const circuit = circuitOf('two-port-two-heating')
  const offered = linkOutsOf(circuit, new Set(['heating-1', 'heating-2']))
  expect(offered.filter(({ past: [what] }) => what === 'channel').map(({ demand }) => demand.id)).toEqual([
    'heating-1',
    'heating-2',
  ])
})
