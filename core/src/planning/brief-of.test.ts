import { examples, exampleById } from '../examples'
import { briefOf } from './brief-of'
import { planSystem } from './plan'

const house = exampleById('two-port-heating-hot-water')!.installation
const everyOne = examples.map(({ id, installation }) => [id, installation] as const)

describe('a brief for wiring that has none', () => {
  it.each(everyOne)('has a circuit to each demand of %s, and can be laid out', (_, installation) => {
    const brief = briefOf(installation)
    expect(brief.circuits.map(({ name }) => name)).toEqual(installation.intent.demands.map(({ name }) => name))
    expect(planSystem(brief, 'plan', 'Plan').cables.length).toBeGreaterThan(0)
  })
  it('takes the scheme that the wiring calls itself', () => {
    expect(briefOf(exampleById('mid-position')!.installation).scheme).toBe('mid-position')
  })
  it('is one heating circuit where nothing is known of what the wiring is for', () => {
    expect(briefOf({ ...house, intent: { demands: [] } }).circuits).toHaveLength(1)
  })
})
