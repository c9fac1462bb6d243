import { planBriefSchema } from '@nobbet/core'
import { firstWiring } from '.'

const fitted = planBriefSchema.parse({ scheme: 'two-port', circuits: [{ kind: 'heating', name: 'Flat' }] })

describe('the wiring a job begins with', () => {
  it('is a plan of what is to be built, and merely assumed of what is there', () => {
    const of = (kind: 'new-system' | 'change-of-controls' | 'fault') =>
      firstWiring({ kind, site: 'Mill Lane 2', fitted }, 'mill-lane')
    expect(of('new-system').provenance).toBe('planned')
    expect(of('change-of-controls').provenance).toBe('planned')
    expect(of('fault').provenance).toBe('assumed')
    expect(of('fault').cables).toEqual(of('new-system').cables)
  })
})
