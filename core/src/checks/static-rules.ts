import { emptyNets, LINE, mergeNets, NEUTRAL, EARTH, shortCircuit, type Circuit, type Nets } from '../circuit'
import type { Finding } from './finding'

/** Nets with the isolating contacts shut and every other contact as `others` says, fuses whole. */
function netsWith(circuit: Circuit, others: 0 | 1): Nets {
  const sourceDevices = new Set(circuit.sources.map((s) => s.device))
  const closed = Uint8Array.from(circuit.contacts, (c) => (sourceDevices.has(c.device) ? 1 : others))
  return mergeNets(
    circuit,
    { closed, blown: new Uint8Array(circuit.fuses.length), broken: new Uint8Array(circuit.edges.length) },
    emptyNets(circuit),
  )
}

/**
 * Rules that need no state: what must reach a terminal over wiring alone, what could reach it through any contact, and
 * poles that are joined with every control at rest.
 */
export function staticFindings(circuit: Circuit): Finding[] {
  const wired = netsWith(circuit, 0)
  const anyContact = netsWith(circuit, 1)
  const findings: Finding[] = []
  const polesAt = (nets: Nets, atom: number) => nets.poles[nets.netOf[atom]]
  if (shortCircuit(circuit, wired)) {
    const { line } = circuit.sources.find((s) => polesAt(wired, s.line) & (NEUTRAL | EARTH))!
    const joined = circuit.atoms.flatMap((atom, i) =>
      wired.netOf[i] === wired.netOf[line] && atom.kind === 'centre' ? [atom.ref] : [],
    )
    findings.push({ rule: 'line-neutral-joined', severity: 'danger', terminals: joined, devices: [] })
  }
  circuit.atoms.forEach((atom, i) => {
    const at = { terminals: [atom.ref], devices: [atom.owner] }
    switch (atom.role) {
      case 'neutral':
        if (!(polesAt(wired, i) & NEUTRAL)) findings.push({ rule: 'no-neutral', severity: 'will-not-work', ...at })
        break
      case 'permanent-live':
        if (!(polesAt(wired, i) & LINE)) findings.push({ rule: 'no-permanent-live', severity: 'will-not-work', ...at })
        break
      case 'earth':
        if (!(polesAt(wired, i) & EARTH)) findings.push({ rule: 'no-earth', severity: 'danger', ...at })
        break
      case 'contact-feed':
        if (!(polesAt(anyContact, i) & LINE))
          findings.push({ rule: 'contact-without-feed', severity: 'will-not-work', ...at })
        break
    }
  })
  return findings
}
