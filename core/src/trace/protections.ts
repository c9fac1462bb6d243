import { conductingPath, EARTH, NEUTRAL, type AtomId, type EdgeId } from '../circuit'
import type { Asker } from './asker'
import type { Cause } from './claims'

/** The last thing of a kind that happened to a part, ms; undefined where it did not. */
export function lastTime(
  { sim }: Asker,
  happened: (event: Asker['sim']['history'][number]) => boolean,
): number | undefined {
  return sim.history.findLast(happened)?.time
}

/** What made a fuse blow or a residual current device trip: poles that are joined, insulation that lets by, as things stand. */
export function overloadCauses(asker: Asker): Cause[] {
  const { sim } = asker
  const { circuit, electrics } = sim
  const joined = circuit.sources.flatMap(({ device, line, neutral }): Cause[] => {
    const name = circuit.devices[device].device.id
    const poles = electrics.nets.poles[electrics.nets.netOf[line]]
    // Any supply's: where there are two, what is joined may be of both.
    const to = (pole: 'neutral' | 'earth') => new Set(circuit.sources.map((source) => source[pole]))
    const between = (from: AtomId, pole: 'neutral' | 'earth', of: Poles): Cause =>
      joining(asker, name, from, to(pole), of)
    return [
      ...(poles & NEUTRAL ? [between(line, 'neutral', 'line-neutral')] : []),
      ...(poles & EARTH ? [between(line, 'earth', 'line-earth')] : []),
      ...(!(poles & EARTH) && electrics.nets.poles[electrics.nets.netOf[neutral]] & EARTH
        ? [between(neutral, 'earth', 'neutral-earth')]
        : []),
    ]
  })
  const leaking = circuit.insulations.flatMap(({ device, part }, i): Cause[] =>
    electrics.state.failedInsulation[i]
      ? [
          {
            claim: { is: 'insulation', device: circuit.devices[device].device.id, part: part.id },
            failed: true,
            because: [],
          },
        ]
      : [],
  )
  return [...joined, ...secondaryShorts(asker), ...leaking]
}

type Poles = Extract<Cause['claim'], { is: 'short' }>['poles']

/** Transformers whose secondary is joined in itself: nothing behind them gets its volts. */
export function secondaryShorts(asker: Asker): Cause[] {
  const { circuit, electrics } = asker.sim
  const { netOf } = electrics.nets
  return circuit.transformers.flatMap(({ device, fed, common }) =>
    netOf[fed] === netOf[common]
      ? [joining(asker, circuit.devices[device].device.id, fed, new Set([common]), 'secondary')]
      : [],
  )
}

/** What joins two poles: a way from the one to the other, over what belongs there as far as it goes. */
function joining(asker: Asker, device: string, from: AtomId, to: ReadonlySet<AtomId>, poles: Poles): Cause {
  const { circuit, electrics } = asker.sim
  const way = plainest(circuit, electrics.state, asker.beside.strays, from, (atom) => to.has(atom)) ?? []
  return {
    claim: { is: 'short', device, poles },
    failed: false,
    because: way.flatMap((edge) => asker.edge(edge, true)),
  }
}

/** A conducting way, over as few conductors as possible that are not where they belong. */
export function plainest(
  circuit: Asker['sim']['circuit'],
  state: Asker['sim']['electrics']['state'],
  strays: ReadonlySet<EdgeId>,
  from: AtomId,
  reached: (atom: AtomId) => boolean,
): EdgeId[] | undefined {
  if (strays.size > 0) {
    const brokenEdges = state.brokenEdges.slice()
    for (const stray of strays) brokenEdges[stray] = 1
    const path = conductingPath(circuit, { ...state, brokenEdges }, from, reached)
    if (path) return path
  }
  return conductingPath(circuit, state, from, reached)
}
