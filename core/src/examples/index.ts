import type { Installation } from '../installation'
import type { SupplyId } from '../catalogue'
import { planSystem, type CircuitBrief, type PlanBrief, type SchemeId } from '../planning'

export { ownValve } from './own-valve'

export interface Example {
  id: string
  name: string
  /** What it is planned from. */
  readonly brief: PlanBrief
  /** Planned when first asked for. */
  readonly installation: Installation
}

const heating = (name: string): CircuitBrief => ({ kind: 'heating', name })
const hotWater: CircuitBrief = { kind: 'hot-water', name: 'Hot water' }

function make(
  id: string,
  name: string,
  scheme: SchemeId,
  circuits: CircuitBrief[],
  supply: SupplyId = '230-50',
): Example {
  let planned: Installation | undefined
  const brief: PlanBrief = { scheme, circuits, supply, cable: 'five-core', terminals: 'separate' }
  return {
    id,
    name,
    brief,
    get installation() {
      planned ??= planSystem(brief, id, name)
      return planned
    },
  }
}

/** Complete, correctly wired installations that ship; tests and benchmarks run on them too. */
export const examples: readonly Example[] = [
  make('two-port-heating', 'Two-port, heating only', 'two-port', [heating('House')]),
  make('two-port-heating-hot-water', 'Two-port, heating and hot water', 'two-port', [heating('House'), hotWater]),
  make('two-port-two-heating', 'Two-port, two heating zones', 'two-port', [heating('Downstairs'), heating('Upstairs')]),
  make('two-port-two-heating-hot-water', 'Two-port, two heating zones and hot water', 'two-port', [
    heating('Downstairs'),
    heating('Upstairs'),
    hotWater,
  ]),
  make('mid-position', 'Mid-position, heating and hot water', 'mid-position', [heating('House'), hotWater]),
  make(
    'low-voltage',
    'Low voltage, two zones on end switches',
    'low-voltage',
    [heating('Ground floor'), heating('Loft')],
    '120-60',
  ),
  make('two-port-five-heating-hot-water', 'Two-port, five heating zones and hot water', 'two-port', [
    ...['Hall', 'Kitchen', 'Lounge', 'Bedrooms', 'Studio'].map(heating),
    hotWater,
  ]),
  make('diverter', 'Diverter, spring return, hot water first', 'diverter', [heating('House'), hotWater]),
  make('three-wire-diverter', 'Heat pump with a three-wire diverter', 'three-wire-diverter', [
    heating('House'),
    hotWater,
  ]),
  make('hot-water-priority', 'Hot-water priority, two heating zones', 'hot-water-priority', [
    heating('Downstairs'),
    heating('Upstairs'),
    hotWater,
  ]),
  make(
    'relay-panel',
    'Low voltage, relay panel, two zones',
    'relay-panel',
    [heating('Ground floor'), heating('Loft')],
    '120-60',
  ),
  make('single-zone', 'Single zone, volt-free call', 'single-zone', [heating('Flat')]),
  make('single-zone-mains', 'Single zone, mains call from a wireless receiver', 'single-zone-mains', [heating('Flat')]),
  make('single-zone-bus', 'Single zone, digital bus', 'single-zone-bus', [heating('Flat')]),
  make('single-zone-electric', 'Single zone, electric boiler', 'single-zone-electric', [heating('Cabin')]),
  make('single-zone-relay', 'Single zone, mains controls and a relay', 'single-zone-relay', [heating('Office')]),
  make('smart-receiver', 'Two-port, smart receiver', 'smart-receiver', [heating('House'), hotWater]),
  make('more-zones', 'Two-port with towel rails, underfloor and a zone for later', 'more-zones', [
    heating('House'),
    { kind: 'towel-rails', name: 'Towel rails' },
    { kind: 'underfloor', name: 'Garden room' },
    { kind: 'underfloor', name: 'Wet room' },
    { kind: 'later', name: 'Annexe' },
    hotWater,
  ]),
  make('unvented', 'Two-port, unvented cylinder with frost protection', 'unvented', [
    heating('Downstairs'),
    heating('Upstairs'),
    hotWater,
  ]),
  make(
    'fan-convector',
    'Switching relays with fan convectors',
    'fan-convector',
    [heating('Shop'), heating('Store')],
    '120-60',
  ),
  make('gravity', 'Gravity hot water, pumped heating', 'gravity', [heating('House'), hotWater]),
]

export const exampleById = (id: string): Example | undefined => examples.find((e) => e.id === id)
