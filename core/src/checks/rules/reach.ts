import { EARTH, FED, LINE, NEUTRAL, shortCircuit } from '../../circuit'
import type { Finding } from '../finding'
import { bringPole, spares } from './remedies'
import type { Survey } from './survey'

/**
 * Has a contact fed at this terminal a conductor on any of its other terminals, or does the terminal feed no contact but the
 * device?
 */
function feedsAnything({ circuit }: Survey, atom: number): boolean {
  const ends = circuit.contacts
    .map(({ edge }) => circuit.edges[edge])
    .flatMap(({ a, b }) => (a === atom ? [b] : b === atom ? [a] : []))
  return (
    ends.length === 0 ||
    ends.some((end) => circuit.edgesAt[end].some((e) => ['core', 'link'].includes(circuit.edges[e].kind)))
  )
}

/** What must reach a terminal over wiring alone, what could reach it through any contact, and poles that are joined. */
export function reachFindings(survey: Survey): Finding[] {
  const { circuit, wired } = survey
  const findings: Finding[] = []
  const missing = (finding: Finding, terminal: string, pole: number) => {
    const remedy = bringPole(survey, terminal, pole)
    findings.push(remedy ? { ...finding, remedy } : finding)
    const [owner] = terminal.split('.')
    const landed = survey.at.get(terminal) ?? []
    const cables = circuit.installation.cables.filter((c) =>
      c.cores.some((k) => k.ends.some((e) => 'terminal' in e && e.terminal.startsWith(`${owner}.`))),
    )
    // Nothing on the terminal, and every conductor that goes there is taken.
    if (!remedy && landed.length === 0 && cables.length > 0 && spares(survey, owner).length === 0)
      findings.push({ rule: 'fewer-cores-than-needed', severity: 'advice', terminals: [terminal], devices: [owner] })
  }
  if (shortCircuit(circuit, wired)) {
    const { line } = circuit.sources.find((s) => survey.poles(wired, s.line) & (NEUTRAL | EARTH))!
    const joined = circuit.atoms.flatMap((atom, i) =>
      wired.netOf[i] === wired.netOf[line] && atom.kind === 'centre' ? [atom.ref] : [],
    )
    findings.push({ rule: 'line-neutral-joined', severity: 'danger', terminals: joined, devices: [] })
  }
  const swapped = swappedDevices(survey)
  for (const device of swapped) {
    const { id } = circuit.devices[device].device
    findings.push({ rule: 'line-neutral-swapped', severity: 'danger', terminals: [], devices: [id] })
  }
  circuit.atoms.forEach((atom, i) => {
    const at = { terminals: [atom.ref], devices: [atom.owner] }
    const owner = circuit.deviceIndex.get(atom.owner)
    if (owner !== undefined && swapped.includes(owner) && atom.role !== 'earth') return
    switch (atom.role) {
      case 'neutral':
        if (!(survey.poles(wired, i) & NEUTRAL))
          missing({ rule: 'no-neutral', severity: 'will-not-work', ...at }, atom.ref, NEUTRAL)
        break
      case 'permanent-live':
        if (!(survey.poles(wired, i) & LINE))
          missing({ rule: 'no-permanent-live', severity: 'will-not-work', ...at }, atom.ref, LINE)
        break
      case 'earth':
        if (!(survey.poles(wired, i) & EARTH)) missing({ rule: 'no-earth', severity: 'danger', ...at }, atom.ref, EARTH)
        break
      case 'contact-feed': {
        if (!feedsAnything(survey, i)) break
        // A contact cannot feed itself from what it feeds: only other devices' contacts count.
        const others = survey.netsWith((device) => device !== owner)
        if (!(survey.poles(others, i) & (LINE | FED)))
          missing({ rule: 'contact-without-feed', severity: 'will-not-work', ...at }, atom.ref, LINE)
        break
      }
    }
  })
  return findings
}

/** Devices with neutral where their line should be and line where their neutral should be. */
function swappedDevices(survey: Survey): number[] {
  const { circuit, wired } = survey
  return circuit.devices.flatMap(({ device, type }, index) => {
    const poleAt = (role: string) =>
      type.terminals
        .filter((t) => t.role === role && !t.internal)
        .map((t) => survey.poles(wired, survey.atom(`${device.id}.${t.id}`)))
    const [lines, neutrals] = [poleAt('permanent-live'), poleAt('neutral')]
    const turned =
      lines.length > 0 &&
      neutrals.length > 0 &&
      lines.every((p) => p & NEUTRAL && !(p & LINE)) &&
      neutrals.every((p) => p & LINE && !(p & NEUTRAL))
    return turned ? [index] : []
  })
}
