import { circuitOf } from '../../testing'
import type { Circuit } from '../circuit'
import { examples } from '../examples'
import { Simulation } from '../simulation'
import { demandStates } from '../trace'
import { demandActions, subsets } from '../inputs'

/**
 * What each scheme does for every combination of demands once it has settled, written down from how the parts behave and
 * not from the model: where each valve stands (0 undriven, 1 driven, a choice where what went before decides) and which
 * boiler inputs are called.
 */
interface Row {
  valves: Record<string, number | readonly number[]>
  calls: string[]
  /** Whether a pump or fan runs; left out, exactly while something calls. */
  pump?: boolean
}
type Table = (wants: (demand: string) => boolean) => Row

const on = (yes: boolean): number => (yes ? 1 : 0)
const zones = (n: number): string[] => Array.from({ length: n }, (_, i) => `heating-${i + 1}`)

/** One spring-return valve to each circuit: driven while its demand is wanted; one call for all. */
const oneValveEach =
  (heating: number, input: string, hotWater = false): Table =>
  (wants) => {
    const all = [...zones(heating), ...(hotWater ? ['hot-water'] : [])]
    return {
      valves: {
        ...Object.fromEntries(zones(heating).map((z, i) => [`zv-${i + 1}`, on(wants(z))])),
        ...(hotWater && { 'zv-hw': on(wants('hot-water')) }),
      },
      calls: all.some(wants) ? [input] : [],
    }
  }

const tables: Record<string, Table> = {
  'two-port-heating': oneValveEach(1, 'SL'),
  'two-port-heating-hot-water': oneValveEach(1, 'SL', true),
  'two-port-two-heating': oneValveEach(2, 'SL'),
  'two-port-two-heating-hot-water': oneValveEach(2, 'SL', true),
  'two-port-five-heating-hot-water': oneValveEach(5, 'SL', true),
  'low-voltage': oneValveEach(2, 'T'),
  'relay-panel': oneValveEach(2, 'T'),
  'single-zone': (wants) => ({ valves: {}, calls: wants('heating-1') ? ['T'] : [] }),
  // Heating only: A. Both: the middle. Hot water only: B. Neither: B or A, by what it was before; never called.
  'mid-position': (wants) => {
    const [heating, water] = [wants('heating-1'), wants('hot-water')]
    if (heating && water) return { valves: { valve: 0.5 }, calls: ['SL'] }
    if (heating) return { valves: { valve: 1 }, calls: ['SL'] }
    if (water) return { valves: { valve: 0 }, calls: ['SL'] }
    return { valves: { valve: [0, 1] }, calls: [] }
  },
  // Hot water first: the valve goes over whenever hot water is wanted, and rests at heating.
  diverter: (wants) => ({
    valves: { valve: on(wants('hot-water')) },
    calls: wants('heating-1') || wants('hot-water') ? ['SL'] : [],
  }),
  'three-wire-diverter': (wants) => ({
    valves: { valve: on(wants('hot-water')) },
    calls: [...(wants('heating-1') ? ['SH'] : []), ...(wants('hot-water') ? ['SW'] : [])],
  }),
  // The normally open valve is driven shut with the hot water valve; heating still calls, and waits.
  'hot-water-priority': (wants) => {
    const water = on(wants('hot-water'))
    return {
      valves: {
        'zv-1': on(wants('heating-1')),
        'zv-2': on(wants('heating-2')),
        'zv-hw': water,
        'priority-valve': water,
      },
      calls: [...(zones(2).some(wants) ? ['SH'] : []), ...(water ? ['SW'] : [])],
    }
  },
}

Object.assign(tables, {
  'single-zone-mains': (wants) => ({ valves: {}, calls: wants('heating-1') ? ['SL'] : [] }),
  'single-zone-bus': (wants) => ({ valves: {}, calls: wants('heating-1') ? ['bus'] : [] }),
  'single-zone-relay': (wants) => ({ valves: {}, calls: wants('heating-1') ? ['T'] : [] }),
  'single-zone-electric': (wants) => ({ valves: {}, calls: wants('heating-1') ? ['SL'] : [] }),
  'smart-receiver': oneValveEach(1, 'SL', true),
  'fan-convector': oneValveEach(2, 'T'),
  // No valve: hot water calls the boiler, heating runs the pump and brings hot water with it.
  gravity: (wants) => ({ valves: {}, calls: wants('hot-water') ? ['L'] : [], pump: wants('heating-1') }),
  // The frost thermostat opens the first zone, past the programmer.
  unvented: (wants) => ({
    valves: {
      'zv-1': on(wants('heating-1') || wants('frost')),
      'zv-2': on(wants('heating-2')),
      'zv-hw': on(wants('hot-water')),
    },
    calls: ['heating-1', 'heating-2', 'frost', 'hot-water'].some(wants) ? ['SL'] : [],
  }),
  'more-zones': (wants) => {
    const floor = wants('underfloor-1') || wants('underfloor-2')
    return {
      valves: {
        'zv-1': on(wants('heating-1')),
        'zv-l1': on(wants('later-1')),
        'zv-u': on(floor),
        'head-1': on(wants('underfloor-1')),
        'head-2': on(wants('underfloor-2')),
        'zv-t': on(wants('towel-rails')),
        'zv-hw': on(wants('hot-water')),
      },
      calls: floor || ['heating-1', 'later-1', 'towel-rails', 'hot-water'].some(wants) ? ['SL'] : [],
    }
  },
} satisfies Record<string, Table>)

