import { circuitOf, installationOf } from '../../testing'
import { compile } from '../circuit'
import { reasonText } from '../wording'
import { Hunt, reasonsOf, type HuntEntry } from '.'

const look = (id: string): HuntEntry => ({ id, see: { at: 'boiler', device: 'boiler' }, found: { word: 'not-called' } })
const acts = (...texts: string[]): HuntEntry[] => texts.map((text, i) => ({ id: `act-${i}-${text}`, do: text }))
const said = (demand: string): HuntEntry => ({ id: `said-${demand}`, says: { what: 'does-not-come-on', demand } })
const texts = (example: string, log: HuntEntry[]) => {
  const circuit = circuitOf(example)
  return reasonsOf(circuit, log).map(({ reason }) => reasonText(circuit, reason))
}

describe('why an installation in order does what was complained of', () => {
  it('a cylinder is hot already: its thermostat is satisfied', () => {
    const log = [said('hot-water'), ...acts('programmer.hot-water=on', 'settle'), look('seen')]
    expect(texts('two-port-heating-hot-water', log)).toEqual([
      'Hot water is not called: cylinder thermostat is satisfied',
    ])
  })

  it('a channel is off, whatever the thermostat asks', () => {
    const log = [said('heating-1'), ...acts('stat-1.set=30', 'settle'), look('seen')]
    expect(texts('two-port-heating-hot-water', log)).toEqual(['House is not called: its channel of programmer is off'])
  })

  it('hot water goes first, where both cannot be served', () => {
    const log = [
      said('heating-1'),
      ...acts('programmer.heating=on', 'stat-1.set=30', 'programmer.hot-water=on', 'cyl-stat.set=75', 'settle'),
      look('seen'),
    ]
    expect(texts('hot-water-priority', log)).toEqual(
      expect.arrayContaining([expect.stringMatching(/waits: hot water goes first/)]),
    )
  })

  it('a mid-position valve stays over once heating is done', () => {
    const log = [
      said('heating-1'),
      ...acts('programmer.heating=on', 'stat-1.set=30', 'settle', 'programmer.heating=off', 'settle'),
      look('seen'),
    ]
    expect(texts('mid-position', log)).toEqual([
      'Mid-position valve stays where it was driven last: it moves on only when another service calls',
    ])
  })

  it('of each the lines are told at which it held; of nothing looked at there is none', () => {
    const circuit = circuitOf('two-port-heating')
    const log = [
      look('before'),
      ...acts('programmer.heating=on', 'stat-1.set=30', 'settle'),
      look('called'),
      ...acts('programmer.heating=off', 'settle'),
      look('after'),
    ]
    const off = reasonsOf(circuit, log).find(({ reason }) => reason.why === 'channel-off')
    expect(off?.findings).toEqual(['before', 'after'])
    expect(reasonsOf(circuit, acts('programmer.heating=on', 'settle'))).toEqual([])
  })

  it('a frost thermostat asks past the programmer, in the cold and only then', () => {
    const doc = installationOf('two-port-heating-hot-water')
    const motor = doc.cables
      .find(({ id }) => id === 'zv-1-lead')!
      .cores.find(({ id }) => id === 'brown')!
      .ends.find((end) => end.at === 'terminal' && end.terminal.startsWith('wc.'))!
    const [supply] = doc.cables.find(({ id }) => id === 'supply')!.cores[0].ends.filter((end) => end.at === 'terminal')
    doc.devices.push({
      id: 'frost',
      type: 'frost-thermostat',
      name: 'Frost thermostat',
      place: doc.places[0].id,
      settings: {},
    })
    doc.cables.push({
      id: 'frost-cable',
      ratedForMains: true,
      label: 'Frost thermostat cable',
      cores: [
        { id: 'brown', colour: 'brown', areaMm2: 0.75, ends: [{ at: 'terminal', terminal: 'frost.L' }, supply] },
        { id: 'black', colour: 'black', areaMm2: 0.75, ends: [{ at: 'terminal', terminal: 'frost.SL' }, motor] },
      ],
    })
    const circuit = compile(doc)
    const told = (...actions: string[]) =>
      reasonsOf(circuit, [...acts(...actions, 'settle'), look('seen')])
        .map(({ reason }) => reasonText(circuit, reason))
        .filter((text) => text.startsWith('Frost'))
    expect(told('frost.air=2')).toEqual([
      'Frost thermostat asks, whatever is set: no service is asked for, and without it there is no call',
    ])
    expect(told('frost.air=12')).toEqual([])
    // Whoever asks for the same is told that, not the frost thermostat.
    expect(told('frost.air=2', 'programmer.heating=on', 'stat-1.set=30')).toEqual([])
  })
})

it('a burner that keeps its least time off is a reason, and no fault', () => {
  const hunt = new Hunt(circuitOf('two-port-heating-hot-water'))
  const acts = ['stat-1.set=30', 'programmer.heating=on', 'settle', 'programmer.heating=off', 'wait=1min']
  const again = ['programmer.heating=on', 'wait=40s']
  const log: HuntEntry[] = [
    ...[...acts, ...again].map((text, i): HuntEntry => ({ id: `a${i}`, do: text })),
    { id: 'display', see: { at: 'display', device: 'boiler' }, found: { word: 'waits-off' } },
  ]
  hunt.follow(log)
  const { shares } = hunt.ranking()
  const [best] = [...shares.keys()].sort((x, y) => shares[y] - shares[x])
  expect(hunt.suspects[best]).toMatchObject({ id: 'made boiler.off-time 3', remedy: '' })
  expect(shares[best]).toBeGreaterThan(0.3)
})
