import fc from 'fast-check'
import { circuitOf, installationOf, rigAfter, moveCore } from '../../testing'
import { compile, type Circuit } from '../circuit'
import { examples } from '../examples'
import { faultsOf, Rig } from '../hypotheses'
import { ActionError, formatAction, parseAction, Simulation, type Action, type SimEvent } from '.'

const heatingOn = ['programmer.heating=on', 'stat-1.set=21']

describe('a heating call on a two-port system', () => {
  const circuit = circuitOf('two-port-heating-hot-water')
  const at = (events: readonly SimEvent[], match: (e: SimEvent) => boolean) => events.find(match)!.time

  it('opens the valve, makes the end switch near the end of travel, then calls, pumps and fires', () => {
    const { history } = rigAfter(circuit, ...heatingOn, 'wait=60s').simulation
    const opening = at(history, (e) => e.kind === 'travel' && e.motion === 'opening')
    const made = at(history, (e) => e.kind === 'contact' && e.part === 'end-switch' && e.closed)
    const pump = at(history, (e) => e.kind === 'work' && e.running)
    const open = at(history, (e) => e.kind === 'travel' && e.motion === 'open')
    const firing = at(history, (e) => e.kind === 'phase' && e.phase === 'firing')
    expect(made - opening).toBeGreaterThanOrEqual(0.85 * 15_000)
    expect(made).toBeLessThan(open)
    expect(pump).toBeGreaterThanOrEqual(made)
    expect(firing).toBeGreaterThan(pump)
  })

  it('lets go of the call as closing begins, overruns five minutes, then rests', () => {
    const rig = rigAfter(circuit, ...heatingOn, 'wait=60s', 'stat-1.set=5', 'wait=1s')
    const boiler = () => rig.simulation.phase(0).phase
    expect(rig.simulation.actuatorPosition(0)).toBeGreaterThan(0.7)
    expect(boiler()).toBe('overrun')
    rig.perform(parseAction('wait=298s'))
    expect(boiler()).toBe('overrun')
    rig.perform(parseAction('wait=2s'))
    expect(boiler()).toBe('idle')
    expect(rig.simulation.actuatorMotion(0)).toBe('shut')
  })

  it('never calls from a valve that is turned back before the end switch makes', () => {
    const { history } = rigAfter(circuit, ...heatingOn, 'wait=12s', 'stat-1.set=5', 'wait=60s').simulation
    expect(history.some((e) => e.kind === 'phase')).toBe(false)
  })

  it('swings more widely without the thermostat’s neutral', () => {
    const satisfiedAt = (...faults: string[]) => {
      const rig = rigAfter(circuit, ...faults, ...heatingOn, 'wait=1s')
      for (let room = 18; room <= 30; room += 0.5) {
        rig.perform(parseAction(`stat-1.room=${room}`))
        rig.perform(parseAction('wait=1s'))
        if (!rig.simulation.sensorAsks(0)) return room
      }
      throw new Error('never satisfied')
    }
    expect(satisfiedAt('fault=stat-1-cable.blue.open')).toBeGreaterThan(satisfiedAt() + 1)
  })
})

