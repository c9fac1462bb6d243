import { circuitOf } from '../../testing'
import { proofsLeft, servicesUntried, type HuntEntry, type NextLook } from '.'

const circuit = circuitOf('two-port-heating-hot-water')
const said = (what: string, demand = 'heating-1') => ({ id: `${what} ${demand}`, says: { what, demand } }) as HuntEntry
const mended = (id = 'zv-1.motor.open'): HuntEntry => ({ id: `mended ${id}`, mended: id })
const kept = ({ asking, see }: NextLook) => ({ asking, see })
/** The log after a look was made as it was asked for. */
const after = (log: HuntEntry[], { acts, see }: NextLook, word: string): HuntEntry[] => [
  ...log,
  ...acts.map((act, i): HuntEntry => ({ id: `${log.length} ${i}`, do: act })),
  { id: `${log.length} seen`, see, found: { word } },
]

const heating = ['programmer.heating', 'stat-1.contact']
const hotWater = ['programmer.hot-water', 'cyl-stat.contact']
const radiators = { at: 'warmth', device: 'radiators-heating-1' }
const cylinder = { at: 'warmth', device: 'hot-water-cylinder' }
const call = { at: 'boiler', device: 'boiler' }

describe('the proof of a cure', () => {
  it('is the same demand again, as soon as something was put right; given where it shows what it should', () => {
    const log = [said('does-not-come-on')]
    expect(proofsLeft(circuit, log)).toEqual([])
    const put = [...log, mended()]
    const [proof, ...more] = proofsLeft(circuit, put)
    expect([kept(proof), more]).toEqual([{ asking: heating, see: radiators }, []])
    expect(proof.acts.slice(0, 2)).toEqual(['programmer.heating=on', 'stat-1.set=30'])
    expect(proofsLeft(circuit, after(put, proof, 'warms'))).toEqual([])
    expect(proofsLeft(circuit, after(put, proof, 'stays-cold')).map(kept)).toEqual([kept(proof)])
    // Once something else was put right, what was seen before is no proof of that.
    expect(proofsLeft(circuit, [...after(put, proof, 'warms'), mended('zv-hw.motor.open')]).map(kept)).toEqual([
      kept(proof),
    ])
  })

  it.each<[string, [NextLook['asking'], NextLook['see'], string][]]>([
    [
      'never-goes-off',
      [
        [heating, radiators, 'warms'],
        [[], call, 'not-called'],
      ],
    ],
    [
      'comes-on-by-itself',
      [
        [heating, radiators, 'warms'],
        [[], call, 'not-called'],
      ],
    ],
    [
      'warms-with-another',
      [
        [hotWater, cylinder, 'warms'],
        [hotWater, radiators, 'stays-cold'],
      ],
    ],
    [
      'gets-too-hot',
      [
        [heating, radiators, 'warms'],
        [['programmer.heating'], radiators, 'stays-cold'],
      ],
    ],
    ['only-with-another', [[heating, radiators, 'warms']]],
  ] as never)('of "%s" is seen where it shows; that something stays off, where something comes on', (what, steps) => {
    const log = [said(what), mended()]
    expect(proofsLeft(circuit, log).map(kept)).toEqual(steps.map(([asking, see]) => ({ asking, see })))
    const told = steps.reduce((now, [, , word]) => after(now, proofsLeft(circuit, now)[0], word), log)
    expect(proofsLeft(circuit, told)).toEqual([])
  })

  it('of a clock is the clock, as things stand, once; set for it are controls only where it is dark without', () => {
    const log = [said('comes-on-at-wrong-times'), mended('start programmer clock')]
    const [clock] = proofsLeft(circuit, log)
    expect(clock).toMatchObject({ acts: [], see: { at: 'clock', device: 'programmer' } })
    const told = after(log, clock, 'right')
    const [warms, ...more] = proofsLeft(circuit, told)
    expect([kept(warms), more]).toEqual([{ asking: heating, see: radiators }, []])
    expect(proofsLeft(circuit, after(told, warms, 'warms'))).toEqual([])
    const electric = circuitOf('single-zone-electric')
    const [first] = proofsLeft(electric, [said('comes-on-at-wrong-times'), mended('start stat-1 clock')]).filter(
      ({ see }) => see.at === 'clock' && see.device === 'stat-1',
    )
    expect(first.acts).toContain('programmer.heating=on')
  })

  it('of a fuse that blew is the fuse, with the demand on, and that it warms', () => {
    expect(proofsLeft(circuit, [said('blows-the-fuse'), mended()]).map(({ see }) => see.at)).toEqual(['fuse', 'warmth'])
  })

  it('is asked of every service that was complained of, or of all where none was', () => {
    const both = [
      said('does-not-come-on'),
      said('does-not-come-on', 'hot-water'),
      said('is-fine', 'hot-water'),
      mended(),
    ]
    expect(proofsLeft(circuit, both)).toHaveLength(2)
    expect(proofsLeft(circuit, [mended()])).toHaveLength(2)
  })
})

describe('a service that nobody spoke of', () => {
  const untried = (log: readonly HuntEntry[]) => servicesUntried(circuit, log)
  const put = [said('does-not-come-on'), mended()]

  it('is to be tried once, alone, when something was put right; seen to warm before that it is seen', () => {
    expect(untried([said('does-not-come-on')])).toEqual([])
    const [{ demand, look, refused }, ...more] = untried(put)
    expect([demand.id, kept(look), refused, more]).toEqual([
      'hot-water',
      { asking: hotWater, see: cylinder },
      false,
      [],
    ])
    expect(look.acts).toContain('programmer.hot-water=on')
    expect(untried(after(put, look, 'warms'))).toEqual([])
    const before = after([said('does-not-come-on')], look, 'warms')
    expect(untried([...before, mended()])).toEqual([])
    // That it stays cold is a finding, and no reason to leave it.
    expect(untried(after(put, look, 'stays-cold')).map((one) => one.refused)).toEqual([false])
  })

  it('may be left untried, and is told as that, whether or not it was set for it', () => {
    const [{ look }] = untried(put)
    const left: HuntEntry = { id: 'left', see: look.see, found: 'cannot-do', after: look.acts }
    expect(untried([...put, left]).map(({ demand, refused }) => [demand.id, refused])).toEqual([['hot-water', true]])
    const set = look.acts.map((act, i): HuntEntry => ({ id: `set-${i}`, do: act }))
    const looked: HuntEntry = { id: 'looked', see: look.see, found: 'cannot-tell' }
    expect(untried([...put, ...set, looked]).map(({ refused }) => refused)).toEqual([true])
  })

  it('is none where it was complained of, or all were, or it was said to be fine, or nothing was said at all', () => {
    const all = { id: 'all', says: { what: 'blows-the-fuse' } } as HuntEntry
    expect(untried([all, mended()])).toEqual([])
    expect(untried([...put, said('is-fine', 'hot-water')])).toEqual([])
    expect(untried([...put, said('gets-too-hot', 'hot-water')])).toEqual([])
    expect(untried([mended()])).toEqual([])
  })
})
