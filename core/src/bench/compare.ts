import type { Cable, Core, End, Installation, Link } from '../installation'

/** How one conductor differs between two states of an installation. */
export interface ConductorDifference {
  cable: Cable
  change: 'added' | 'removed' | 'moved' | 'looks'
  /** The conductor before and after; left out where it is not there. */
  was?: Core
  is?: Core
}

export interface LinkDifference {
  between: readonly [string, string]
  change: 'added' | 'removed' | 'changed'
}

export interface Differences {
  conductors: ConductorDifference[]
  links: LinkDifference[]
  devices: { id: string; name: string; change: 'added' | 'removed' | 'changed' }[]
  /** Conductors that are the same in both. */
  same: number
}

const place = (end: End): string => JSON.stringify({ ...end, provenance: undefined })
const looks = ({ colour, sleeve, areaMm2 }: Core): string => `${colour} ${sleeve ?? ''} ${areaMm2}`

/** Two states of an installation, conductor by conductor: what is where now, and was where before. */
export function differencesOf(before: Installation, after: Installation): Differences {
  const conductors: ConductorDifference[] = []
  let same = 0
  const coresOf = (doc: Installation) =>
    new Map(
      doc.cables.flatMap((cable) => cable.cores.map((core) => [`${cable.id}.${core.id}`, { cable, core }] as const)),
    )
  const [old, now] = [coresOf(before), coresOf(after)]
  for (const [key, { cable, core: is }] of now) {
    const was = old.get(key)?.core
    if (!was) conductors.push({ cable, change: 'added', is })
    else if (was.ends.some((end, i) => place(end) !== place(is.ends[i])))
      conductors.push({ cable, change: 'moved', was, is })
    else if (looks(was) !== looks(is)) conductors.push({ cable, change: 'looks', was, is })
    else same++
  }
  for (const [key, { cable, core: was }] of old) if (!now.has(key)) conductors.push({ cable, change: 'removed', was })
  return { conductors, links: linkDifferences(before, after), devices: deviceDifferences(before, after), same }
}

function linkDifferences(before: Installation, after: Installation): LinkDifference[] {
  const key = (l: Link) => [...l.between].sort().join(' ')
  const [old, now] = [before, after].map((doc) => new Map(doc.links.map((l) => [key(l), l])))
  return [
    ...[...now].flatMap(([k, { between, kind }]): LinkDifference[] => {
      const was = old.get(k)
      if (!was) return [{ between, change: 'added' }]
      return was.kind === kind ? [] : [{ between, change: 'changed' }]
    }),
    ...[...old].flatMap(([k, { between }]): LinkDifference[] => (now.has(k) ? [] : [{ between, change: 'removed' }])),
  ]
}

function deviceDifferences(before: Installation, after: Installation): Differences['devices'] {
  const text = (d: Installation['devices'][number]) =>
    JSON.stringify([d.name, d.type, d.settings, d.positions ?? {}, d.programme ?? {}])
  const old = new Map(before.devices.map((d) => [d.id, d]))
  const now = new Map(after.devices.map((d) => [d.id, d]))
  return [
    ...after.devices.flatMap(({ id, name }): Differences['devices'] => {
      const was = old.get(id)
      if (!was) return [{ id, name, change: 'added' }]
      return text(was) === text(now.get(id)!) ? [] : [{ id, name, change: 'changed' }]
    }),
    ...before.devices.flatMap(({ id, name }): Differences['devices'] =>
      now.has(id) ? [] : [{ id, name, change: 'removed' }],
    ),
  ]
}

/** An end of a conductor that somebody has looked at. */
export interface RecordedEnd {
  /** Which end, and where it is: the same in two states where what was found still holds. */
  key: string
  cable: Cable
  core: Core
  end: 0 | 1
}

/** Ends that were seen or tested, by their own mark. */
export const recordedEnds = (doc: Installation): RecordedEnd[] =>
  doc.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      core.ends.flatMap((end, i) =>
        end.provenance === 'seen' || end.provenance === 'tested'
          ? [{ key: `${cable.id}.${core.id}.${i} ${place(end)}`, cable, core, end: i as 0 | 1 }]
          : [],
      ),
    ),
  )