/** Demands that come with others: they share a channel and have no thermostat, or the programmer's slider brings them. */
const brought: Record<string, Record<string, string[]>> = {
  gravity: { 'hot-water': ['heating-1'] },
  'more-zones': { 'later-1': ['heating-1', 'underfloor-1', 'underfloor-2'] },
}

function settledRow(sim: Simulation): { valves: Record<string, number>; calls: string[]; pump: boolean } {
  const { circuit } = sim
  const valves = circuit.actuators.map((a, i): [string, number] => [
    circuit.devices[a.device].device.id,
    Number(sim.actuatorPosition(i).toFixed(2)),
  ])
  const calls = circuit.devices.flatMap(({ type, loadIndex }) =>
    type.inputs.filter((input) => sim.loadEnergised(loadIndex.get(input.load)!)).map((input) => input.id),
  )
  const pump = circuit.loads.some((l, i) => l.part.work === 'runs' && sim.loadWorking(i))
  return { valves: Object.fromEntries(valves), calls, pump }
}

/** Sets the demands, the controls that change in the order given or the other way round, and lets everything settle. */
function moved(from: Simulation, circuit: Circuit, wanted: readonly string[], backwards: boolean): Simulation {
  const sim = from.fork()
  const actions = demandActions(circuit, wanted)
  for (const action of backwards ? actions.reverse() : actions)
    if (action.do === 'set') sim.set(action.device, action.control, action.value)
  expect(sim.settle()).toBe('settled')
  return sim
}

describe('the demand table', () => {
  it('is there for every shipped example', () => {
    expect(Object.keys(tables).sort()).toEqual(examples.map((e) => e.id).sort())
  })

  it.each(Object.keys(tables))('of %s holds from every settled earlier state, in both orders of change', (id) => {
    const circuit = circuitOf(id)
    const combinations = subsets(circuit.installation.intent.demands.map((d) => d.id))
    const rest = new Simulation(circuit)
    const many = combinations.length > 16
    for (const before of combinations) {
      for (const earlier of many ? [false] : [false, true]) {
        const start = moved(rest, circuit, before, earlier)
        for (const wanted of combinations) {
          // With many zones, one demand changes at a time: they do not act on each other but through the call.
          const changes = [...before, ...wanted].filter((d) => before.includes(d) !== wanted.includes(d)).length
          if (many && changes > 1) continue
          for (const backwards of [false, true]) {
            const settled = moved(start, circuit, wanted, backwards)
            const row = settledRow(settled)
            const isWanted = (demand: string) =>
              wanted.includes(demand) || (brought[id]?.[demand] ?? []).some((with_) => wanted.includes(with_))
            const expected = tables[id](isWanted)
            const story = `${before.join('+') || 'nothing'} → ${wanted.join('+') || 'nothing'}${backwards ? ', backwards' : ''}`
            for (const [valve, positions] of Object.entries(expected.valves))
              expect([story, valve, [positions].flat().includes(row.valves[valve])]).toEqual([story, valve, true])
            expect([story, row.calls]).toEqual([story, expected.calls])
            for (const { demand, word, openPoints } of demandStates(settled)) {
              const waits = openPoints.some((point) => point.at === 'priority')
              const told = word === 'calling' || (word === 'held-up' && waits) ? 'runs or waits' : word
              const right = isWanted(demand.id) ? told === 'runs or waits' : word !== 'calling' && word !== 'held-up'
              expect([story, demand.id, word, right]).toEqual([story, demand.id, word, true])
            }
            // Settled, the overrun is over: the pump runs exactly while something calls.
            expect([story, row.pump]).toEqual([story, expected.pump ?? expected.calls.length > 0])
          }
        }
      }
    }
  })

  it('of the mid-position valve with nothing wanted is B or A by which demand ended last', () => {
    const circuit = circuitOf('mid-position')
    const after = (...steps: string[][]) =>
      steps.reduce((sim, wanted) => moved(sim, circuit, wanted, false), new Simulation(circuit)).actuatorPosition(0)
    // Heating ended alone: it stays at A, on grey. Hot water ended alone: it never left B.
    expect(after(['heating-1'], [])).toBe(1)
    expect(after(['hot-water'], [])).toBe(0)
    // From the middle, heating ends first: hot water alone, back to B.
    expect(after(['heating-1', 'hot-water'], ['hot-water'], [])).toBe(0)
    // From the middle, hot water ends first: on to A; and it stays there.
    expect(after(['heating-1', 'hot-water'], ['heating-1'], [])).toBe(1)
  })
})
