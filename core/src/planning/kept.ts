import type { End, Installation, WiringCentre } from '../installation'

/** Conductors that stay where they are when a plan is made again: the end `cable.core.0` or `.1`, and its terminal. */
export type KeptPlaces = Readonly<Partial<Record<string, string>>>

/**
 * A plan with conductors in the terminals where somebody keeps them. What a conductor is joined with comes along: two terminals of
 * a wiring centre change places, with their legends, conductors and links, so that nothing is joined otherwise. Where that is not
 * to be had (another that is kept stands in its way, its conductor or terminal is no more) the conductor stays where the plan puts it.
 */
export function withKept(plan: Installation, kept: KeptPlaces): Installation {
  const settled = new Set<string>()
  let now = plan
  for (const [key, terminal] of Object.entries(kept)) {
    const at = terminalOf(now, key)
    if (at === undefined || terminal === undefined || !exchangeable(now, at, terminal)) continue
    if (at !== terminal && (settled.has(at) || settled.has(terminal))) continue
    if (at !== terminal) now = exchanged(now, at, terminal)
    settled.add(terminal)
  }
  return now
}

/** The terminal that an end of a conductor is in; undefined where it is in none. */
export function terminalOf({ cables }: Installation, key: string): string | undefined {
  const [cable, core, end] = key.split('.')
  const found = cables.find(({ id }) => id === cable)?.cores.find(({ id }) => id === core)?.ends[Number(end) as 0 | 1]
  return found && 'terminal' in found ? found.terminal : undefined
}

/** What meets in a terminal, over links too: ends of conductors as `cable.core.0` or `.1`, in order. */
export function joinedIn({ cables, links }: Installation, terminal: string): string[] {
  const linked = new Set([terminal])
  for (const at of linked)
    for (const { between, kind } of links)
      if (kind !== 'cut' && between.includes(at)) between.forEach((ref) => linked.add(ref))
  return cables
    .flatMap(({ id, cores }) =>
      cores.flatMap((core) =>
        core.ends.flatMap((end, i) =>
          end.at === 'terminal' && linked.has(end.terminal) ? [`${id}.${core.id}.${i}`] : [],
        ),
      ),
    )
    .sort()
}

const split = (ref: string) => [ref.slice(0, ref.indexOf('.')), ref.slice(ref.indexOf('.') + 1)] as const

/** Whether two terminals are of one wiring centre, and take as many conductors as the other holds. */
function exchangeable({ wiringCentres, cables }: Installation, a: string, b: string): boolean {
  const centre = wiringCentres.find(({ id }) => id === split(a)[0])
  const of = (ref: string) => centre?.terminals.find(({ id }) => `${centre.id}.${id}` === ref)
  const [one, other] = [of(a), of(b)]
  if (!one || !other) return false
  const holds = (ref: string) =>
    cables.flatMap(({ cores }) =>
      cores.flatMap(({ ends }) => ends.filter((e) => 'terminal' in e && e.terminal === ref)),
    ).length
  return holds(a) <= other.ways && holds(b) <= one.ways
}

/** Two terminals that have changed places: legends, conductors and links; each keeps its number and its ways. */
function exchanged(doc: Installation, a: string, b: string): Installation {
  const other = (ref: string) => (ref === a ? b : ref === b ? a : ref)
  const end = (one: End): End => ('terminal' in one ? { ...one, terminal: other(one.terminal) } : one)
  const centre = (one: WiringCentre): WiringCentre => ({
    ...one,
    terminals: one.terminals.map((terminal) => {
      const from = other(`${one.id}.${terminal.id}`)
      const legend = one.terminals.find(({ id }) => `${one.id}.${id}` === from)?.legend
      return { ...terminal, legend: legend ?? terminal.legend }
    }),
  })
  return {
    ...doc,
    wiringCentres: doc.wiringCentres.map(centre),
    cables: doc.cables.map((cable) => ({
      ...cable,
      cores: cable.cores.map((core) => ({ ...core, ends: [end(core.ends[0]), end(core.ends[1])] })),
    })),
    links: doc.links.map((link) => ({ ...link, between: [other(link.between[0]), other(link.between[1])] })),
  }
}
