import type { Circuit } from '../circuit'
import type { Provenance } from '../installation'
import { circuitKnown } from '../trace'
import { linksBetweenPlaces } from './rules/survey'

/** Something that could not be looked at, or was taken for granted: a verdict says so beside what it found. */
export type Gap =
  /** Nothing says what the installation is for. */
  | { gap: 'no-demands' }
  /** The model knows no port of this valve: whether the demand's circuit opens is not known. */
  | { gap: 'valve-without-port'; demand: string; device: string }
  /** Nothing says what the demand warms. */
  | { gap: 'nothing-warmed'; demand: string }
  /** Nobody has recorded pipes: pipes, emitters and a bypass were laid in from what the demands say. */
  | { gap: 'pipes-assumed'; bypass: boolean }
  /** A link is recorded between two places; it is counted as joined. */
  | { gap: 'link-between-places'; link: string }

/** How much of the wiring as recorded somebody has really looked at. */
export interface Known {
  /** Where the document as a whole comes from. */
  provenance: Provenance
  /** Ends of conductors. */
  ends: number
  /** Ends that nobody has found. */
  unknownEnds: number
  /** Ends recorded but neither seen nor tested. */
  unverifiedEnds: number
  /** Ends that were taken from a standard drawing: neither planned for this house nor looked at. */
  assumedEnds: number
  gaps: Gap[]
}

/** Has nobody looked at anything yet: is every end assumed? */
export const nobodyLooked = ({ ends, assumedEnds, unknownEnds }: Known): boolean =>
  ends > 0 && assumedEnds + unknownEnds === ends

/** What a verdict on this installation rests on. */
export function knownOf(circuit: Circuit): Known {
  const { provenance, cables } = circuit.installation
  const ends = cables.flatMap((cable) => cable.cores.flatMap((core) => core.ends))
  const found = ends.filter((end) => end.at !== 'unknown').map((end) => end.provenance ?? provenance)
  return {
    provenance,
    ends: ends.length,
    unknownEnds: ends.length - found.length,
    unverifiedEnds: found.filter((known) => known !== 'seen' && known !== 'tested').length,
    assumedEnds: found.filter((known) => known === 'assumed').length,
    gaps: gapsOf(circuit),
  }
}

function gapsOf(circuit: Circuit): Gap[] {
  const { demands } = circuit.installation.intent
  const emitters = new Set(circuit.water.emitters.map((e) => circuit.devices[e.device].device.id))
  const gaps: Gap[] = demands.length === 0 ? [{ gap: 'no-demands' }] : []
  for (const demand of demands) {
    if (!circuitKnown(circuit, demand)) {
      const unknown = demand.circuit.valves.find(
        (valve) => !circuitKnown(circuit, { ...demand, circuit: { ...demand.circuit, valves: [valve] } }),
      )!
      gaps.push({ gap: 'valve-without-port', demand: demand.id, device: unknown.device })
    }
    if (!demand.circuit.emitters?.some((id) => emitters.has(id)))
      gaps.push({ gap: 'nothing-warmed', demand: demand.id })
  }
  if (circuit.pipesAssumed || (circuit.installation.provenance === 'assumed' && circuit.water.ways.length > 0))
    gaps.push({ gap: 'pipes-assumed', bypass: circuit.water.ways.some((way) => way.opensAt > 0) })
  for (const { id } of linksBetweenPlaces(circuit.installation)) gaps.push({ gap: 'link-between-places', link: id })
  return gaps
}
