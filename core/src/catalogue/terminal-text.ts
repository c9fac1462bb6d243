import type { Cable, Colour, Core, Device, End, Installation } from '../installation'
import { typeIn } from './shipped'

/** The colour of a device's own lead at a terminal: as the document has it, else as the type comes. */
function leadColour(installation: Installation, device: Device, terminal: string): Colour | undefined {
  const type = typeIn(installation, device.type).terminals.find((t) => t.id === terminal)
  if (!type?.lead) return undefined
  const ref = `${device.id}.${terminal}`
  const cores = installation.cables.flatMap((cable) => (cable.leadOf === device.id ? cable.cores : []))
  const core = cores.find((k) => k.ends.some((end) => end.at === 'terminal' && end.terminal === ref))
  return core?.colour ?? type.lead
}

/** A terminal's name, by what is printed there: "Programmer HTG-ON", "Wiring centre 7"; a lead's by its colour. */
export function terminalText(installation: Installation, ref: string): string {
  const [owner, terminal] = ref.split('.')
  const device = installation.devices.find((d) => d.id === owner)
  if (device) {
    const mark = device.legends?.[terminal] ?? leadColour(installation, device, terminal) ?? terminal
    return `${device.name} ${mark}`
  }
  const centre = installation.wiringCentres.find((w) => w.id === owner)
  return centre ? `${centre.name} ${terminal}` : ref
}

/** "black of Boiler cable"; where a cable has two of a colour, with where its first end is: "yellow (M1) of Loft valve lead". */
export function coreName(cable: Cable, core: Core): string {
  const twins = cable.cores.filter((k) => k.colour === core.colour && k.sleeve === core.sleeve)
  const end = core.ends.find((e) => e.at === 'terminal' || e.at === 'parked')
  const which = twins.length > 1 ? ` (${end && 'terminal' in end ? end.terminal.split('.')[1] : core.id})` : ''
  return `${core.colour}${core.sleeve ? ` (sleeved ${core.sleeve})` : ''}${which} of ${cable.label}`
}

/** Where an end is, in words an engineer reads: owner and terminal, or what became of the end. */
export function endText(installation: Installation, end: End): string {
  switch (end.at) {
    case 'terminal':
      return terminalText(installation, end.terminal)
    case 'parked':
      return `parked in ${terminalText(installation, end.terminal)}`
    case 'connector':
      return installation.connectors.find((c) => c.id === end.connector)?.name ?? end.connector
    case 'cut-back':
      return 'cut back and sleeved'
    case 'loose':
      return 'loose'
    case 'unknown':
      return 'not found yet'
  }
}
