import type { Ground } from './routes'
import { farEndOf } from './standing'
import type { Suspect } from './suspects'

/**
 * A device's own lead may have two conductors of one colour, the two ends of a motor or of a switch: nobody can tell them apart, and it
 * makes no difference. Once the lead was followed, each is taken for the one that fits, as certain as the rest of the lead.
 */
export function settleTwins(ground: Ground, suspects: readonly Suspect[], shares: Float64Array): void {
  const { survey, certain } = ground
  const best = suspects[suspects.reduce((most, _, i) => (shares[i] > shares[most] ? i : most), 0)] as
    Suspect | undefined
  if (!best) return
  for (const [c, { id, leadOf, cores }] of survey.cables.entries()) {
    const known = certain.cables.get(id)
    if (leadOf === undefined || !known) continue
    for (const [k, core] of cores.entries()) {
      const name = `${id}.${core.id}`
      if (certain.ends.has(name) || cores.filter(({ colour }) => colour === core.colour).length < 2) continue
      const to = farEndOf(ground, best, c, best.ends[c][k])
      if (to.at === 'terminal') certain.ends.set(name, { to, rests: known.rests })
    }
  }
}
