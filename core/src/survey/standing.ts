import { nth } from '../lists'
import { Box, netsOf } from './box'
import type { FarEnd } from './certain'
import { away, joint, type Ground } from './routes'
import type { Suspect } from './suspects'

/** Told as likely from this share on; below it is open. */
export const likelyFrom = 0.8

/** What speaks for where a conductor goes. */
export type Because =
  /** It was seen, followed or rung out: facts by their ids. */
  | { why: 'facts'; facts: string[] }
  /** It sits with a conductor that goes to `with`, and its own terminal would be joined with that one. */
  | { why: 'sits-with'; box: string; with: string; cable: string; core: string }
  /** Its colour and others behind a plate are those of its cable. */
  | { why: 'plate'; device: string }
  /** It is a lead of such a device. */
  | { why: 'lead'; type: string }

export type Sureness = 'certain' | 'likely' | 'open'

/** What is known of one conductor's far end. */
export interface CoreStanding {
  cable: string
  core: string
  sure: Sureness
  /** The likeliest; left out where nothing is left that goes together. */
  to?: FarEnd
  /** Its share of all weight, 0 to 1; 1 where it is certain. */
  share: number
  /** What else it may be, by share, from one in a hundred on. */
  others: { to: FarEnd; share: number }[]
  because: Because[]
}

export interface CableStanding {
  cable: string
  sure: Sureness
  /** The device's id; left out where it goes elsewhere, or where nothing goes together. */
  device?: string
  away?: boolean
  share: number
  others: { device?: string; share: number }[]
}

const sureOf = (share: number): Sureness => (share >= likelyFrom ? 'likely' : 'open')

/** A suspect's number for a far end, as what it is. */
export function farEndOf({ expected }: Ground, { devices }: Suspect, cable: number, end: number): FarEnd {
  if (end >= 0) return { at: 'terminal', terminal: expected.terminals[end].ref }
  const device = devices[cable]
  if (end === away || device < 0) return { at: 'away' }
  const { id } = expected.devices[device]
  return end === joint ? { at: 'joint', device: id, joint: 1 } : { at: 'cut-back', device: id }
}

/** Shares of what comes out of each suspect, the likeliest first. What is on no list has the last share and no outcome. */
export function sharesBy<T>(
  suspects: readonly Suspect[],
  shares: Float64Array,
  of: (suspect: Suspect) => readonly { what: T; share: number }[],
): { what: T; share: number }[] {
  const sums = new Map<string, { what: T; share: number }>()
  suspects.forEach((suspect, i) => {
    for (const { what, share } of of(suspect)) {
      const key = typeof what === 'object' ? Object.values(what as object).join(' ') : String(what)
      const before = sums.get(key)
      if (before) before.share += share * shares[i]
      else sums.set(key, { what, share: share * shares[i] })
    }
  })
  return [...sums.values()].sort((x, y) => y.share - x.share)
}

export function cableStandings(ground: Ground, suspects: readonly Suspect[], shares: Float64Array): CableStanding[] {
  const { survey, expected, certain } = ground
  return survey.cables.map(({ id, cores }, c): CableStanding => {
    const known = certain.cables.get(id)
    if (known) return { cable: id, sure: 'certain', device: known.device, share: 1, others: [] }
    if (cores.length > 0 && cores.every((core) => certain.ends.get(`${id}.${core.id}`)?.to.at === 'away'))
      return { cable: id, sure: 'certain', away: true, share: 1, others: [] }
    const [best, ...others] = sharesBy(suspects, shares, ({ devices }) => [{ what: devices[c], share: 1 }])
    if (!best) return { cable: id, sure: 'open', share: 0, others: [] }
    const named = (device: number) => (device >= 0 ? { device: expected.devices[device].id } : {})
    return {
      cable: id,
      sure: sureOf(best.share),
      ...named(best.what),
      ...(best.what < 0 && { away: true }),
      share: best.share,
      others: others.filter(({ share }) => share >= 0.01).map(({ what, share }) => ({ ...named(what), share })),
    }
  })
}

export function coreStandings(ground: Ground, suspects: readonly Suspect[], shares: Float64Array): CoreStanding[] {
  const { survey, certain } = ground
  const box = new Box(survey)
  const nets = netsOf(box, survey.cables)
  const standings = survey.cables.flatMap(({ id, cores }, c) =>
    cores.map((core, k): CoreStanding => {
      const known = certain.ends.get(`${id}.${core.id}`)
      const base = { cable: id, core: core.id }
      if (known)
        return {
          ...base,
          sure: 'certain',
          to: known.to,
          share: 1,
          others: [],
          because: [{ why: 'facts', facts: known.rests }],
        }
      const [best, ...others] = sharesBy(suspects, shares, (suspect) =>
        suspect.chances[c][k].map(({ end, share }) => ({ what: farEndOf(ground, suspect, c, end), share })),
      )
      if (!best) return { ...base, sure: 'open', share: 0, others: [], because: [] }
      return {
        ...base,
        sure: sureOf(best.share),
        to: best.what,
        share: best.share,
        others: others.filter(({ share }) => share >= 0.01).map(({ what, share }) => ({ to: what, share })),
        because: [],
      }
    }),
  )
  for (const standing of standings)
    if (standing.sure !== 'certain') standing.because = reasonsFor(ground, standing, standings, nets)
  return standings
}

/** What speaks for a likely end: what it sits with, its sheath, its lead; what is surest first. */
function reasonsFor(
  { survey, expected }: Ground,
  { cable, core, to }: CoreStanding,
  standings: readonly CoreStanding[],
  nets: readonly number[][],
): Because[] {
  const c = survey.cables.findIndex(({ id }) => id === cable)
  const seen = survey.cables[c]
  const k = seen.cores.findIndex(({ id }) => id === core)
  const reasons: Because[] = []
  if (seen.leadOf !== undefined) reasons.push({ why: 'lead', type: seen.leadOf })
  if (to?.at !== 'terminal') return reasons
  const [device] = to.terminal.split('.')
  if (survey.facts.some((fact) => fact.see === 'plate' && fact.device === device))
    reasons.push({ why: 'plate', device })
  const wanted = expected.terminals[expected.at(to.terminal)!].net
  const net = nth(nets[c], k)
  if (net < 0 || wanted < 0) return reasons
  const beside = standings
    .filter((other) => {
      if (other.cable === cable || other.to?.at !== 'terminal' || other.sure === 'open') return false
      const oc = survey.cables.findIndex(({ id }) => id === other.cable)
      const ok = survey.cables[oc].cores.findIndex(({ id }) => id === other.core)
      return nets[oc][ok] === net && expected.terminals[expected.at(other.to.terminal)!].net === wanted
    })
    .sort((x, y) => y.share - x.share)
  const [first] = beside
  if (first?.to?.at === 'terminal') {
    const at = seen.cores[k].at
    const where = at.at === 'terminal' ? at.terminal : at.at === 'connector' ? at.connector : ''
    reasons.push({ why: 'sits-with', box: where, with: first.to.terminal, cable: first.cable, core: first.core })
  }
  return reasons
}
