import type { Circuit } from './circuit'
import type { Electrics } from './electrics'
import { FED, LINE, RETURN, shortCircuit, type Nets } from './nets'

/** How the volts across a load stand to what it needs: below its drop-out, between, from its pull-in. */
export const LOW = 0
export const MIDDLE = 1
export const WORKING = 2

/**
 * Of one electrical state, what the parts answer to, and nothing else: a few hundred bytes, where the whole {@link Electrics}
 * takes tens of thousands. Immutable.
 */
export interface ElectricalAnswer {
  /** Is line joined to neutral or earth? */
  mainsShort: boolean
  /** Are both sides of a transformer's secondary joined? */
  secondaryShort: boolean
  /** A terminal that must stay at extra-low voltage and is joined to the mains' line: the first such atom, else −1. */
  mainsAt: number
  /** Per load: {@link LOW}, {@link MIDDLE} or {@link WORKING}. */
  levels: Uint8Array
  /** Per load: 1 where half-waves hold its rotor. */
  holds: Uint8Array
  /** Per load: 1 where it is under more volts than it withstands. */
  over: Uint8Array
  /** Per pair of bus ports, row by row: 1 where both wires join the two, either way round, without touching each other. */
  linked: Uint8Array
}

export function answerOf({ circuit, state, nets, loadVolts, loadMeans }: Electrics): ElectricalAnswer {
  const levels = new Uint8Array(circuit.loads.length)
  const holds = new Uint8Array(circuit.loads.length)
  const over = new Uint8Array(circuit.loads.length)
  circuit.loads.forEach(({ pullsIn, dropsOut, holdsOn, withstands }, i) => {
    if (state.openLoads[i]) return
    const volts = loadVolts[i]
    levels[i] = volts < dropsOut ? LOW : volts < pullsIn ? MIDDLE : WORKING
    holds[i] = loadMeans[i] >= holdsOn ? 1 : 0
    over[i] = volts > withstands ? 1 : 0
  })
  return {
    mainsShort: shortCircuit(circuit, nets),
    secondaryShort: secondariesShorted(circuit, nets),
    mainsAt: extraLowOf(circuit).find((atom) => nets.poles[nets.netOf[atom]] & LINE) ?? -1,
    levels,
    holds,
    over,
    linked: linkedPorts(circuit, nets),
  }
}

/** Are both sides of a transformer's secondary in one net? */
const secondariesShorted = ({ transformers }: Circuit, { netOf, poles }: Nets): boolean =>
  transformers.some(({ fed }) => (poles[netOf[fed]] & (FED | RETURN)) === (FED | RETURN))

const extraLowByDevices = new WeakMap<Circuit['devices'], number[]>()

/** The terminals that must stay at extra-low voltage. */
function extraLowOf(circuit: Circuit): readonly number[] {
  let atoms = extraLowByDevices.get(circuit.devices)
  if (!atoms) {
    atoms = circuit.devices.flatMap(({ type, device }) =>
      type.terminals.filter((t) => t.extraLow).map((t) => circuit.atomIndex.get(`${device.id}.${t.id}`)!),
    )
    extraLowByDevices.set(circuit.devices, atoms)
  }
  return atoms
}

function linkedPorts({ buses }: Circuit, { netOf }: Nets): Uint8Array {
  const n = buses.length
  const linked = new Uint8Array(n * n)
  buses.forEach((p, i) =>
    buses.forEach((q, k) => {
      if (netOf[p.a] === netOf[p.b]) return
      const straight = netOf[p.a] === netOf[q.a] && netOf[p.b] === netOf[q.b]
      const crossed = netOf[p.a] === netOf[q.b] && netOf[p.b] === netOf[q.a]
      if (straight || crossed) linked[i * n + k] = 1
    }),
  )
  return linked
}
