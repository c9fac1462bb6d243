import { circuitOf, installationOf, loosenCore, rigAfter } from '../../testing'
import { compile } from '../circuit'
import type { Installation } from '../installation'
import { demandStates, signsOf } from '../trace'

const twoPort = () => circuitOf('two-port-heating-hot-water')
const callsOf = (rig: ReturnType<typeof rigAfter>) => signsOf(rig.simulation).boilers[0].calls
const link = (doc: Installation, a: string, b: string, kind: 'fitted' | 'factory' = 'fitted') =>
  doc.links.push({ id: 'stray', kind, between: [a, b] })

describe('a lever latched part open', () => {
  const latched = ['zv-1.lever=latched', 'wait=10s']

  it('holds the valve part open, short of its end switch, whatever the spring does', () => {
    const { simulation } = rigAfter(twoPort(), ...latched)
    expect(simulation.actuatorPosition(0)).toBe(0.5)
    expect(signsOf(simulation).valves[0]).toMatchObject({ place: 'part', lever: 'latched', hums: false })
    expect(signsOf(simulation).boilers[0].calls).toEqual([])
  })

  it('warms its circuit while another calls, and lets go the first time the motor drives', () => {
    const hotWater = ['programmer.hot-water=on', 'cyl-stat.set=75', 'wait=30s']
    const rig = rigAfter(twoPort(), ...latched, ...hotWater)
    expect(signsOf(rig.simulation).warm).toEqual(['heating-1', 'hot-water'])
    rig.perform({ do: 'set', device: 'programmer', control: 'heating', value: 'on' })
    rig.perform({ do: 'set', device: 'stat-1', control: 'set', value: '25' })
    rig.perform({ do: 'wait', ms: 30_000 })
    expect(rig.simulation.control('zv-1', 'lever')).toBe('free')
    rig.perform({ do: 'set', device: 'programmer', control: 'heating', value: 'off' })
    rig.perform({ do: 'wait', ms: 30_000 })
    expect(rig.simulation.actuatorPosition(0)).toBe(0)
  })
})

describe('a high limit', () => {
  const hotWater = ['programmer.hot-water=on', 'cyl-stat.set=75', 'wait=30s']

  it('shuts the hot water valve and stays out until it is cool and the button is pressed', () => {
    const rig = rigAfter(circuitOf('unvented'), ...hotWater)
    const valve = rig.simulation.circuit.actuators.findIndex(
      (a) => rig.simulation.circuit.devices[a.device].device.id === 'zv-hw',
    )
    const after = (control: string, value: string) => {
      rig.perform({ do: 'set', device: 'high-limit', control, value })
      rig.perform({ do: 'wait', ms: 20_000 })
      return rig.simulation.actuatorPosition(valve)
    }
    expect(rig.simulation.actuatorPosition(valve)).toBe(1)
    expect(after('cylinder', '86')).toBe(0)
    // Pressed while hot it trips again; cooled, it stays out until pressed.
    expect(after('reset', 'in')).toBe(0)
    expect(after('cylinder', '60')).toBe(0)
    expect(after('reset', 'in')).toBe(1)
  })
})

describe('relays on a worn supply', () => {
  const both = ['programmer.heating=on', 'stat-1.set=25', 'programmer.hot-water=on', 'cyl-stat.set=75']
  const on = (...actions: string[]) => {
    const { simulation } = rigAfter(twoPort(), 'fault=programmer.dropper.open', ...actions, 'wait=40s')
    return signsOf(simulation).warm
  }

  it('pull in one at a time: the second stays out, whichever it is, and drops in as the first lets go', () => {
    expect(on(...both)).toEqual(['heating-1'])
    expect(on(...both.slice(2), 'wait=1s', ...both.slice(0, 2))).toEqual(['hot-water'])
    expect(on(...both, 'wait=40s', 'programmer.heating=off')).toEqual(['hot-water'])
  })
})

