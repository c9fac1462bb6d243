import { compile, exampleById, parseAction, type Circuit } from '@nobbet/core'
import { actionsOf, TraceSession } from './session'

const circuit: Circuit = compile(exampleById('two-port-heating')!.installation)
const opened = (...actions: string[]) => new TraceSession(circuit, actions.map(parseAction))
const heatingOn = ['programmer.heating=on', 'stat-1.set=21']

describe('a trace session', () => {
  it('is the list of what was done: replayed, it gives the same history', () => {
    const first = opened(...heatingOn, 'wait=20s', 'stat-1.set=5')
    const again = opened(...first.written)
    expect(again.rig.simulation.history).toEqual(first.rig.simulation.history)
    expect(first.written).toEqual([...heatingOn, 'wait=20s', 'stat-1.set=5'])
  })

  it('keeps waits that follow each other as one, and none of no length', () => {
    const session = opened(...heatingOn)
    for (let i = 0; i < 60; i++) session.advance(16)
    session.advance(0)
    expect(session.written).toEqual([...heatingOn, 'wait=960ms'])
  })

  it('stands still once it hunts, and a link replays it to the very same moment', () => {
    const doc = structuredClone(circuit.installation)
    // The programmer's own line is taken through its OFF contact: relay in, clock dead, relay out, clock alive.
    doc.cables.find((c) => c.id === 'programmer-cable')!.cores.find((k) => k.colour === 'brown')!.ends[0] = {
      at: 'terminal',
      terminal: 'programmer.HTG-OFF',
    }
    const hunts = compile(doc)
    const session = new TraceSession(hunts, [parseAction('programmer.heating=on')])
    for (let i = 0; i < 100; i++) session.advance(1000)
    const { simulation } = session.rig
    expect([simulation.hunting, session.underWay]).toEqual([true, false])
    expect(simulation.time).toBeLessThan(10_000)
    const again = new TraceSession(hunts, session.written.map(parseAction)).rig.simulation
    expect([again.time, again.history]).toEqual([simulation.time, simulation.history])
    session.act(parseAction('programmer.heating=off'))
    session.advance(60_000)
    expect(session.rig.simulation.hunting).toBe(false)
  })

  it('lets no time pass at rest', () => {
    const session = opened()
    session.advance(5000)
    expect(session.rig.simulation.time).toBe(0)
    expect(session.underWay).toBe(false)
  })

  it('steps from one event that shows to the next, contacts of the same moment together', () => {
    const session = opened(...heatingOn)
    const shown: string[] = []
    for (let i = 0; i < 10 && session.underWay; i++) {
      session.stepToEvent()
      const { simulation } = session.rig
      shown.push(`${simulation.actuatorMotion(0)} ${simulation.phase(0).phase}`)
    }
    expect(shown).toEqual(['opening idle', 'opening self-check', 'open self-check', 'open firing'])
  })

  it('undoes the last thing that was done, and the time that has passed since', () => {
    const session = opened(...heatingOn, 'wait=5s', 'fault=zv-1.motor.open', 'wait=3s', 'wait=2s')
    expect(new TraceSession(circuit, session.withoutLast()).written).toEqual([...heatingOn, 'wait=5s'])
    expect(opened().withoutLast()).toEqual([])
  })

  it('stops at the first action that does not fit, says why, and keeps what was done before', () => {
    const session = opened('programmer.heating=on', 'attic.set=4', 'stat-1.set=21')
    expect(session.problem).toBe('there is no device "attic"')
    expect(session.written).toEqual(['programmer.heating=on'])
  })
})

describe('an address', () => {
  it('is read action by action, in order', () => {
    const { actions, problem } = actionsOf(['programmer.heating=on', 'wait=2s'])
    expect(problem).toBeUndefined()
    expect(actions).toEqual([parseAction('programmer.heating=on'), parseAction('wait=2s')])
  })

  it('that cannot be read is told, up to where it could', () => {
    const { actions, problem } = actionsOf(['programmer.heating=on', 'wait=long'])
    expect(actions).toHaveLength(1)
    expect(problem).toContain('"long" is not a time')
  })
})
