import { circuitOf } from '../../testing'
import { linkOutsOf } from '../../testing/link-outs'
import { lookAt, wordOf, type Look } from '../looks'
import { ActionError, Simulation } from '../simulation'
import { advice, Course, Hunt, type HuntEntry } from '.'

const twoPort = circuitOf('two-port-heating-hot-water')
const volts = (red: string): Look => ({ at: 'points', with: 'tester', red })

describe('wiring disturbed for a test', () => {
  const after = (...acts: string[]) => {
    const course = new Course(new Simulation(twoPort))
    acts.forEach((act) => course.act(act))
    return (look: Look) => {
      const shown = lookAt(course.sim, look)
      return wordOf(shown) ?? shown
    }
  }

  it('a link past the thermostat drives the valve; taken out again, it goes back', () => {
    const linked = ['programmer.heating=on', 'link=wc.19+wc.21', 'settle']
    expect(after('programmer.heating=on', 'settle')({ at: 'lever', device: 'zv-1' })).toBe('stiff')
    expect(after(...linked)({ at: 'lever', device: 'zv-1' })).toBe('slack')
    expect(after(...linked, 'unlink=wc.19+wc.21', 'settle')({ at: 'lever', device: 'zv-1' })).toBe('stiff')
  })

  it('a conductor that is lifted carries nothing, and all when it is landed again', () => {
    const asking = ['programmer.heating=on', 'stat-1.set=30', 'settle']
    expect(after(...asking)(volts('wc.21'))).toBe('live')
    const { cores } = twoPort.installation.cables.find((c) => c.id === 'stat-1-cable')!
    const lies = (end: (typeof cores)[number]['ends'][number]) => end.at === 'terminal' && end.terminal === 'wc.21'
    const core = cores.find((k) => k.ends.some(lies))!
    const lift = `lift=stat-1-cable.${core.id}.${core.ends.findIndex(lies)}`
    expect(after(...asking, lift, 'settle')(volts('wc.21'))).toBe('dead')
    expect(after(...asking, lift, lift.replace('lift', 'land'), 'settle')(volts('wc.21'))).toBe('live')
  })

  it('off its plate a programmer calls for nothing, whatever is welded in it; back on it, it does', () => {
    const welded = 'programmer.heating=on'
    const off = after(welded, 'stat-1.set=30', 'off-plate=programmer', 'settle')
    expect(off({ at: 'boiler', device: 'boiler' })).toEqual('not-called')
    const on = after(welded, 'stat-1.set=30', 'off-plate=programmer', 'on-plate=programmer', 'settle')
    expect(on({ at: 'boiler', device: 'boiler' })).toEqual('called')
  })

  it('is refused where there is nothing to disturb, or nothing to be put back', () => {
    for (const [acts, reason] of [
      [['link=wc.1+wc.99'], 'there is no terminal "wc.99"'],
      [['lift=supply.pink.0'], 'there is no end of a conductor "supply.pink.0"'],
      [['off-plate=sauna'], 'there is no device "sauna"'],
      [['unlink=wc.1+wc.2'], '"wc.1+wc.2" is not disturbed'],
      [['link=wc.19+wc.21', 'link=wc.19+wc.21'], 'is disturbed already'],
    ] as [string[], string][]) {
      expect(() => after(...acts)).toThrow(ActionError)
      expect(() => after(...acts)).toThrow(reason)
    }
  })

  it('and what it tells is told of every suspect: linked past the thermostat, it is not the thermostat', () => {
    const hunt = new Hunt(twoPort)
    const acts = ['programmer.heating=on', 'stat-1.set=30', 'link=wc.19+wc.21', 'settle']
    const log: HuntEntry[] = acts.map((text, i) => ({ id: `a${i}`, do: text }))
    log.push({ id: 'lever', see: { at: 'lever', device: 'zv-1' }, found: { word: 'stiff' } })
    const share = (id: string) => hunt.ranking().shares[hunt.suspects.findIndex((s) => s.id === id)]
    hunt.follow([])
    const before = share('stat-1.contact.never-makes')
    hunt.follow(log)
    expect(share('stat-1.contact.never-makes')).toBeLessThan(before / 3)
    expect(share('zv-1.motor.open')).toBeGreaterThan(0.1)
  })
})

