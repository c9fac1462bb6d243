import { circuitOf, installationOf, loosenCore, rigAfter } from '../../testing'
import { compile } from '.'

const wordAt = (circuit: ReturnType<typeof circuitOf>, ref: string, ...actions: string[]) =>
  rigAfter(circuit, ...actions).simulation.potentialAt(ref)

describe('the word for a terminal comes from what it is joined to', () => {
  const circuit = circuitOf('two-port-heating-hot-water')

  it('live, neutral and earth on the poles', () => {
    expect(wordAt(circuit, 'wc.1')).toEqual({ state: 'live', volts: 230 })
    expect(wordAt(circuit, 'boiler.N')).toEqual({ state: 'neutral', volts: 0 })
    expect(wordAt(circuit, 'zv-1.E')).toEqual({ state: 'earth', volts: 0 })
  })

  it('dead where a load holds it at neutral, floating where nothing does', () => {
    const held = wordAt(circuit, 'zv-1.M')
    expect(held.state).toBe('dead')
    expect(held.volts).toBeLessThan(1)
    expect(wordAt(circuit, 'programmer.HTG-OFF', 'programmer.heating=on', 'wait=1s').state).toBe('floating')
  })

  it('partial at a neutral that has come off, fed through its own motor', () => {
    const doc = installationOf('two-port-heating-hot-water')
    loosenCore(doc, 'zv-1-lead', 'blue', 1)
    const at = wordAt(compile(doc), 'zv-1.N', 'programmer.heating=on', 'stat-1.set=21', 'wait=1s')
    expect(at.state).toBe('partial')
    // The motor drops next to nothing of it: all that flows is what the conductor's capacitance takes.
    expect(at.volts).toBeCloseTo(230, 0)
  })

  it('unknown where a conductor has an end nobody has found', () => {
    const doc = installationOf('two-port-heating-hot-water')
    loosenCore(doc, 'stat-1-cable', 'grey', 0, 'unknown')
    expect(wordAt(compile(doc), 'wc.30').state).toBe('unknown')
  })

  it('nothing is live behind the open spur, whatever is asked', () => {
    const { simulation } = rigAfter(
      circuit,
      'programmer.heating=on',
      'stat-1.set=21',
      'wait=60s',
      'spur.switch=off',
      'wait=10s',
    )
    const live = circuit.atoms.filter((a) => a.kind !== 'internal' && simulation.potentialAt(a.ref).state === 'live')
    expect(live).toEqual([])
  })
})
