import type { Cable, End, Installation } from '../installation'
import { terminalSchedule } from './schedules'

/** What one label says. */
export interface LabelText {
  /** The largest on it. */
  mark: string
  lines: string[]
}

/** Two labels to a cable, one for either end: its name, and where the other end is. A device's own lead has one, where it ends. */
export function cableLabels(installation: Installation): LabelText[] {
  return installation.cables.flatMap((cable) => {
    const [near, far] = [ownersOf(installation, cable, 0), ownersOf(installation, cable, 1)]
    const label = (to: string): LabelText => ({
      mark: cable.label,
      lines: [`${cable.cores.length}-core, to ${to || 'an end that nobody has found'}`],
    })
    return cable.leadOf === undefined ? [label(near), label(far)] : [label(near)]
  })
}

/** A label to each conductor in a wiring centre, in the order of its terminals: the terminal, its legend, and the other end. */
export function conductorLabels(installation: Installation): LabelText[] {
  return installation.wiringCentres.flatMap(({ id }) =>
    terminalSchedule(installation, id).flatMap(({ number, legend, conductors }) =>
      conductors.map(({ colour, sleeve, farText, cableLabel }) => ({
        mark: number,
        lines: [legend, `${sleeve ? `${colour} sleeved ${sleeve}` : colour}, ${cableLabel}`, farText],
      })),
    ),
  )
}

/** What a cable goes to at one end: devices, wiring centres and connectors by name. */
function ownersOf(installation: Installation, { cores }: Cable, end: 0 | 1): string {
  const { devices, wiringCentres, connectors } = installation
  const ownerOf = (at: End) =>
    'terminal' in at ? at.terminal.slice(0, at.terminal.indexOf('.')) : at.at === 'connector' ? at.connector : undefined
  const owners = new Set(cores.map(({ ends }) => ownerOf(ends[end])))
  return [...devices, ...wiringCentres, ...connectors]
    .filter(({ id }) => owners.has(id))
    .map(({ name }) => name)
    .join(' and ')
}
