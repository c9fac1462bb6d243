import fc from 'fast-check'
import { circuitOf, installationOf, loosenCore, rigAfter } from '../../testing'
import { hasClock } from '../catalogue'
import { compile } from '../circuit'
import { examples } from '../examples'
import { agrees, lookAt, wordOf, type Look, type LookResult } from '.'

const twoPort = circuitOf('two-port-heating-hot-water')
const midPosition = circuitOf('mid-position')
const heating = ['programmer.heating=on', 'stat-1.set=30']
const at = (circuit: typeof twoPort, look: Look, ...actions: string[]) =>
  lookAt(rigAfter(circuit, ...actions).simulation, look)
const said = (circuit: typeof twoPort, look: Look, ...actions: string[]) => {
  const shown = at(circuit, look, ...actions)
  return 'word' in shown ? shown.word : shown
}

describe('a look', () => {
  it('feels a lever stiff at rest, half way while it travels, slack when driven open, fixed when seized', () => {
    const lever: Look = { at: 'lever', device: 'zv-1' }
    expect(said(twoPort, lever)).toBe('stiff')
    expect(said(twoPort, lever, ...heating, 'wait=7s')).toBe('half-way')
    expect(said(twoPort, lever, ...heating, 'wait=60s')).toBe('slack')
    expect(said(twoPort, lever, ...heating, 'fault=zv-1.travel.seized-shut', 'wait=60s')).toBe('fixed')
  })

  it('hears a motor hum, and nothing of one whose winding is open', () => {
    const motor: Look = { at: 'motor', device: 'zv-1' }
    expect(said(twoPort, motor)).toBe('silent')
    expect(said(twoPort, motor, ...heating, 'wait=60s')).toBe('hums')
    expect(said(twoPort, motor, 'fault=zv-1.motor.open', ...heating, 'wait=60s')).toBe('silent')
  })

  it('hears a mid-position head buzz that goes to and fro', () => {
    const both = [...heating, 'programmer.hot-water=on', 'cyl-stat.set=75']
    const motor: Look = { at: 'motor', device: 'valve' }
    expect(said(midPosition, motor, ...both, 'wait=60s')).toBe('hums')
    expect(said(midPosition, motor, 'fault=valve.hold-path.open', ...both, 'wait=300s')).toBe('buzzes')
  })

  const clocked = examples.map(({ id }) => id).filter((id) => circuitOf(id).devices.some(({ type }) => hasClock(type)))
  it.each(clocked)('reads the clocks of %s: right, by half a day wrong, and dark', (id) => {
    const circuit = circuitOf(id)
    // One may be fed by another's channel.
    const on = circuit.devices.flatMap(({ device, type }) =>
      type.controls.flatMap((c) =>
        c.kind === 'choice' && c.timed && c.values.some((v) => v.id === 'on') ? [`${device.id}.${c.id}=on`] : [],
      ),
    )
    for (const { device, type } of circuit.devices.filter((one) => hasClock(one.type))) {
      const clock: Look = { at: 'clock', device: device.id }
      expect(said(circuit, clock, ...on, 'wait=1s')).toBe('right')
      expect(said(circuit, clock, ...on, `lost-time=${device.id}/720`, 'wait=1s')).toBe('wrong')
      const off = circuit.devices.flatMap(({ device: { id: of }, type: { controls } }) =>
        controls.some((c) => c.id === 'switch') ? [`${of}.switch=off`] : [],
      )
      const lit = type.primitives.some((part) => part.kind === 'load' && part.lights)
      if (lit && off.length > 0) expect(said(circuit, clock, ...off, 'wait=1s')).toBe('dark')
    }
  })

  it('counts the clicks since an act', () => {
    const clicks = (...actions: string[]) => said(twoPort, { at: 'clicks', device: 'stat-1', since: 1 }, ...actions)
    expect(clicks('wait=1s', 'programmer.heating=on', 'wait=2s')).toBe('none')
    expect(clicks('wait=1s', ...heating, 'wait=2s')).toBe('one')
  })

  it('feels pipes and what they warm, at a moment and once they have had their time', () => {
    const before: Look = { at: 'pipe', connection: 'boiler.flow' }
    const on = [...heating, 'wait=20s']
    const way = twoPort.water.sources.find((s) => s.way !== undefined)!
    const [source] = twoPort.water.ways.filter((_, i) => i === way.way)
    const out: Look = { ...before, connection: `boiler.${source.part.to}` }
    expect([said(twoPort, out), said(twoPort, out, ...on, 'wait=300s')]).toEqual(['cold', 'hot'])
    const { id } = twoPort.devices[twoPort.water.emitters[0].device].device
    expect(said(twoPort, { at: 'warmth', device: id })).toBe('stays-cold')
    expect(said(twoPort, { at: 'warmth', device: id }, ...on, 'wait=300s')).toBe('warms')
    const flow = at(twoPort, { at: 'flow-temperature', device: 'boiler' }, ...on, 'wait=300s')
    expect(flow).toMatchObject({ unit: '°C', value: expect.closeTo(70, 0) })
  })

  it('reads the display with its phase, lamps, a fuse, and what is drawn', () => {
    const display: Look = { at: 'display', device: 'boiler' }
    expect(said(twoPort, display)).toBe('idle')
    expect(said(twoPort, display, ...heating, 'wait=20s')).toBe('self-check')
    expect(said(twoPort, display, ...heating, 'wait=300s')).toBe('firing')
    const lamps: Look = { at: 'lamps', device: 'programmer' }
    expect(said(twoPort, lamps)).toBe('lit')
    expect([said(twoPort, lamps, 'spur.switch=off', 'wait=1s'), said(twoPort, { at: 'fuse', device: 'spur' })]).toEqual(
      ['dark', 'whole'],
    )
    const power = at(twoPort, { at: 'points', with: 'power', red: 'spur.L' })
    expect(power).toMatchObject({ unit: 'W', value: expect.closeTo(42, 0) })
  })

  it('says that there is nothing to look at rather than a word', () => {
    for (const look of [
      { at: 'lever', device: 'boiler' },
      { at: 'display', device: 'pump' },
      { at: 'pipe', connection: 'pump.nowhere' },
      { at: 'lamps', device: 'nobody' },
    ] as Look[])
      expect(at(twoPort, look)).toEqual({ unknown: 'nothing-there' })
  })
})

