import type { Installation } from '../installation'
import { planLowVoltage, planMidPosition, planTwoPort, type CircuitBrief } from '../planning'

export interface Example {
  id: string
  name: string
  installation: Installation
}

const heating = (name: string): CircuitBrief => ({ kind: 'heating', name })
const hotWater: CircuitBrief = { kind: 'hot-water', name: 'Hot water' }

const practice = { cable: 'five-core', terminals: 'separate' } as const

const make = (id: string, name: string, circuits: CircuitBrief[]): Example => ({
  id,
  name,
  installation: planTwoPort({ scheme: 'two-port', circuits, ...practice }, id, name),
})

/** Complete, correctly wired installations that ship; tests and benchmarks run on them too. */
export const examples: readonly Example[] = [
  make('two-port-heating', 'Two-port, heating only', [heating('House')]),
  make('two-port-heating-hot-water', 'Two-port, heating and hot water', [heating('House'), hotWater]),
  make('two-port-two-heating', 'Two-port, two heating zones', [heating('Downstairs'), heating('Upstairs')]),
  make('two-port-two-heating-hot-water', 'Two-port, two heating zones and hot water', [
    heating('Downstairs'),
    heating('Upstairs'),
    hotWater,
  ]),
  {
    id: 'mid-position',
    name: 'Mid-position, heating and hot water',
    installation: planMidPosition(practice, 'mid-position', 'Mid-position, heating and hot water'),
  },
  {
    id: 'low-voltage',
    name: 'Low voltage, two zones on end switches',
    installation: planLowVoltage(practice, ['Ground floor', 'Loft'], 'low-voltage', 'Low voltage, two zones'),
  },
]

export const exampleById = (id: string): Example | undefined => examples.find((e) => e.id === id)