describe('faults', () => {
  const circuit = circuitOf('two-port-heating-hot-water')
  const called = (...actions: string[]) => {
    const { simulation } = rigAfter(circuit, ...actions, 'wait=60s')
    return simulation.phase(0).phase === 'firing'
  }

  it.each([
    ['zv-1.end-switch.stuck-made', [], true],
    ['zv-1.travel.seized-open', [], true],
    ['zv-1.end-switch.never-makes', heatingOn, false],
    ['zv-1.motor.open', heatingOn, false],
    ['zv-1.travel.seized-shut', heatingOn, false],
    ['stat-1.contact.never-makes', heatingOn, false],
    ['stat-1.contact.stuck-made', ['programmer.heating=on'], true],
    ['programmer.heating.never-operates', heatingOn, false],
    ['programmer.heating.stuck-operated', ['stat-1.set=21'], true],
    ['stat-1-cable.black.open', heatingOn, false],
    ['spur.fuse.blown', heatingOn, false],
    ['programmer.clock.open', heatingOn, false],
    ['programmer-cable.blue.open', heatingOn, false],
  ])('%s', (fault, actions, fires) => {
    expect(called(`fault=${fault}`, ...actions)).toBe(fires)
  })

  it('every fault that is put in and taken out again leaves no trace once settled', () => {
    const settledState = (sim: Simulation) => [
      sim.potentials(),
      circuit.contacts.map((_, i) => sim.contactClosed(i)),
      sim.phase(0),
    ]
    const whole = rigAfter(circuit, ...heatingOn)
    whole.simulation.settle()
    for (const { name } of faultsOf(circuit)) {
      const rig = rigAfter(circuit, `fault=${name}`, ...heatingOn, 'wait=60s', `mend=${name}`)
      rig.simulation.settle()
      // A boiler that has locked itself out waits for a hand.
      rig.simulation.set('boiler', 'reset', 'clear')
      rig.simulation.settle()
      // What a leak has blown stays blown when the leak has gone.
      if (rig.simulation.history.some((e) => e.kind === 'fuse')) continue
      expect([name, settledState(rig.simulation)]).toEqual([name, settledState(whole.simulation)])
    }
  })
})

describe('a contact whose own pull-in takes its feed away', () => {
  it('is declared to be hunting instead of running for ever', () => {
    const doc = installationOf('two-port-heating')
    // The programmer's own line is taken through its OFF contact: relay in, clock dead, relay out, clock alive.
    moveCore(doc, 'programmer-cable', 'brown', 0, 'programmer.HTG-OFF')
    const sim = new Simulation(compile(doc))
    sim.set('programmer', 'heating', 'on')
    expect(sim.settle()).toBe('hunting')
    expect(sim.history.at(-1)).toMatchObject({ kind: 'hunting' })
  })

  it('stops a run there and says so, and lets no more time pass until somebody touches something', () => {
    const doc = installationOf('two-port-heating')
    moveCore(doc, 'programmer-cable', 'brown', 0, 'programmer.HTG-OFF')
    const sim = new Simulation(compile(doc))
    sim.set('programmer', 'heating', 'on')
    expect(sim.run(3_600_000)).toBe('hunting')
    const { time, history } = sim
    expect(time).toBeLessThan(60_000)
    expect(history.length).toBeLessThan(50)
    expect([sim.run(3_600_000), sim.time]).toEqual(['hunting', time])
    sim.set('programmer', 'heating', 'off')
    expect([sim.run(60_000), sim.time]).toEqual(['passed', time + 60_000])
  })
})

describe('actions as they are written', () => {
  it('read back as they were', () => {
    for (const text of ['programmer.heating=on', 'stat-1.set=20.5', 'wait=20s', 'wait=1500ms', 'fault=zv-1.motor.open'])
      expect(formatAction(parseAction(text))).toBe(text)
    expect(parseAction('wait=2min')).toEqual({ do: 'wait', ms: 120_000 })
  })

  it.each([
    ['wait=soon', 'is not a time'],
    ['wait=400h', 'too long'],
    ['heating=on', 'names no control'],
    ['rubbish', 'is not an action'],
    ['boiler.heating=on', '"boiler" has no control'],
    ['attic.heating=on', 'there is no device "attic"'],
    ['programmer.heating=perhaps', 'or on or boost, not "perhaps"'],
    ['stat-1.set=80', '5 to 30 °C, not "80"'],
    ['fault=gremlin', 'there is no fault "gremlin"'],
  ])('%s is refused', (text, reason) => {
    const circuit = circuitOf('two-port-heating')
    expect(() => rigAfter(circuit, text)).toThrow(ActionError)
    expect(() => rigAfter(circuit, text)).toThrow(reason)
  })
})

