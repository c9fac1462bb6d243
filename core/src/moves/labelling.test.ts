import fc from 'fast-check'
import { planBriefSchema, planSystem, type PlanBrief } from '../planning'
import { assigned } from './assignment'
import { commonChanges } from './common'
import { touchesOf } from './costs'
import { labelled } from './labelling'
import { free, servingOf } from './serving'
import { targetOf } from './target'
import { joiningCost, loadOf, terminalsOf } from './terminals'
import { workOf, type Work } from './work'

const house = [{ kind: 'heating', name: 'House' }]
const from = (given: object): PlanBrief =>
  planBriefSchema.parse({ scheme: 'two-port', terminals: 'merged', circuits: house, ...given })

/**
 * The least that any labelling of the switched terminals costs, tried one after the other. Those of line, neutral and earth, in which
 * most conductors are, stay what they are: with them there would be millions.
 */
function leastOfAll(work: Work, terminals: ReturnType<typeof terminalsOf>, poles: ReadonlyMap<string, string>): number {
  const nets = [...new Set(work.stations.flatMap(({ wires }) => wires.map(({ net }) => net))), free]
  const own = new Set(work.stations.flatMap(({ strands }) => strands.flatMap(({ at }) => at ?? [])))
  const refs = terminals.refs.filter((ref) => own.has(ref) && !poles.has(ref))
  const labels = new Map(poles)
  let least = Infinity
  const served = work.stations.map(() => new Map<string, ReturnType<typeof servingOf>>())
  const at = work.stations.map(({ strands }) => strands.flatMap((strand) => strand.at ?? []))
  const whole = () => {
    const labelOf = (ref: string) => labels.get(ref) ?? free
    const servings = work.stations.map((station, s) => {
      const key = at[s].map(labelOf).join()
      if (!served[s].has(key)) served[s].set(key, servingOf(work, station, labelOf))
      return served[s].get(key)!
    })
    const cost = servings.reduce((sum, one) => sum + one.cost, 0)
    if (cost >= least) return
    least = Math.min(least, cost + joiningCost(terminals, loadOf(work, servings, labelOf), labelOf))
  }
  const next = (i: number): void => {
    if (i === refs.length) return whole()
    for (const net of nets) {
      labels.set(refs[i], net)
      next(i + 1)
    }
  }
  next(0)
  return least
}

it.each(commonChanges(from({})).map(({ id, brief }) => [id, brief] as const))(
  'from a heating zone to %s no other choice of terminals touches less',
  (_, brief) => {
    const found = planSystem(from({}), 'p', 'Plan')
    const target = targetOf(found, planSystem(brief, 'p', 'Plan'))
    const work = workOf(found, target)
    const terminals = terminalsOf(found)
    const { cost, bound, labels } = labelled(work, terminals)
    const poles = new Map(
      found.wiringCentres[0].terminals
        .filter(({ legend }) => ['Line', 'Neutral', 'Earth'].includes(legend))
        .map(({ id }) => [`wc.${id}`, labels.get(`wc.${id}`)!]),
    )
    expect(touchesOf(cost)).toBe(touchesOf(leastOfAll(work, terminals, poles)))
    expect(bound).toBeLessThanOrEqual(cost)
  },
)

it('each row gets the column that makes the whole cheapest', () => {
  const cell = fc.integer({ min: -50, max: 200 })
  const matrix = fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 2 })).chain(([rows, more]) =>
    fc.array(fc.array(cell, { minLength: rows + more, maxLength: rows + more }), {
      minLength: rows,
      maxLength: rows,
    }),
  )
  const cheapest = (costs: number[][], row: number, taken: ReadonlySet<number>): number =>
    row === costs.length
      ? 0
      : Math.min(
          ...costs[row].map((cost, column) =>
            taken.has(column) ? Infinity : cost + cheapest(costs, row + 1, new Set([...taken, column])),
          ),
        )
  fc.assert(
    fc.property(matrix, (costs) => {
      const columns = assigned(costs)
      expect(new Set(columns).size).toBe(costs.length)
      expect(columns.reduce((sum, column, row) => sum + costs[row][column], 0)).toBe(cheapest(costs, 0, new Set()))
    }),
  )
})
