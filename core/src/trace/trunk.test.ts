import { circuitOf } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import { nth } from '../lists'
import type { Station, Way } from './paths'
import { runsOf } from './runs'
import { trunkOf } from './trunk'

const steps = (way: Way) =>
  way.flatMap((station): (Station | { edge: number; to: number })[] =>
    station.kind === 'leg' ? station.steps : [station],
  )

describe('the trunk of the runs', () => {
  it('of two circuits is the spur and the line as far as all go it', () => {
    const circuit = circuitOf('two-port-heating-hot-water')
    const { way, branches } = trunkOf(runsOf(circuit))!
    const gates = way.filter(({ kind }) => kind === 'gate')
    expect(gates).toHaveLength(way.length - 1)
    const end = way.at(-1)!
    expect(end.kind).toBe('leg')
    expect(nth(circuit.atoms, end.to).ref).toBe('wc.2')
    expect(branches.size).toBe(runsOf(circuit).length)
  })

  it.each(examples.map(({ id, installation }) => [id, installation] as const))(
    '%s: trunk and branch together are the run; each branch leaves it where it ends',
    (_, installation) => {
      const runs = runsOf(compile(installation))
      const trunk = trunkOf(runs)
      for (const run of trunk ? runs.filter(({ id }) => trunk.branches.has(id)) : []) {
        const branch = trunk!.branches.get(run.id)!
        expect(branch.length).toBeGreaterThan(0)
        expect(nth(branch, 0).from).toBe(trunk!.way.at(-1)!.to)
        expect([...steps(trunk!.way), ...steps(branch)]).toEqual(steps(run.way))
      }
      // Whatever begins like another is on it.
      const starts = runs.flatMap(({ way }) => (way[0]?.kind === 'gate' ? [way[0].edge] : []))
      if (new Set(starts).size < starts.length) expect(trunk).toBeDefined()
    },
  )

  it('is none where nothing is shared', () => {
    const [first] = runsOf(circuitOf('two-port-heating'))
    expect(trunkOf([first])).toBeUndefined()
    expect(trunkOf([])).toBeUndefined()
  })
})
