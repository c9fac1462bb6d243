import type { Circuit } from '../circuit'
import { hypothesesOf, type Hypothesis } from '../hypotheses'
import type { Command, Installation } from '../installation'
import type { Defect } from '../simulation'
import type { HuntOptions } from './case'

/** Something that may be the case, with its weight before anything was found. */
export interface Suspect {
  id: string
  label: string
  remedy: string
  /** Relative weight, above 0. */
  prior: number
  /** Undefined of the one that is not on the list. */
  hypothesis?: Hypothesis
  /** Where several things are wrong at once, each of them. */
  causes?: readonly Hypothesis[]
}

/** What is wrong, one by one. */
export const causesOf = ({ hypothesis, causes }: Suspect): readonly Hypothesis[] =>
  causes ?? (hypothesis ? [hypothesis] : [])

export const unlisted = 'not-on-the-list'
/** Share of call-outs whose cause is none of those listed; an estimate. */
const unlistedShare = 0.05

/**
 * Factors on a weight, all estimates: wiring and settings where somebody has just worked; a part that is new, old, or wet; what
 * seizes, after months at rest; an end of a conductor that was seen, or tested, to be where the document has it; the end of a lead
 * that its maker has fixed.
 */
const factors = {
  workedOn: 8,
  fresh: 0.3,
  old: 2,
  wet: 6,
  stoodStill: 4,
  seen: 0.3,
  tested: 0.03,
  fixedByMaker: 0.02,
} as const

/** Water gets into windings, contacts and insulation, and blows what feeds them. */
const byWater = new Set(['insulation', 'load', 'contact', 'fuse'])
const isStuck = (defect: Defect): boolean =>
  defect.part === 'actuator' || (defect.part === 'load' && defect.how === 'jammed')

/** Everything that may singly be the case, and that it is something else. Nothing has no weight at all. */
export function suspectsOf(circuit: Circuit, options: HuntOptions): Suspect[] {
  const { workedOn, fresh, old, wet, stoodStill, weights } = options
  const listed = hypothesesOf(circuit)
    .filter(({ prior }) => prior > 0)
    .map((hypothesis): Suspect => {
      const { id, label, remedy, prior, kind, variant } = hypothesis
      let weight = prior
      const at = devicesOf(circuit, hypothesis)
      if (variant.change && kind !== 'start' && at.some((owner) => workedOn.includes(owner))) weight *= factors.workedOn
      const isAt = (devices: readonly string[]) => at.some((owner) => devices.includes(owner))
      if (kind === 'part') {
        if (isAt(fresh)) weight *= factors.fresh
        if (isAt(old)) weight *= factors.old
        if (isAt(wet) && variant.defects.some(({ part }) => byWater.has(part))) weight *= factors.wet
        if (stoodStill && variant.defects.some(isStuck)) weight *= factors.stoodStill
      }
      if (variant.change) weight *= doubtOf(circuit.installation, variant.change)
      return { id, label, remedy, prior: weights[id] ?? weight, hypothesis }
    })
  const all = listed.reduce((sum, { prior }) => sum + prior, 0)
  return [
    ...listed,
    {
      id: unlisted,
      label: 'something that is not on this list',
      remedy: '',
      prior: weights[unlisted] ?? (all * unlistedShare) / (1 - unlistedShare),
    },
  ]
}

/** The devices at which something has failed, or was done: of a conductor, those at its ends. */
export function devicesOf({ installation }: Circuit, { id, kind, variant }: Hypothesis): string[] {
  if (variant.change) return placesOf(installation, variant.change)
  const [owner = '', core = ''] = id.split('.')
  if (kind !== 'conductor') return [owner]
  const ends = coreOf(installation, owner, core)?.ends ?? []
  return ends.flatMap((end) => ('terminal' in end ? [ownerOf(end.terminal)] : []))
}

/** The devices at which an alteration would have been made. */
function placesOf(installation: Installation, { changes }: Command): string[] {
  return changes.flatMap((change): string[] => {
    if (change.do === 'end') {
      const ends = coreOf(installation, change.cable, change.core)?.ends ?? []
      return ends.flatMap((end) => ('terminal' in end ? [ownerOf(end.terminal)] : []))
    }
    if (change.do === 'drop') {
      const link = installation.links.find((l) => change.in === 'links' && l.id === change.id)
      return link ? link.between.map(ownerOf) : []
    }
    if (change.do !== 'put') return []
    return change.in === 'links' ? change.value.between.map(ownerOf) : [change.value.id]
  })
}

/** How far it may be doubted that the document is right there: less where somebody has seen it, least where it was tested. */
const doubtOf = (installation: Installation, { changes }: Command): number =>
  changes.reduce((least, change) => {
    if (change.do !== 'end') return least
    const lead = installation.cables.find((c) => c.id === change.cable)?.leadOf
    const end = coreOf(installation, change.cable, change.core)?.ends[change.end]
    if (end?.at === 'terminal' && lead !== undefined && ownerOf(end.terminal) === lead) return factors.fixedByMaker
    const known = end?.provenance ?? installation.provenance
    return Math.min(least, known === 'tested' ? factors.tested : known === 'seen' ? factors.seen : 1)
  }, 1)

const coreOf = (installation: Installation, cable: string, core: string) =>
  installation.cables.find((c) => c.id === cable)?.cores.find((k) => k.id === core)

const ownerOf = (terminal: string): string => terminal.slice(0, terminal.indexOf('.'))
