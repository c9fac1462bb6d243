import { type AtomId, EARTH, LINE, NEUTRAL } from '../../circuit'
import {
  freeLinkId,
  type Cable,
  type Change,
  type Colour,
  type Core,
  type Deed,
  type End,
  type Step,
} from '../../installation'
import { inUse, type Landed, type Survey } from './survey'

/** What is brought to a terminal: a pole, or what has this legend. */
type Brought = Extract<Deed, { do: 'bring' }>['what']

const poles: Record<number, Brought> = {
  [LINE]: { pole: 'line' },
  [NEUTRAL]: { pole: 'neutral' },
  [EARTH]: { pole: 'earth' },
}
/** What is printed at a terminal made for a pole. */
const poleLegends: Record<number, string> = { [LINE]: 'Line', [NEUTRAL]: 'Neutral', [EARTH]: 'Earth' }

const onTerminal = (terminal: string): End => ({ at: 'terminal', terminal })

/**
 * Brings a pole to a device's terminal: by the conductor that is on it already, with its other end free or parked; by one
 * that has the pole at its far end and hangs off the device; else by a spare conductor of a cable that goes there. Undefined where neither is there.
 */
export function bringPole(survey: Survey, terminal: string, pole: number): Step | undefined {
  const at = (atom: AtomId) => survey.poles(survey.wired, atom) === pole
  return bring(survey, terminal, poles[pole], poleLegends[pole], at, pole === EARTH)
}

/**
 * Brings a contact its feed, as the demands have it: the thermostat of a demand with a channel is fed by that channel; everything
 * else a demand names, from line. What no demand names has no feed that could be known.
 */
export function bringFeed(survey: Survey, terminal: string): Step | undefined {
  const { circuit, wired } = survey
  const [owner] = terminal.split('.')
  const { demands } = circuit.installation.intent
  const asks = demands.find((d) => d.thermostat?.device === owner)
  if (asks?.channel && asks.channel.device !== owner) {
    const { device, contact } = asks.channel
    const index = circuit.deviceIndex.get(device)!
    const made = circuit.contacts.find((c) => c.device === index && c.part.id === contact && !c.inverted)
    if (!made) return undefined
    const { a, b } = circuit.edges[made.edge]
    const out = circuit.atoms[b].role === 'output' ? b : a
    const output = wired.netOf[out]
    // It is there already: what is missing is missing before it.
    if (wired.netOf[survey.atom(terminal)] === output) return undefined
    const { legend } = circuit.atoms[out]
    return bring(survey, terminal, { legend }, legend, (atom) => wired.netOf[atom] === output, false)
  }
  const named = demands.some(
    (d) =>
      d.thermostat?.device === owner ||
      d.channel?.device === owner ||
      d.circuit.valves.some((valve) => valve.device === owner),
  )
  return named ? bringPole(survey, terminal, LINE) : undefined
}

/** Exchanges the conductors of two terminals of a device, where each has just one. */
export function exchangeAt(survey: Survey, a: string, b: string): Step | undefined {
  const [mine, theirs] = [survey.at.get(a) ?? [], survey.at.get(b) ?? []]
  if (mine.length !== 1 || theirs.length !== 1) return undefined
  const moved = ({ cable, core, end }: Landed, to: string): Change => ({
    do: 'end',
    cable: cable.id,
    core: core.id,
    end,
    to: onTerminal(to),
  })
  const [one, other] = [mine[0], theirs[0]]
  return {
    deed: { do: 'exchange-at', device: a.split('.')[0], colours: [one.core.colour, other.core.colour] },
    changes: [moved(one, b), moved(other, a)],
  }
}

/** Brings what stands on certain terminals to a device's terminal. */
function bring(
  survey: Survey,
  terminal: string,
  what: Brought,
  legend: string,
  has: (atom: AtomId) => boolean,
  earth: boolean,
): Step | undefined {
  const [owner] = terminal.split('.')
  const deed: Deed = { do: 'bring', what, to: terminal }
  const onIt = survey.at.get(terminal)?.find(({ core, end }) => !inUse(core.ends[1 - end]))
  if (onIt) return toTerminal(survey, deed, legend, onIt.cable.id, onIt.core, (1 - onIt.end) as 0 | 1, has, [])
  const back = fallenOff(survey, owner, has, earth)
  if (back) {
    const { cable, core, end } = back
    return { deed, changes: [{ do: 'end', cable: cable.id, core: core.id, end, to: onTerminal(terminal) }] }
  }
  for (const { cable, core, end } of spares(survey, owner)) {
    if (earthColoured(core.colour) !== earth) continue
    const here: Change = { do: 'end', cable: cable.id, core: core.id, end, to: onTerminal(terminal) }
    return toTerminal(survey, deed, legend, cable.id, core, (1 - end) as 0 | 1, has, [here])
  }
  return undefined
}

