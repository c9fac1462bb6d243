import { compile, type Circuit } from '../circuit'
import { edited, type Change, type Command, type Installation } from '../installation'
import { ActionError, type Simulation } from '../simulation'

/**
 * Something done to the wiring for a test, and put back after it: two terminals linked, an end of a conductor lifted (while all is
 * dead) or parked (in a connector of its own, so that it may be live), a control taken off its plate. Written `link=wc.3+wc.7`,
 * `lift=cable.core.1` (the end, 0 or 1), `park=cable.core.1`, `off-plate=programmer`; put back with `unlink=`, `land=`, `unpark=` and
 * `on-plate=`.
 */
export interface Rewiring {
  what: 'link' | 'lift' | 'park' | 'off-plate'
  of: string
  back: boolean
}

const verbs: Record<string, Omit<Rewiring, 'of'>> = {
  link: { what: 'link', back: false },
  unlink: { what: 'link', back: true },
  lift: { what: 'lift', back: false },
  land: { what: 'lift', back: true },
  park: { what: 'park', back: false },
  unpark: { what: 'park', back: true },
  'off-plate': { what: 'off-plate', back: false },
  'on-plate': { what: 'off-plate', back: true },
}

/** What an act does to the wiring; undefined of one that does nothing to it. */
export function rewiringOf(act: string): Rewiring | undefined {
  const eq = act.indexOf('=')
  const verb = verbs[act.slice(0, eq)]
  return verb && { ...verb, of: act.slice(eq + 1) }
}

/** Does it take conductors from each other? A link joins alike what is joined alike already. */
export const partsConductors = ({ what }: Pick<Rewiring, 'what'>): boolean => what !== 'link'

/** The same of an act. */
export function actPartsConductors(act: string): boolean {
  const rewiring = rewiringOf(act)
  return rewiring !== undefined && partsConductors(rewiring)
}

/** Does it leave the wiring otherwise than it was found? */
export const actDisturbs = (act: string): boolean => rewiringOf(act)?.back === false

/** Nothing hangs loose meanwhile: it may be live so. */
export const mayBeLive = ({ what }: Pick<Rewiring, 'what'>): boolean => what !== 'lift'

const backVerbs = { link: 'unlink', lift: 'land', park: 'unpark', 'off-plate': 'on-plate' } as const

/** The act that does it. */
export const doneText = ({ what, of }: Omit<Rewiring, 'back'>): string => `${what}=${of}`

/** The act that puts it back. */
export const backText = ({ what, of }: Omit<Rewiring, 'back'>): string => `${backVerbs[what]}=${of}`

/** The enclosure or device at which it is done. */
export function rewiredAt(circuit: Circuit, { what, of }: Omit<Rewiring, 'back'>): string | undefined {
  if (what !== 'lift' && what !== 'park') return of.split(/[.+]/)[0]
  const [cable, core, end] = of.split('.')
  const at = circuit.installation.cables.find((c) => c.id === cable)?.cores.find((k) => k.id === core)?.ends[
    end === '1' ? 1 : 0
  ]
  return at && 'terminal' in at ? at.terminal.split('.')[0] : undefined
}

/** What is done to the wiring just now, in the order in which it was done. */
export type Disturbed = readonly Omit<Rewiring, 'back'>[]

export const isDisturbed = (disturbed: Disturbed, { what, of }: Pick<Rewiring, 'what' | 'of'>): boolean =>
  disturbed.some((one) => one.what === what && one.of === of)

/** After one more. Throws {@link ActionError} where it is so already, or nothing is there to be put back. */
export function disturbedAfter(disturbed: Disturbed, { what, of, back }: Rewiring): Disturbed {
  const at = disturbed.findIndex((one) => one.what === what && one.of === of)
  if (back !== at >= 0) throw new ActionError(back ? `"${of}" is not disturbed` : `"${of}" is disturbed already`)
  return back ? disturbed.filter((_, i) => i !== at) : [...disturbed, { what, of }]
}

