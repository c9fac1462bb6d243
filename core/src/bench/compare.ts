import { terminalText } from '../catalogue'
import type { Core, End, Installation, Link } from '../installation'
import { endText } from '../planning'

/** How one conductor differs between two states of an installation. */
export interface ConductorDifference {
  cable: string
  core: string
  /** "black of Boiler cable". */
  name: string
  change: 'added' | 'removed' | 'moved' | 'looks'
  before?: string[]
  after?: string[]
}

export interface Differences {
  conductors: ConductorDifference[]
  links: { name: string; change: 'added' | 'removed' | 'changed' }[]
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
  const ends = (doc: Installation, core: Core) => core.ends.map((end) => endText(doc, end))
  for (const [key, { cable, core }] of now) {
    const was = old.get(key)
    const at = { cable: cable.id, core: core.id, name: `${core.colour} of ${cable.label}` }
    if (!was) conductors.push({ ...at, change: 'added', after: ends(after, core) })
    else if (was.core.ends.some((end, i) => place(end) !== place(core.ends[i])))
      conductors.push({ ...at, change: 'moved', before: ends(before, was.core), after: ends(after, core) })
    else if (looks(was.core) !== looks(core))
      conductors.push({ ...at, change: 'looks', before: [looksText(was.core)], after: [looksText(core)] })
    else same++
  }
  for (const [key, { cable, core }] of old)
    if (!now.has(key))
      conductors.push({
        cable: cable.id,
        core: core.id,
        name: `${core.colour} of ${cable.label}`,
        change: 'removed',
        before: ends(before, core),
      })
  return { conductors, links: linkDifferences(before, after), devices: deviceDifferences(before, after), same }
}

const looksText = ({ colour, sleeve, areaMm2 }: Core): string =>
  `${colour}${sleeve ? ` sleeved ${sleeve}` : ''}, ${areaMm2} mm²`

function linkDifferences(before: Installation, after: Installation): Differences['links'] {
  const key = (l: Link) => [...l.between].sort().join(' ')
  const name = (doc: Installation, l: Link) => l.between.map((t) => terminalText(doc, t)).join(' to ')
  const [old, now] = [before, after].map((doc) => new Map(doc.links.map((l) => [key(l), l])))
  return [
    ...[...now].flatMap(([k, l]): Differences['links'] => {
      const was = old.get(k)
      if (!was) return [{ name: name(after, l), change: 'added' }]
      return was.kind === l.kind ? [] : [{ name: name(after, l), change: 'changed' }]
    }),
    ...[...old].flatMap(([k, l]): Differences['links'] =>
      now.has(k) ? [] : [{ name: name(before, l), change: 'removed' }],
    ),
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
  /** "black of Boiler cable, end 2". */
  name: string
}

/** Ends that were seen or tested, by their own mark. */
export const recordedEnds = (doc: Installation): RecordedEnd[] =>
  doc.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      core.ends.flatMap((end, i) =>
        end.provenance === 'seen' || end.provenance === 'tested'
          ? [
              {
                key: `${cable.id}.${core.id}.${i} ${place(end)}`,
                name: `${core.colour} of ${cable.label}, end ${i + 1}`,
              },
            ]
          : [],
      ),
    ),
  )
