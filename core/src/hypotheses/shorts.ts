import { nth } from '../lists'
import type { Circuit } from '../circuit'
import type { Command, Core, Installation } from '../installation'

/** Two conductors of one cable that touch: a nail, a lid, a sheath that was cut too deep. */
export interface Short {
  name: string
  /** In the trade's words. */
  label: string
  command: Command
}

/**
 * Conductors in use that may touch each other: those that lie side by side in a cable, and each with its earth, which has no
 * insulation of its own in many. Those that are joined anyway are left out.
 */
export function shortsOf({ installation }: Circuit): Short[] {
  return installation.cables.flatMap(({ id, label, cores }) => {
    const used = cores.flatMap((core) => {
      const at = terminalOf(core)
      return at === undefined ? [] : [{ core, at }]
    })
    const earth = used.find(({ core }) => core.colour === 'green-yellow' || core.colour === 'bare')
    const beside = used.slice(1).map((one, i) => [nth(used, i), one] as const)
    const toEarth = earth ? used.filter((one) => one !== earth).map((one) => [one, earth] as const) : []
    const seen = new Set<string>()
    return [...beside, ...toEarth].flatMap(([a, b]): Short[] => {
      const name = `touching ${id}.${[a.core.id, b.core.id].sort().join('+')}`
      if (a.at === b.at || seen.has(name)) return []
      seen.add(name)
      return [
        {
          name,
          label: `${a.core.colour} and ${b.core.colour} of ${label} touch`,
          command: joined(installation, a.at, b.at),
        },
      ]
    })
  })
}

/** A terminal that a conductor lies on, where both of its ends are on something. */
function terminalOf({ ends }: Core): string | undefined {
  if (!ends.every((end) => end.at === 'terminal' || end.at === 'connector')) return undefined
  return ends.flatMap((end) => (end.at === 'terminal' ? [end.terminal] : []))[0]
}

function joined({ links }: Installation, a: string, b: string): Command {
  const ids = new Set(links.map((link) => link.id))
  let id = 'touching'
  while (ids.has(id)) id += '-'
  return {
    label: 'touching',
    changes: [{ do: 'put', in: 'links', value: { id, kind: 'fitted', between: [a, b] } }],
  }
}