describe('a link that is offered', () => {
  it('lies past a channel or a thermostat of the service that was complained of, with the supply off when it is put in and out', () => {
    const hunt = new Hunt(twoPort)
    const log: HuntEntry[] = [{ id: 'c', says: { what: 'does-not-come-on', demand: 'heating-1' } }]
    hunt.follow(log)
    const linked = advice(hunt, log, 2000, { everyState: true }).next.filter((n) =>
      n.acts.some((a) => a.startsWith('link=')),
    )
    expect(linked.length).toBeGreaterThan(0)
    const ends = linkOutsOf(twoPort, new Set(['heating-1'])).map((l) => `link=${l.between.join('+')}`)
    for (const { acts } of linked) {
      const at = acts.findIndex((a) => a.startsWith('link='))
      expect(ends).toContain(acts[at])
      expect(acts.slice(0, at)).toContain('spur.switch=off')
      expect(acts.slice(at)).toContain('spur.switch=on')
    }
    // Whatever is looked at next elsewhere, the link comes out first.
    const in1: HuntEntry[] = linked[0].acts.map((text, i) => ({ id: `l${i}`, do: text }))
    const with1 = [...log, ...in1]
    hunt.follow(with1)
    for (const { acts } of advice(hunt, with1, 2000, { everyState: true }).next)
      if (acts.some((a) => /^(programmer|stat-1|cyl-stat)\./.test(a)))
        expect(acts.some((a) => a.startsWith('unlink='))).toBe(true)
  })

  it('is judged anew where more states are gone through: what one bound could not look at another may', () => {
    const circuit = circuitOf('two-port-heating-hot-water')
    const heating = new Set(['heating-1'])
    expect(linkOutsOf(circuit, heating, 2)).toEqual([])
    expect(linkOutsOf(circuit, heating).length).toBeGreaterThan(0)
    expect(linkOutsOf(circuit, heating, 2)).toEqual([])
  })

  it('is none past a limit: with every link that is offered in, a tripped limit still shuts the hot water', () => {
    const circuit = circuitOf('unvented')
    const offered = linkOutsOf(circuit, new Set(['hot-water']), 60_000)
    expect(offered.length).toBeGreaterThan(0)
    const limits = circuit.sensors.flatMap(({ device, throws }) =>
      throws
        ? [{ device: circuit.devices[device].device.id, control: circuit.controls[throws.control], to: throws.to }]
        : [],
    )
    expect(limits.length).toBeGreaterThan(0)
    for (const { between } of offered) {
      const course = new Course(new Simulation(circuit))
      for (const act of ['programmer.hot-water=on', 'cyl-stat.set=75', `link=${between.join('+')}`, 'settle'])
        course.act(act)
      const warm = () => lookAt(course.sim, { at: 'lever', device: 'zv-hw' })
      expect(warm()).toEqual({ word: 'slack' })
      for (const { device, control, to } of limits) course.act(`${device}.${control.id}=${to}`)
      course.act('settle')
      expect(warm()).toEqual({ word: 'stiff' })
    }
  })

  it('is none where a state with the link in is dangerous: no boiler is called past a valve that stands shut', () => {
    for (const id of ['two-port-heating-hot-water', 'single-zone']) {
      const circuit = circuitOf(id)
      const all = new Set(circuit.installation.intent.demands.map((d) => d.id))
      const atBoiler = linkOutsOf(circuit, all).filter((l) => l.between.every((ref) => ref.startsWith('boiler.')))
      expect(atBoiler.length > 0).toBe(id === 'single-zone')
    }
  })
})