describe('two terminals are two terminals', () => {
  it('a tester on line and neutral in the box reads the neutral of the box, not the street’s', () => {
    const doc = installationOf('two-port-heating-hot-water')
    const supply = doc.cables.find(({ cores }) =>
      cores.some((k) => k.ends.some((e) => e.at === 'terminal' && e.terminal === 'spur.N')),
    )!
    const lost = compile(doc)
    const name = `${supply.id}.${supply.cores.find((k) => k.colour === 'blue')!.id}.open`
    const line: Look = { at: 'points', with: 'tester', red: 'wc.1' }
    expect(wordOf(at(lost, line))).toBe('live')
    // Line is there, and nothing comes back: between the two terminals of the box there is nothing to be read.
    expect(wordOf(at(lost, line, `fault=${name}`))).toBe('dead')
    expect(rigAfter(lost, `fault=${name}`).simulation.potentialAt('wc.1').state).toBe('live')
    loosenCore(doc, supply.id, 'brown', 1)
    expect(wordOf(at(compile(doc), line))).toBe('dead')
  })
})

describe('whether a finding agrees', () => {
  const volts = (value: number): LookResult => ({ value, unit: 'V', full: 230 })

  it('takes numbers within what an instrument shows, words for what they mean, and leaves open what is neither', () => {
    expect(agrees(volts(230), volts(228))).toBe(true)
    expect(agrees(volts(230), volts(210))).toBe(false)
    expect(agrees(volts(230), { word: 'live' })).toBe(true)
    expect(agrees(volts(3), { word: 'live' })).toBe(false)
    expect([agrees(volts(115), { word: 'live' }), agrees(volts(115), { word: 'dead' })]).toEqual([true, true])
    expect(agrees({ value: null, unit: 'Ω' }, { value: 0.4, unit: 'Ω' })).toBe(false)
    expect(agrees({ value: 0.4, unit: 'Ω' }, { value: 0.4, unit: 'MΩ' })).toBe(false)
    // How much a meter picks up on an open core depends on cables that nobody has measured.
    expect([agrees(volts(60), volts(110)), agrees(volts(60), volts(110), 'meter')]).toEqual([false, true])
  })

  const anything: fc.Arbitrary<LookResult> = fc.oneof(
    fc.double({ min: 0, max: 260, noNaN: true }).map(volts),
    fc.constantFrom<LookResult>(
      { word: 'live' },
      { word: 'dead' },
      { unknown: 'open-end' },
      { value: null, unit: 'Ω' },
    ),
  )
  it('goes both ways, and everything agrees with itself', () => {
    fc.assert(
      fc.property(anything, anything, (one, other) => {
        expect(agrees(one, one)).toBe(true)
        expect(agrees(one, other)).toBe(agrees(other, one))
      }),
    )
  })
})