/** The same installation, at the same moment, with nothing done to its wiring but this. `own` is its circuit as it was found. */
export function rewired(sim: Simulation, own: Circuit, disturbed: Disturbed): Simulation {
  if (disturbed.length === 0) return sim.rewired(own)
  return sim.rewired(compile(withRewiring(own.installation, disturbed), own))
}

export function withRewiring(own: Installation, disturbed: Disturbed): Installation {
  const changes = disturbed.flatMap(({ what, of }, i): Change[] =>
    what === 'link' ? [linked(own, of, i)] : what === 'off-plate' ? offPlate(own, of) : [lifted(own, of)],
  )
  const command: Command = { label: 'test', changes }
  return edited(own, command).doc
}

function linked(own: Installation, of: string, i: number): Change {
  const [a = '', b = ''] = of.split('+')
  for (const ref of [a, b]) if (!isTerminal(own, ref)) throw new ActionError(`there is no terminal "${ref}" to link`)
  return { do: 'put', in: 'links', value: { id: `test-link-${i}`, kind: 'fitted', between: [a, b] } }
}

function isTerminal(own: Installation, ref: string): boolean {
  const [owner = '', terminal = ''] = ref.split('.')
  const centre = own.wiringCentres.find(({ id }) => id === owner)
  if (centre) return centre.terminals.some(({ id }) => id === terminal)
  return own.devices.some(({ id }) => id === owner) && terminal !== ''
}

function lifted(own: Installation, of: string): Change {
  const [cable = '', core = '', end = ''] = of.split('.')
  const at = end === '0' ? 0 : end === '1' ? 1 : undefined
  const found = own.cables.find(({ id }) => id === cable)?.cores.find(({ id }) => id === core)
  if (!found || at === undefined) throw new ActionError(`there is no end of a conductor "${of}" to lift`)
  return { do: 'end', cable, core, end: at, to: { at: 'loose' } }
}

/**
 * Off its plate a control joins nothing. What its plate holds stays joined: conductors in one terminal, and terminals that are linked on
 * it.
 */
function offPlate(own: Installation, device: string): Change[] {
  const at = own.devices.find(({ id }) => id === device)
  if (!at) throw new ActionError(`there is no device "${device}"`)
  const isOn = (terminal: string) => terminal.startsWith(`${device}.`)
  const links = own.links.filter(({ between }) => between.some(isOn))
  const ends = own.cables.flatMap(({ id: cable, cores }) =>
    cores.flatMap(({ id: core, ends: both }) =>
      both.flatMap((end, i) =>
        end.at === 'terminal' && isOn(end.terminal) ? [{ cable, core, end: i as 0 | 1, terminal: end.terminal }] : [],
      ),
    ),
  )
  const held = linkedTogether(
    ends.map(({ terminal }) => terminal),
    links.filter(({ kind }) => kind === 'fitted').map(({ between }) => between),
  )
  return [
    ...links.map(({ id }): Change => ({ do: 'drop', in: 'links', id })),
    ...held.flatMap((terminals, n): Change[] => {
      const own = ends.filter(({ terminal }) => terminals.has(terminal))
      const connector = `plate-${device.slice(0, 30)}-${n + 1}`
      const to = own.length > 1 ? ({ at: 'connector', connector } as const) : ({ at: 'loose' } as const)
      const value = { id: connector, name: 'On the plate', place: at.place, ways: Math.min(12, own.length) }
      return [
        ...(own.length > 1 ? [{ do: 'put', in: 'connectors', value } as const] : []),
        ...own.map(({ cable, core, end }): Change => ({ do: 'end', cable, core, end, to })),
      ]
    }),
  ]
}

/** Terminals in groups of those that links join. */
function linkedTogether(terminals: readonly string[], links: readonly (readonly string[])[]): ReadonlySet<string>[] {
  return [...new Set(terminals), ...links.flat()]
    .map((one) => new Set([one]))
    .concat(links.map((between) => new Set(between)))
    .reduce<Set<string>[]>((groups, more) => {
      const joined = groups.filter((group) => [...more].some((one) => group.has(one)))
      const apart = groups.filter((group) => !joined.includes(group))
      return [...apart, new Set([...joined.flatMap((group) => [...group]), ...more])]
    }, [])
}