describe('a digital bus', () => {
  const heat = ['receiver.set=25', 'wait=60s']
  const crossed = (doc: Installation) => {
    const [one, other] = doc.cables.find((c) => c.id === 'bus-cable')!.cores
    ;[one.ends[1], other.ends[1]] = [other.ends[1], one.ends[1]]
  }

  it('takes its seconds to come up, and to carry a call', () => {
    const rig = rigAfter(circuitOf('single-zone-bus'), 'receiver.set=25', 'wait=3s')
    expect(callsOf(rig)).toEqual([])
    rig.perform({ do: 'wait', ms: 2000 })
    expect(callsOf(rig)).toEqual(['bus'])
  })

  it('works either way round, and not over one wire, crossed with nothing, or shorted', () => {
    const spoilt = (spoil: (doc: Installation) => void) => {
      const doc = installationOf('single-zone-bus')
      spoil(doc)
      return rigAfter(compile(doc), ...heat)
    }
    expect(callsOf(spoilt(crossed))).toEqual(['bus'])
    for (const spoil of [
      (doc: Installation) => loosenCore(doc, 'bus-cable', 'red', 1),
      (doc: Installation) => link(doc, 'boiler.B1', 'boiler.B2'),
    ]) {
      const { simulation } = spoilt(spoil)
      expect(signsOf(simulation).unlinked).toEqual(['receiver'])
      expect(demandStates(simulation)[0]).toMatchObject({
        word: 'held-up',
        openPoints: [{ at: 'edge', via: { device: 'boiler', part: 'heating-call-relay' } }],
      })
    }
  })

  it('keeps the receiver’s relays out while it is answered, and lets them work when it is not', () => {
    const relay = (...actions: string[]) => {
      const { simulation } = rigAfter(circuitOf('single-zone-bus'), ...actions, ...heat)
      return simulation.circuit.contacts.some(
        (c, i) => c.part.id === 'heating' && c.throw === 'no' && simulation.contactClosed(i),
      )
    }
    expect(relay()).toBe(false)
    expect(relay('fault=receiver.bus.silent')).toBe(true)
  })

  it('is destroyed by mains on its terminals', () => {
    const doc = installationOf('single-zone-bus')
    link(doc, 'boiler.B1', 'boiler.L')
    const { simulation } = rigAfter(compile(doc), 'wait=10s')
    expect(simulation.history.some((e) => e.kind === 'burnt')).toBe(false)
    link(doc, 'boiler.B2', 'boiler.N')
    const { simulation: across } = rigAfter(compile(doc), 'wait=10s')
    expect(across.history.some((e) => e.kind === 'burnt' && e.part === 'port')).toBe(true)
  })
})

describe('a boiler’s linked thermostat pair', () => {
  const withLink = (pair: number, ...actions: string[]) => {
    const doc = installationOf('single-zone-mains')
    doc.links.find((l) => l.between.includes('boiler.T1'))!.kind = 'factory'
    doc.devices.find((d) => d.id === 'boiler')!.settings = { pair }
    return rigAfter(compile(doc), ...actions, 'wait=60s')
  }

  it('left in, calls for ever, or has the mains input ignored, as the boiler is set up', () => {
    expect(callsOf(withLink(0))).toEqual(['T'])
    expect(callsOf(withLink(1))).toEqual([])
    const ignored = withLink(1, 'receiver.set=25')
    expect(callsOf(ignored)).toEqual([])
    expect(demandStates(ignored.simulation)[0].openPoints).toMatchObject([
      { at: 'edge', via: { device: 'boiler', part: 'mains-enable' } },
    ])
  })
})

describe('a valve without a continuous rating', () => {
  it('burns out when it is held open for longer than it is rated', () => {
    const doc = installationOf('low-voltage')
    doc.devices.find((d) => d.id === 'zv-1')!.settings = { rated: 30 }
    const called = (...waits: string[]) => signsOf(rigAfter(compile(doc), 'stat-1.set=25', ...waits).simulation).warm
    expect(called('wait=29min')).toEqual(['heating-1'])
    expect(called('wait=31min')).toEqual([])
    // A pause lets it cool.
    expect(called('wait=20min', 'stat-1.set=5', 'wait=1min', 'stat-1.set=25', 'wait=20min')).toEqual(['heating-1'])
  })
})

describe('a second source of heat', () => {
  it('stays live when the controls are isolated', () => {
    const { simulation } = rigAfter(circuitOf('unvented'), 'immersion.cylinder=40', 'spur.switch=off', 'wait=60s')
    expect(simulation.potentialAt('programmer.L').state).not.toBe('live')
    expect(simulation.potentialAt('immersion.L').state).toBe('live')
    expect(signsOf(simulation).working).toHaveLength(1)
  })
})

describe('calls nobody made', () => {
  it('come from frost, to every zone whose thermostat is closed, past a programmer that is off', () => {
    const { simulation } = rigAfter(
      circuitOf('unvented'),
      'stat-1.set=25',
      'stat-2.set=25',
      'frost-stat.set=15',
      'wait=60s',
    )
    expect(signsOf(simulation).warm).toEqual(['heating-1', 'heating-2', 'frost'])
  })

  it('come from a hygiene run, but only while the cylinder thermostat’s common is fed', () => {
    const warm = (...actions: string[]) =>
      signsOf(rigAfter(circuitOf('unvented'), ...actions, 'wait=60s').simulation).warm
    expect(warm('cyl-stat.hygiene=running')).toEqual([])
    expect(warm('cyl-stat.hygiene=running', 'programmer.hot-water=on')).toEqual(['hot-water'])
  })

  it('come from a receiver’s button, and from its fallback when the link is lost', () => {
    const called = (...actions: string[]) => callsOf(rigAfter(circuitOf('single-zone-mains'), ...actions, 'wait=30s'))
    expect(called('receiver.set=25', 'receiver.link=lost')).toEqual([])
    expect(called('receiver.link=fallback')).toEqual(['SL'])
    expect(called('receiver.button=on')).toEqual(['SL'])
  })
})
