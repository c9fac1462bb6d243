import { EARTH, LINE, NEUTRAL } from '../../circuit'
import type { Cable, Change, Colour, Command, Core, End } from '../../installation'
import { inUse, type Landed, type Survey } from './survey'

const poleWords: Record<number, string> = { [LINE]: 'Line', [NEUTRAL]: 'Neutral', [EARTH]: 'Earth' }

const onTerminal = (terminal: string): End => ({ at: 'terminal', terminal })

/**
 * Brings a pole to a device's terminal: by the conductor that is on it already, with its other end free or parked; by one
 * that has the pole at its far end and hangs off the device; else by a spare conductor of a cable that goes there. Undefined where neither is there.
 */
export function bringPole(survey: Survey, terminal: string, pole: number): Command | undefined {
  const [owner] = terminal.split('.')
  const [, id] = terminal.split('.')
  const { name } = survey.circuit.devices[survey.circuit.deviceIndex.get(owner)!].device
  const label = `Bring ${poleWords[pole]} to ${name} ${id}`
  const onIt = survey.at.get(terminal)?.find(({ core, end }) => !inUse(core.ends[1 - end]))
  if (onIt) return toPole(survey, label, onIt.cable.id, onIt.core, (1 - onIt.end) as 0 | 1, pole, [])
  const back = fallenOff(survey, owner, pole)
  if (back) {
    const { cable, core, end } = back
    return { label, changes: [{ do: 'end', cable: cable.id, core: core.id, end, to: onTerminal(terminal) }] }
  }
  for (const { cable, core, end } of spares(survey, owner)) {
    if (earthColoured(core.colour) !== (pole === EARTH)) continue
    const here: Change = { do: 'end', cable: cable.id, core: core.id, end, to: onTerminal(terminal) }
    return toPole(survey, label, cable.id, core, (1 - end) as 0 | 1, pole, [here])
  }
  return undefined
}

/** A conductor of a cable at this device that has the pole at its far end and is on nothing here. */
function fallenOff(survey: Survey, device: string, pole: number): Omit<Landed, 'terminal'> | undefined {
  for (const cable of survey.circuit.installation.cables) {
    const at = sideAt(cable, device)
    if (at === undefined) continue
    const far = (1 - at) as 0 | 1
    const core = cable.cores.find(
      (k) =>
        !inUse(k.ends[at]) &&
        inUse(k.ends[far]) &&
        earthColoured(k.colour) === (pole === EARTH) &&
        survey.poles(survey.wired, survey.atomOf(cable, k, far)) === pole,
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

const earthColoured = (colour: Colour) => colour === 'green-yellow' || colour === 'bare'

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

/** Lands an end on a terminal of the wiring centre that has this pole; where none has a way free, on a new one linked to it. */
function toPole(
  survey: Survey,
  label: string,
  cable: string,
  core: Core,
  end: 0 | 1,
  pole: number,
  before: Change[],
): Command | undefined {
  const [free] = survey.freeAt(pole)
  if (free) return { label, changes: [...before, { do: 'end', cable, core: core.id, end, to: onTerminal(free) }] }
  const { circuit } = survey
  const full = circuit.atoms.find((a, i) => a.kind === 'centre' && survey.poles(survey.wired, i) === pole)
  if (!full) return undefined
  const added = newTerminal(survey, full.owner, poleWords[pole])
  return {
    label,
    changes: [
      ...before,
      added.change,
      { do: 'put', in: 'links', value: { id: freeLinkId(survey), kind: 'fitted', between: [full.ref, added.ref] } },
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

function freeLinkId(survey: Survey): string {
  const taken = new Set(survey.circuit.installation.links.map((l) => l.id))
  for (let n = taken.size + 1; ; n++) if (!taken.has(`link-${n}`)) return `link-${n}`
}

/** The last conductor on a terminal that holds too many goes to a new terminal, linked to it. */
export function moveToOwnTerminal(survey: Survey, { cable, core, end, terminal }: Landed): Command | undefined {
  const [centre, id] = terminal.split('.')
  const legend = survey.circuit.installation.wiringCentres
    .find((c) => c.id === centre)
    ?.terminals.find((t) => t.id === id)?.legend
  if (legend === undefined) return undefined
  const added = newTerminal(survey, centre, legend)
  return {
    label: `Give ${core.colour} of ${cable.label} a terminal of its own`,
    changes: [
      added.change,
      { do: 'put', in: 'links', value: { id: freeLinkId(survey), kind: 'fitted', between: [terminal, added.ref] } },
      { do: 'end', cable: cable.id, core: core.id, end, to: onTerminal(added.ref) },
    ],
  }
}
