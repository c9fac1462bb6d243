import type { Circuit } from '../circuit'
import { OPEN, PASSING, SHUT } from '../water'
import type { SeenByWater } from './seen-by-water'

/** Which ways for water stand open and which pumps run, as valves and loads stand; written into `to`. */
export function readGates(
  circuit: Circuit,
  plant: Pick<SeenByWater, 'position' | 'passes' | 'working'>,
  to: { gates: Uint8Array; pumps: Uint8Array },
): void {
  const { ways } = circuit.water
  for (let i = 0; i < ways.length; i++) {
    const { port, pump } = ways[i]
    if (port !== undefined) {
      const { actuator, part } = circuit.ports[port]
      const position = plant.position(actuator)
      const open = position >= part.openFrom && position <= part.openTo
      to.gates[i] = open ? OPEN : plant.passes(port) ? PASSING : SHUT
    } else to.gates[i] = OPEN
    if (pump) to.pumps[i] = plant.working(pump.load) ? 1 : 0
  }
}

/** Without a model of heat, hot water drives itself up at once and all other water lies still; written into `to`. */
export function readRising(circuit: Circuit, plant: Pick<SeenByWater, 'hot'>, to: Uint8Array): void {
  const { sources, emitters } = circuit.water
  const hot = sources.some((s, i) => s.way !== undefined && plant.hot(i))
  emitters.forEach(({ rise }, i) => (to[i] = hot && rise > 0 ? 1 : 0))
}
