import fc from 'fast-check'
import { circuitOf, rigAfter } from '../../testing'
import { compile } from '../circuit'
import { edited } from '../installation'
import { demandActions } from '../inputs'
import { ActionError, type Action } from '../simulation'
import { putInsOf, Rig } from '.'

const circuit = circuitOf('two-port-heating-hot-water')
const wirings = [...putInsOf(circuit).values()].filter((p) => p.change)
const heating: Action[] = [...demandActions(circuit, ['heating-1']), { do: 'wait', ms: 60_000 }]
/** How everything stands: potentials, valves, loads, what the boiler does. */
const standing = ({ simulation: sim }: Rig) => ({
  terminals: sim.circuit.atoms.map((a, i) => `${a.ref} ${sim.potentials()[i].state}`),
  valves: sim.circuit.actuators.map((_, i) => sim.actuatorPosition(i).toFixed(6)),
  loads: sim.circuit.loads.map((_, i) => sim.loadEnergised(i)),
  phases: sim.circuit.behaviours.map((_, i) => sim.phase(i).phase),
})

describe('wiring put in otherwise', () => {
  it('is found at once, as it stands, and is gone when it is taken out', () => {
    const moved = wirings.findLast((p) => p.name.startsWith('moved boiler-cable.black.1'))!
    const rig = Rig.after(circuit, heating)
    const before = standing(rig)
    expect(rig.simulation.phase(0).phase).toBe('firing')
    rig.perform({ do: 'fault', fault: moved.name })
    expect(rig.isRewired).toBe(true)
    expect(rig.faultsIn.map((f) => f.label)).toEqual([
      expect.stringMatching(/^black of Boiler cable in Wiring centre \d+ instead of Wiring centre \d+$/),
    ])
    expect(rig.simulation.phase(0).phase).not.toBe('firing')
    rig.perform({ do: 'mend', fault: moved.name })
    rig.perform({ do: 'wait', ms: 10 * 60_000 })
    expect(rig.isRewired).toBe(false)
    expect(standing(rig)).toEqual(before)
  })

  it('from the start does what an installation does that was wired so', () => {
    fc.assert(
      fc.property(fc.constantFrom(...wirings), fc.subarray(['heating-1', 'hot-water']), ({ name, change }, wanted) => {
        const acts: Action[] = [...demandActions(circuit, wanted), { do: 'wait', ms: 60_000 }]
        const put = Rig.after(circuit, [{ do: 'fault', fault: name }, { do: 'wait', ms: 20 * 60_000 }, ...acts])
        const wired = Rig.after(compile(edited(circuit.installation, change!).doc), [
          { do: 'wait', ms: 20 * 60_000 },
          ...acts,
        ])
        if (put.simulation.hunting || wired.simulation.hunting) return
        expect(standing(put)).toEqual(standing(wired))
      }),
      { numRuns: 120, seed: 27 },
    )
  })

  it('keeps what else is in: a conductor that is open stays open, though conductors are counted otherwise', () => {
    const open = 'stat-1-cable.black.open'
    const rig = Rig.after(circuit, [{ do: 'fault', fault: open }, ...heating])
    for (const { name } of wirings.filter((_, i) => i % 25 === 0)) {
      rig.perform({ do: 'fault', fault: name })
      const { simulation: sim } = rig
      const edge = sim.circuit.edges.findIndex(
        (e) => e.kind === 'core' && e.cable.id === 'stat-1-cable' && e.core.id === 'black',
      )
      expect(sim.electrics.state.brokenEdges[edge]).toBe(1)
      expect(rig.faultsIn.map((f) => f.name)).toEqual([open, name])
      rig.perform({ do: 'mend', fault: name })
    }
  })

  it('is a choice at set-up too', () => {
    const setting = wirings.find((p) => p.kind === 'setting')!
    const rig = rigAfter(circuit, `fault=${setting.name}`, 'wait=1s')
    const device = rig.simulation.circuit.installation.devices.find((d) => d.id === setting.at[0])!
    const [, field, value] = /^setting \S+\.(\S+) (\S+)$/.exec(setting.name)!
    expect(String(device.settings[field])).toBe(value)
  })

  it('is in once, however often it is put in; what there is not is refused, and nothing is then changed', () => {
    const [one, other] = wirings.filter((p) => p.kind === 'link-missing')
    const rig = Rig.after(circuit, [{ do: 'fault', fault: one.name }])
    expect(() => rig.perform({ do: 'fault', fault: 'no such' })).toThrow(ActionError)
    rig.perform({ do: 'fault', fault: other.name })
    rig.perform({ do: 'fault', fault: other.name })
    expect(rig.faultsIn.map((f) => f.name)).toEqual([one.name, other.name])
  })
})
