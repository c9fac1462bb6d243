import { endText } from '../catalogue'
import type { Colour, Core, End, Installation, Link } from '../installation'

/** A conductor in a terminal, as the schedule lists it. */
export interface ScheduledConductor {
  cable: string
  cableLabel: string
  core: string
  colour: Colour
  sleeve?: Colour
  /** Where the other end is. */
  far: End
  farText: string
  parked: boolean
}

export interface ScheduledTerminal {
  ref: string
  number: string
  legend: string
  ways: number
  conductors: ScheduledConductor[]
  /** Numbers of the terminals it is linked to. */
  linkedTo: string[]
  /** Numbers of those it came linked to, the link being cut. */
  cutFrom: string[]
}

export interface ScheduledCore {
  core: Core
  ends: [string, string]
  /** Neither end is at work: a core in reserve. */
  spare: boolean
}

export interface ScheduledCable {
  id: string
  label: string
  lengthM?: number
  lead: boolean
  cores: ScheduledCore[]
}

/** Terminal by terminal, in the wiring centre's real order, what goes in. */
export function terminalSchedule(installation: Installation, centreId: string): ScheduledTerminal[] {
  const centre = installation.wiringCentres.find((w) => w.id === centreId)
  if (!centre) return []
  return centre.terminals.map((t) => {
    const ref = `${centre.id}.${t.id}`
    const conductors: ScheduledConductor[] = []
    for (const cable of installation.cables)
      for (const core of cable.cores)
        core.ends.forEach((end, i) => {
          if ((end.at !== 'terminal' && end.at !== 'parked') || end.terminal !== ref) return
          const far = core.ends[1 - i]
          conductors.push({
            cable: cable.id,
            cableLabel: cable.label,
            core: core.id,
            colour: core.colour,
            sleeve: core.sleeve,
            far,
            farText: endText(installation, far),
            parked: end.at === 'parked',
          })
        })
    const links = installation.links.filter(({ between }) => between.includes(ref))
    const other = ({ between: [a, b] }: Link) => (a === ref ? b : a).split('.')[1]
    const linkedTo = links.filter(({ kind }) => kind !== 'cut').map(other)
    const cutFrom = links.filter(({ kind }) => kind === 'cut').map(other)
    return { ref, number: t.id, legend: t.legend, ways: t.ways, conductors, linkedTo, cutFrom }
  })
}

/** Cable by cable, what each core joins. */
export function cableSchedule(installation: Installation): ScheduledCable[] {
  return installation.cables.map((cable) => ({
    id: cable.id,
    label: cable.label,
    lengthM: cable.lengthM,
    lead: cable.leadOf !== undefined,
    cores: cable.cores.map((core) => ({
      core,
      ends: [endText(installation, core.ends[0]), endText(installation, core.ends[1])],
      spare:
        core.ends.some((e) => e.at === 'parked') || core.ends.every((e) => e.at !== 'terminal' && e.at !== 'connector'),
    })),
  }))
}