/** A conductor of a cable at this device that has what is wanted at its far end and is on nothing here. */
function fallenOff(
  survey: Survey,
  device: string,
  has: (atom: AtomId) => boolean,
  earth: boolean,
): Omit<Landed, 'terminal'> | undefined {
  for (const cable of survey.circuit.installation.cables) {
    const at = sideAt(cable, device)
    if (at === undefined) continue
    const far = (1 - at) as 0 | 1
    const core = cable.cores.find(
      (k) =>
        !inUse(k.ends[at]) &&
        inUse(k.ends[far]) &&
        earthColoured(k.colour) === earth &&
        has(survey.atomOf(cable, k, far)),
    )
    if (core) return { cable, core, end: at }
  }
  return undefined
}

/** Which end of a cable is at this device. */
const sideAt = (cable: Cable, device: string): 0 | 1 | undefined =>
  cable.cores.flatMap(({ ends }) =>
    ends.flatMap((e, i) => ('terminal' in e && e.terminal.startsWith(`${device}.`) ? [i as 0 | 1] : [])),
  )[0]

export const earthColoured = (colour: Colour) => colour === 'green-yellow' || colour === 'bare'

/** Conductors of cables to this device that serve nothing, with the end that is at the device. */
export function spares(survey: Survey, device: string): Omit<Landed, 'terminal'>[] {
  const { cables } = survey.circuit.installation
  return cables.flatMap((cable) => {
    const at = sideAt(cable, device)
    if (at === undefined || cable.leadOf !== undefined) return []
    return cable.cores.flatMap((core) => {
      const [near, far] = [core.ends[at], core.ends[1 - at]]
      return !inUse(near) && !inUse(far) ? [{ cable, core, end: at }] : []
    })
  })
}

/** Lands an end on a terminal of the wiring centre that has what is wanted; where none has a way free, on a new one linked to it. */
function toTerminal(
  survey: Survey,
  deed: Deed,
  legend: string,
  cable: string,
  core: Core,
  end: 0 | 1,
  has: (atom: AtomId) => boolean,
  before: Change[],
): Step | undefined {
  const all = survey.centreTerminals(has)
  const free = all.find((ref) => survey.hasRoom(ref))
  if (free) return { deed, changes: [...before, { do: 'end', cable, core: core.id, end, to: onTerminal(free) }] }
  const [full] = all
  if (full === undefined) return undefined
  const added = newTerminal(survey, full.split('.')[0], legend)
  return {
    deed,
    changes: [
      ...before,
      added.change,
      {
        do: 'put',
        in: 'links',
        value: { id: freeLinkId(survey.circuit.installation), kind: 'fitted', between: [full, added.ref] },
      },
      { do: 'end', cable, core: core.id, end, to: onTerminal(added.ref) },
    ],
  }
}

/** A terminal more at the end of a wiring centre. */
function newTerminal(survey: Survey, centre: string, legend: string): { ref: string; change: Change } {
  const value = survey.circuit.installation.wiringCentres.find((c) => c.id === centre)!
  const numbers = value.terminals.map((t) => Number(t.id)).filter(Number.isInteger)
  const id = String(Math.max(0, ...numbers) + 1)
  return {
    ref: `${centre}.${id}`,
    change: {
      do: 'put',
      in: 'wiringCentres',
      value: { ...value, terminals: [...value.terminals, { id, legend, ways: 1 }] },
    },
  }
}

/** The last conductor on a terminal that holds too many goes to a new terminal, linked to it. */
export function moveToOwnTerminal(survey: Survey, { cable, core, end, terminal }: Landed): Step | undefined {
  const [centre, id] = terminal.split('.')
  const legend = survey.circuit.installation.wiringCentres
    .find((c) => c.id === centre)
    ?.terminals.find((t) => t.id === id)?.legend
  if (legend === undefined) return undefined
  const added = newTerminal(survey, centre, legend)
  return {
    deed: { do: 'own-terminal', core: { cable: cable.id, core: core.id } },
    changes: [
      added.change,
      {
        do: 'put',
        in: 'links',
        value: { id: freeLinkId(survey.circuit.installation), kind: 'fitted', between: [terminal, added.ref] },
      },
      { do: 'end', cable: cable.id, core: core.id, end, to: onTerminal(added.ref) },
    ],
  }
}