describe('whatever is done', () => {
  const actionsOf = (circuit: Circuit): fc.Arbitrary<Action> => {
    const faults = faultsOf(circuit)
    const settable = circuit.devices.flatMap(({ device, type }) =>
      type.controls.map((control) => ({ device: device.id, control })),
    )
    const set = fc
      .constantFrom(...settable)
      .chain(({ device, control }) =>
        (control.kind === 'choice'
          ? fc.constantFrom(...control.values.map((v) => v.id))
          : fc.integer({ min: control.min, max: control.max }).map(String)
        ).map((value): Action => ({ do: 'set', device, control: control.id, value })),
      )
    const wait = fc.integer({ min: 0, max: 30_000 }).map((ms): Action => ({ do: 'wait', ms }))
    const fault = fc
      .record({ name: fc.constantFrom(...faults.map((f) => f.name)), put: fc.boolean() })
      .map(({ name, put }): Action => ({ do: put ? 'fault' : 'mend', fault: name }))
    return fc.oneof({ weight: 5, arbitrary: set }, { weight: 4, arbitrary: wait }, { weight: 1, arbitrary: fault })
  }

  interface Scenario {
    example: string
    /** Cable, core, end and terminal by number, taken round where too large. */
    moves: [number, number, 0 | 1, number][]
    actions: Action[]
  }
  /** An example with up to three conductor ends put on terminals where they do not belong, and 1 to 200 actions on it. */
  const scenario: fc.Arbitrary<Scenario> = fc.constantFrom(...examples.map((e) => e.id)).chain((example) =>
    fc.record({
      example: fc.constant(example),
      moves: fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom(0 as const, 1 as const), fc.nat()), {
        maxLength: 3,
      }),
      actions: fc.array(actionsOf(circuitOf(example)), { minLength: 1, maxLength: 200 }),
    }),
  )
  const play = ({ example, moves, actions }: Scenario): Simulation => {
    const doc = installationOf(example)
    const terminals = doc.wiringCentres.flatMap((w) => w.terminals.map((t) => `${w.id}.${t.id}`))
    for (const [c, k, end, t] of moves) {
      const cable = doc.cables[c % doc.cables.length]
      cable.cores[k % cable.cores.length].ends[end] = { at: 'terminal', terminal: terminals[t % terminals.length] }
    }
    return Rig.after(compile(doc), actions).simulation
  }

  it('it settles, or is declared to be hunting, within a bounded number of events', () => {
    fc.assert(
      fc.property(scenario, (given) => {
        const simulation = play(given)
        const before = simulation.history.length
        expect(['settled', 'hunting']).toContain(simulation.settle(500))
        expect(simulation.history.length - before).toBeLessThan(1000)
      }),
      { numRuns: 60 },
    )
  })

  it('the same actions give the same history', () => {
    fc.assert(
      fc.property(scenario, (given) => {
        expect(play(given).history).toEqual(play(given).history)
      }),
      { numRuns: 30 },
    )
  })

  it('a fork goes the same way as what it was forked from', () => {
    fc.assert(
      fc.property(scenario, (given) => {
        const simulation = play(given)
        const fork = simulation.fork()
        simulation.settle(500)
        fork.settle(500)
        expect(fork.history).toEqual(simulation.history)
      }),
      { numRuns: 20 },
    )
  })

  it('line is never joined to neutral or earth without a protective device opening within half a cycle', () => {
    let shorts = 0
    fc.assert(
      fc.property(scenario, (given) => {
        const simulation = play(given)
        simulation.settle(500)
        const { history } = simulation
        for (const [i, event] of history.entries()) {
          if (event.kind !== 'short') continue
          shorts++
          const next = history.slice(i + 1)
          const cleared = next.some((e) => e.kind === 'fuse' && e.time <= event.time + 10)
          expect(cleared).toBe(true)
        }
        expect(simulation.shortNow).toBe(false)
      }),
      { numRuns: 150, seed: 5 },
    )
    // The property would hold of nothing if no miswiring ever made a short.
    expect(shorts).toBeGreaterThan(0)
  })
})
