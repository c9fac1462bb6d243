import { type AtomId, conductingPath, EARTH, edgesAt, FED, LINE, NEUTRAL, shortCircuit } from '../../circuit'
import type { CheckFinding } from '../finding'
import { bringFeed, bringPole, exchangeAt, spares } from './remedies'
import type { Survey } from './survey'

/**
 * Has a contact fed at this terminal a conductor on any of its other terminals, or does the terminal feed no contact but the
 * device?
 */
function feedsAnything(survey: Survey, atom: AtomId): boolean {
  const { circuit } = survey
  const ends = contactEnds(survey, atom)
  return (
    ends.length === 0 ||
    ends.some((end) => edgesAt(circuit, end).some((e) => ['core', 'link'].includes(circuit.edges[e].kind)))
  )
}

/** The other ends of the contacts at a terminal. */
const contactEnds = ({ circuit }: Survey, atom: AtomId): AtomId[] =>
  circuit.contacts
    .map(({ edge }) => circuit.edges[edge])
    .flatMap(({ a, b }) => (a === atom ? [b] : b === atom ? [a] : []))

/** Does wiring lead from here to another device? */
const leadsOn = ({ circuit, wired }: Survey, atom: AtomId): boolean =>
  circuit.atoms.some(
    (other, i) =>
      wired.netOf[i] === wired.netOf[atom] && other.kind === 'device' && other.owner !== circuit.atoms[atom].owner,
  )

/**
 * Neutral and earth joined behind the origin: the conductors and links on the way from the one to the other without which they
 * would be apart.
 */
function neutralToEarth(survey: Survey): CheckFinding | undefined {
  const { circuit, wired } = survey
  const source = circuit.sources.find((s) => {
    const poles = survey.poles(wired, s.neutral)
    return poles & EARTH && !(poles & LINE)
  })
  if (!source) return undefined
  const path = conductingPath(circuit, survey.wiredState, source.neutral, (atom) => atom === source.earth) ?? []
  const cores = []
  const links = []
  for (const index of path) {
    const apart = survey.wiredWithout(index)
    if (apart.netOf[source.neutral] === apart.netOf[source.earth]) continue
    const edge = circuit.edges[index]
    if (edge.kind === 'core') cores.push({ cable: edge.cable.id, core: edge.core.id })
    if (edge.kind === 'link') links.push(edge.link.id)
  }
  const onPath = path.flatMap((index) => [circuit.edges[index].a, circuit.edges[index].b])
  const terminals = [...new Set(onPath)].flatMap((atom) =>
    circuit.atoms[atom].kind === 'centre' ? [circuit.atoms[atom].ref] : [],
  )
  return { rule: 'neutral-earth-joined', severity: 'danger', terminals, devices: [], cores, links }
}

/** What must reach a terminal over wiring alone, what could reach it through any contact, and poles that are joined. */
export function reachFindings(survey: Survey): CheckFinding[] {
  const { circuit, wired } = survey
  const findings: CheckFinding[] = []
  const missing = (finding: CheckFinding, terminal: string, pole: number) => {
    const proposal =
      finding.rule === 'contact-without-feed' ? bringFeed(survey, terminal) : bringPole(survey, terminal, pole)
    findings.push(proposal ? { ...finding, proposal } : finding)
    const [owner] = terminal.split('.')
    const landed = survey.at.get(terminal) ?? []
    const cables = circuit.installation.cables.filter((c) =>
      c.cores.some((k) => k.ends.some((e) => 'terminal' in e && e.terminal.startsWith(`${owner}.`))),
    )
    // Nothing on the terminal, and every conductor that goes there is taken.
    if (!proposal && landed.length === 0 && cables.length > 0 && spares(survey, owner).length === 0)
      findings.push({ rule: 'fewer-cores-than-needed', severity: 'advice', terminals: [terminal], devices: [owner] })
  }
  if (shortCircuit(circuit, wired)) {
    const { line } = circuit.sources.find((s) => survey.poles(wired, s.line) & (NEUTRAL | EARTH))!
    const joined = circuit.atoms.flatMap((atom, i) =>
      wired.netOf[i] === wired.netOf[line] && atom.kind === 'centre' ? [atom.ref] : [],
    )
    findings.push({ rule: 'line-neutral-joined', severity: 'danger', terminals: joined, devices: [] })
  }
  const joined = neutralToEarth(survey)
  if (joined) findings.push(joined)
  const swapped = swappedDevices(survey)
  for (const device of swapped) {
    const { id } = circuit.devices[device].device
    findings.push({ rule: 'line-neutral-swapped', severity: 'danger', terminals: [], devices: [id] })
  }
  circuit.atoms.forEach((atom, index) => {
    const i = index as AtomId
    const at = { terminals: [atom.ref], devices: [atom.owner] }
    const owner = circuit.deviceIndex.get(atom.owner)
    if (owner !== undefined && swapped.includes(owner) && atom.role !== 'earth') return
    switch (atom.role) {
      case 'neutral':
        if (survey.poles(wired, i) & NEUTRAL) break
        // It may run so, with its current in the earth conductor.
        if (survey.poles(wired, i) & EARTH) findings.push({ rule: 'earth-as-neutral', severity: 'danger', ...at })
        else missing({ rule: 'no-neutral', severity: 'will-not-work', ...at }, atom.ref, NEUTRAL)
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
        const fed = (atom: AtomId) => (survey.poles(others, atom) & (LINE | FED)) !== 0
        if (fed(i)) break
        const [backwards] = leadsOn(survey, i) ? contactEnds(survey, i).filter(fed) : []
        // A contact carries either way round: whether that serves, the states say.
        if (backwards !== undefined) {
          const proposal = exchangeAt(survey, atom.ref, circuit.atoms[backwards].ref)
          findings.push({
            rule: 'contact-fed-backwards',
            severity: 'advice',
            terminals: [atom.ref, circuit.atoms[backwards].ref],
            devices: [atom.owner],
            ...(proposal && { proposal }),
          })
        } else missing({ rule: 'contact-without-feed', severity: 'will-not-work', ...at }, atom.ref, LINE)
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
