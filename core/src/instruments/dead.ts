import { type AtomId, EARTH, LINE, NEUTRAL, ohmsWithin, type Electrics } from '../circuit'
import type { Reading, Refusal } from './reading'

/** Above its range an instrument shows that it is open. Usual ranges: 50 MΩ for resistance, 999 MΩ for insulation. */
const resistanceRange = 50e6
const insulationRange = 999e6
/** A contact is under 1 Ω; with the conductors to it, still under this. */
const closedOhms = 2

/** Ohms between two atoms, over conductors, contacts and loads. */
function ohmsBetween(electrics: Electrics, red: AtomId, black: AtomId): number {
  const [a, b] = [electrics.nets.netOf[red], electrics.nets.netOf[black]]
  return a === b ? ohmsWithin(electrics, red, black) : electrics.dcOhms(a, b)
}

export function ohmsReading(electrics: Electrics, red: AtomId, black: AtomId): Reading {
  const ohms = ohmsBetween(electrics, red, black)
  return { kind: 'ohms', ohms: ohms > resistanceRange ? null : ohms, closed: ohms < closedOhms }
}

export function insulationReading(electrics: Electrics, red: AtomId, black: AtomId): Reading {
  const ohms = ohmsBetween(electrics, red, black)
  return { kind: 'insulation', megohms: ohms > insulationRange ? null : ohms / 1e6 }
}

/** Why a dead test must not be made here, if it must not. */
export function refusalOf(electrics: Electrics, red: AtomId, black: AtomId, insulation: boolean): Refusal | undefined {
  const { circuit, nets } = electrics
  const island = islandOf(electrics, [nets.netOf[red], nets.netOf[black]])
  const joined = (pole: 'line' | 'neutral', bit: number) =>
    circuit.sources
      .filter((s) => nets.poles[nets.netOf[s[pole]]] & bit && island.has(nets.netOf[s[pole]]))
      .map((s) => circuit.devices[s.device].device.id)
  const live = joined('line', LINE)
  if (live.length > 0) return { reason: 'live', sources: live }
  const neutral = joined('neutral', NEUTRAL)
  if (neutral.length > 0) return { reason: 'neutral-joined', sources: neutral }
  for (const atom of [red, black]) {
    const { owner } = circuit.atoms[atom]
    const beside = circuit.atoms.find(
      (other, i) => other.owner === owner && other.kind !== 'internal' && nets.poles[nets.netOf[i]] & LINE,
    )
    if (beside) return { reason: 'live-beside', owner, terminal: beside.ref }
  }
  if (!insulation) return undefined
  // Direct current does not pass a transformer.
  const reached = islandOf(electrics, [nets.netOf[red], nets.netOf[black]], false)
  for (const { device, type } of circuit.devices)
    for (const t of type.terminals) {
      const ref = `${device.id}.${t.id}`
      if (t.extraLow && reached.has(nets.netOf[circuit.atomIndex.get(ref)!]))
        return { reason: 'extra-low', terminal: ref }
    }
  return undefined
}

/**
 * Nets that hang together over loads, diodes and transformers: what a test current or a voltage could reach. Nothing is
 * followed beyond a pole of the supply: what stands behind it is another circuit.
 */
function islandOf(electrics: Electrics, from: readonly number[], acrossTransformers = true): Set<number> {
  const { circuit, nets, network } = electrics
  const neighbours = new Map<number, number[]>()
  const join = (atoms: readonly AtomId[]) => {
    const list = [...new Set(atoms.map((atom) => nets.netOf[atom]))]
    for (const net of list) neighbours.set(net, [...(neighbours.get(net) ?? []), ...list])
  }
  for (const { a, b, of } of network.branches) if (of.kind !== 'capacitance') join([a, b])
  for (const { anode, cathode } of circuit.diodes) join([anode, cathode])
  for (const { primary, fed, common } of acrossTransformers ? circuit.transformers : [])
    join([circuit.loads[primary].a, circuit.loads[primary].b, fed, common])
  const seen = new Set(from)
  for (const net of seen) {
    const onPole = nets.poles[net] & (LINE | NEUTRAL | EARTH)
    if (onPole && !from.includes(net)) continue
    for (const next of neighbours.get(net) ?? []) seen.add(next)
  }
  return seen
}
