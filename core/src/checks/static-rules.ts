import { EARTH, emptyNets, FED, LINE, mergeNets, NEUTRAL, shortCircuit, type Circuit, type Nets } from '../circuit'
import type { Finding } from './finding'

/** Nets with fuses whole, the isolator shut, and every other contact as `closes` says of its device. */
function netsWith(circuit: Circuit, closes: (device: number) => boolean): Nets {
  const isolators = new Set(circuit.sources.map((s) => s.device))
  const closed = Uint8Array.from(circuit.contacts, (c) => (isolators.has(c.device) || closes(c.device) ? 1 : 0))
  return mergeNets(
    circuit,
    { closed, blown: new Uint8Array(circuit.fuses.length), broken: new Uint8Array(circuit.edges.length) },
    emptyNets(circuit),
  )
}

/** Has a contact fed at this terminal a conductor on any of its other terminals, or does the terminal feed no contact but the device? */
function feedsAnything(circuit: Circuit, atom: number): boolean {
  const ends = circuit.contacts
    .map(({ edge }) => circuit.edges[edge])
    .flatMap(({ a, b }) => (a === atom ? [b] : b === atom ? [a] : []))
  return (
    ends.length === 0 ||
    ends.some((end) => circuit.edgesAt[end].some((e) => ['core', 'link'].includes(circuit.edges[e].kind)))
  )
}

/**
 * Rules that need no state: what must reach a terminal over wiring alone, what could reach it through any contact, and
 * poles that are joined with every control at rest.
 */
export function staticFindings(circuit: Circuit): Finding[] {
  const wired = netsWith(circuit, () => false)
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
      case 'contact-feed': {
        if (!feedsAnything(circuit, i)) break
        // A contact cannot feed itself from what it feeds: only other devices' contacts count.
        const own = circuit.deviceIndex.get(atom.owner)
        const others = netsWith(circuit, (device) => device !== own)
        if (!(polesAt(others, i) & (LINE | FED)))
          findings.push({ rule: 'contact-without-feed', severity: 'will-not-work', ...at })
        break
      }
    }
  })
  return findings
}
