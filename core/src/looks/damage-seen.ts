import type { Circuit } from '../circuit'
import { ownerOf, type Cable, type Core } from '../installation'
import { nth } from '../lists'
import { NOT_HELD, type Simulation } from '../simulation'
import type { words } from './look'

export type Damage = (typeof words)['eyes'][number]
type Marks = Readonly<Partial<Record<Damage, number>>>

/**
 * How often what is wrong has left something to be seen, once the cover is off: shares, trade estimates. A conductor that is open
 * has come loose or burnt off at one of its ends, or is broken on its way.
 */
const marksOf = {
  wetInsulation: { water: 0.7 },
  dryInsulation: { burnt: 0.4 },
  endOfOpenCore: { loose: 0.35, burnt: 0.1 },
  contact: { burnt: 0.15 },
  winding: { burnt: 0.2 },
} as const satisfies Record<string, Marks>

/** What is seen with the cover off a device or wiring centre, each with how probable it is; together 1. */
export function damageSeen(sim: Simulation, thing: string): Readonly<Record<Damage, number>> {
  const { circuit, wrongParts } = sim
  const device = circuit.deviceIndex.get(thing)
  const marks: Marks[] = device === undefined ? [] : marksOnDevice(circuit, wrongParts, device)
  circuit.edges.forEach((edge, i) => {
    if (wrongParts.brokenEdges[i] && edge.kind === 'core' && endsOpenAt(edge, thing)) marks.push(marksOf.endOfOpenCore)
  })
  return together(marks)
}

function marksOnDevice(circuit: Circuit, wrong: Simulation['wrongParts'], device: number): Marks[] {
  const carriesWater = circuit.water.ways.some((way) => way.device === device)
  const of = (parts: readonly { device: number }[], isWrong: (i: number) => boolean, marks: Marks): Marks[] =>
    parts.some((part, i) => part.device === device && isWrong(i)) ? [marks] : []
  return [
    ...of(
      circuit.insulations,
      (i) => nth(wrong.failedInsulation, i) !== 0,
      carriesWater ? marksOf.wetInsulation : marksOf.dryInsulation,
    ),
    ...of(circuit.contacts, (i) => nth(wrong.heldContacts, i) !== NOT_HELD, marksOf.contact),
    ...of(circuit.loads, (i) => nth(wrong.openLoads, i) !== 0, marksOf.winding),
    ...of(circuit.transformers, (i) => nth(wrong.openTransformers, i) !== 0, marksOf.winding),
  ]
}

/** The end of a lead that its maker has fixed lies inside. */
const endsOpenAt = ({ cable, core }: { cable: Cable; core: Core }, thing: string): boolean =>
  cable.leadOf !== thing && core.ends.some((end) => end.at === 'terminal' && ownerOf(end.terminal) === thing)

/** Of several marks any may be seen, or none; of two that are there the one is told that is the likelier. */
function together(marks: readonly Marks[]): Record<Damage, number> {
  const weight = (word: Damage) => marks.reduce((sum, one) => sum + (one[word] ?? 0), 0)
  const none = marks.reduce((product, one) => product * (1 - Object.values(one).reduce((sum, p) => sum + p, 0)), 1)
  const [loose, burnt, water] = [weight('loose'), weight('burnt'), weight('water')]
  const scale = none < 1 ? (1 - none) / (loose + burnt + water) : 0
  return { sound: none, loose: loose * scale, burnt: burnt * scale, water: water * scale }
}
