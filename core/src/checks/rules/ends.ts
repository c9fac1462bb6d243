import { type AtomId, edgesAt } from '../../circuit'
import type { CheckFinding } from '../finding'
import { moveToOwnTerminal } from './remedies'
import { inUse, linksBetweenPlaces, type Survey } from './survey'

/** Is nothing on this terminal of a wiring centre, or in this connector, but one conductor? */
const alone = ({ circuit }: Survey, atom: AtomId): boolean =>
  ['centre', 'connector'].includes(circuit.atoms[atom].kind) && edgesAt(circuit, atom).length === 1

/** Conductors that lead nowhere, ends that are not made safe, contacts that something bridges. */
export function endFindings(survey: Survey): CheckFinding[] {
  const { circuit, wired } = survey
  const { cables, links } = circuit.installation
  const findings: CheckFinding[] = []
  for (const cable of cables)
    for (const core of cable.cores)
      for (const end of [0, 1] as const) {
        const here = core.ends[end]
        const there = core.ends[1 - end]
        const ref = { cable: cable.id, core: core.id, end }
        const at = { terminals: [], devices: [], cores: [ref] }
        if (here.at === 'unknown') findings.push({ rule: 'end-not-found', severity: 'advice', ...at })
        if (here.at === 'loose') {
          const live = inUse(there) && survey.canBeLive(survey.atomOf(cable, core, (1 - end) as 0 | 1))
          findings.push({
            rule: live ? 'live-end-loose' : 'unused-not-made-off',
            severity: live ? 'danger' : 'poor-practice',
            ...at,
            // An earth that hangs loose is wanted somewhere.
            ...(!live &&
              core.colour !== 'green-yellow' &&
              core.colour !== 'bare' && {
                proposal: {
                  deed: { do: 'cut-back', core: { cable: cable.id, core: core.id } },
                  changes: [{ do: 'end', cable: cable.id, core: core.id, end, to: { at: 'cut-back' } }],
                },
              }),
          })
        }
        if (here.at === 'cut-back' && inUse(there) && survey.canBeLive(survey.atomOf(cable, core, (1 - end) as 0 | 1)))
          findings.push({ rule: 'live-end-cut-back', severity: 'advice', ...at })
        if (here.at === 'parked' && (survey.at.get(here.terminal)?.length ?? 0) > 1)
          findings.push({ rule: 'unused-not-made-off', severity: 'poor-practice', ...at, terminals: [here.terminal] })
        if (inUse(here) && alone(survey, survey.atomOf(cable, core, end))) {
          const on = here.at === 'terminal' ? here.terminal : here.at === 'connector' ? here.connector : ''
          findings.push({ rule: 'leads-nowhere', severity: 'poor-practice', ...at, terminals: [on] })
        }
      }
  const isolators = new Set(circuit.sources.map((s) => s.device))
  circuit.contacts.forEach(({ edge, device }) => {
    const { a, b } = circuit.edges[edge]
    // Isolators count as shut here.
    if (isolators.has(device) || wired.netOf[a] !== wired.netOf[b]) return
    const { id } = circuit.devices[device].device
    const bridging = links.filter(
      (l) => l.kind !== 'cut' && l.between.every((t) => wired.netOf[survey.atom(t)] === wired.netOf[a]),
    )
    const factory = bridging.find((l) => l.kind === 'factory')
    findings.push({
      rule: 'contact-bridged',
      severity: 'will-not-work',
      terminals: [circuit.atoms[a].ref, circuit.atoms[b].ref],
      devices: [id],
      links: factory ? [factory.id] : [],
      ...(factory && {
        proposal: {
          deed: { do: 'cut-factory-link' },
          changes: [{ do: 'put', in: 'links', value: { ...factory, kind: 'cut' } }],
        },
      }),
    })
  })
  circuit.contacts.forEach(({ edge, device, part }) => {
    const { a, b } = circuit.edges[edge]
    if (part.kind !== 'contact' || [a, b].some((atom) => circuit.atoms[atom].kind !== 'device')) return
    const wiring = (atom: AtomId) =>
      edgesAt(circuit, atom).some((e) => ['core', 'link'].includes(circuit.edges[e].kind))
    if (wiring(a) === wiring(b) || isolators.has(device)) return
    const [landed, bare] = wiring(a) ? [a, b] : [b, a]
    // A rail with outputs beside each other may have some to spare.
    if (circuit.contacts.filter((c) => [circuit.edges[c.edge].a, circuit.edges[c.edge].b].includes(landed)).length > 1)
      return
    // What leads on inside its device has its use there.
    if (edgesAt(circuit, bare).length > 1 || circuit.loads.some((l) => l.a === bare || l.b === bare)) return
    findings.push({
      rule: 'contact-unused',
      severity: 'poor-practice',
      terminals: [circuit.atoms[bare].ref],
      devices: [circuit.devices[device].device.id],
    })
  })
  for (const [ref, landed] of survey.at) {
    const ways = survey.waysOf(ref)
    if (landed.length <= ways) continue
    const proposal = moveToOwnTerminal(survey, landed[landed.length - 1])
    findings.push({
      rule: 'more-than-ways',
      severity: 'poor-practice',
      terminals: [ref],
      devices: [],
      figures: { is: landed.length, may: ways, unit: 'conductors' },
      ...(proposal && { proposal }),
    })
  }
  for (const { id, between } of linksBetweenPlaces(circuit.installation))
    findings.push({
      rule: 'link-between-places',
      severity: 'poor-practice',
      terminals: between,
      devices: [],
      links: [id],
    })
  return findings
}
