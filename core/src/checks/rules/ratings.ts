import type { Family } from '../../catalogue'
import { type EdgeId, EARTH, LINE, NEUTRAL, type Nets } from '../../circuit'
import type { CheckFinding } from '../finding'
import type { Survey } from './survey'

/**
 * Amperes that the largest fuse before a flexible conductor may have, by its cross-section in mm²: current ratings of
 * flexible cords in common use (0.75 mm² 6 A, 1 mm² 10 A).
 */
const ampsOf: readonly [mm2: number, amps: number][] = [
  [0.5, 3],
  [0.75, 6],
  [1, 10],
  [1.25, 13],
  [1.5, 16],
  [2.5, 25],
  [4, 32],
]
const carries = (mm2: number): number => ampsOf.findLast(([area]) => mm2 >= area)?.[1] ?? 2

/** Amperes that the contact of a thermostat, programmer or end switch carries: the least that is usual. */
const contactAmps = 3
const controls: ReadonlySet<Family> = new Set(['timing', 'thermostats', 'valves'])

/** Loads, fuses, conductors and transformers against what they may carry, with every contact shut. */
export function ratingFindings(survey: Survey): CheckFinding[] {
  const { circuit } = survey
  if (survey.allShort) return []
  const findings: CheckFinding[] = []
  circuit.fuses.forEach(({ device, edge, amps }) => {
    const behind = without(survey, edge)
    const is = ampsLost(survey, behind)
    const { id } = circuit.devices[device].device
    if (is > amps)
      findings.push({
        rule: 'load-over-fuse',
        severity: 'will-not-work',
        terminals: [],
        devices: [id],
        figures: { is, may: amps, unit: 'A' },
      })
  })
  circuit.contacts.forEach(({ device, edge }) => {
    // Spurs, contactors and what heats by itself are made for what they carry.
    if (!controls.has(circuit.devices[device].type.family)) return
    const is = ampsLost(survey, without(survey, edge))
    if (is <= contactAmps) return
    const { a, b } = circuit.edges[edge]
    findings.push({
      rule: 'contact-over-rating',
      severity: 'poor-practice',
      terminals: [circuit.atoms[a].ref, circuit.atoms[b].ref],
      devices: [circuit.devices[device].device.id],
      figures: { is, may: contactAmps, unit: 'A' },
    })
  })
  circuit.transformers.forEach(({ device, part, fed, common, nominal }) => {
    const va = circuit.devices[device].amount(part.va)
    const drawn = circuit.loads.reduce((sum, load) => {
      const ends = [load.a, load.b].map((atom) => survey.all.netOf[atom])
      const across = ends.includes(survey.all.netOf[fed]) && ends.includes(survey.all.netOf[common])
      return across && ends[0] !== ends[1] ? sum + voltAmps(survey, load, nominal) : sum
    }, 0)
    if (drawn > va)
      findings.push({
        rule: 'transformer-overloaded',
        severity: 'will-not-work',
        terminals: [],
        devices: [circuit.devices[device].device.id],
        figures: { is: drawn, may: va, unit: 'VA' },
      })
  })
  findings.push(...conductorFindings(survey))
  return findings
}

/** Every conductor against the fuse that protects it. */
function conductorFindings(survey: Survey): CheckFinding[] {
  const { circuit } = survey
  const feeds = circuit.fuses.map(({ edge, amps }) => ({ amps, nets: without(survey, edge) }))
  return circuit.edges.flatMap((edge): CheckFinding[] => {
    if (edge.kind !== 'core' || !(survey.poles(survey.all, edge.a) & LINE)) return []
    const before = feeds.filter(({ nets }) => !(nets.poles[nets.netOf[edge.a]] & LINE))
    if (before.length === 0) return []
    const is = Math.min(...before.map(({ amps }) => amps))
    const may = carries(edge.core.areaMm2)
    if (is <= may) return []
    const cores = [{ cable: edge.cable.id, core: edge.core.id }]
    return [
      {
        rule: 'fuse-over-cable',
        severity: 'danger',
        terminals: [],
        devices: [],
        cores,
        figures: { is, may, unit: 'A' },
      },
    ]
  })
}

/** Nets with every contact shut and one edge taken out. */
const cache = new WeakMap<Survey, Map<number, Nets>>()
function without(survey: Survey, edge: EdgeId): Nets {
  let known = cache.get(survey)
  if (!known) cache.set(survey, (known = new Map<number, Nets>()))
  let nets = known.get(edge)
  if (!nets) known.set(edge, (nets = survey.netsWithout(edge)))
  return nets
}

/** Amperes of the loads that stand under mains with every contact shut, and no longer do so on these nets. */
function ampsLost(survey: Survey, nets: Nets): number {
  const { circuit, all } = survey
  const fed = (n: Nets, load: { a: number; b: number }) => {
    const poles = [n.poles[n.netOf[load.a]], n.poles[n.netOf[load.b]]]
    const line = poles.findIndex((p) => p & LINE)
    return line >= 0 && (poles[1 - line] & (NEUTRAL | EARTH)) !== 0
  }
  return circuit.loads.reduce(
    (sum, load) =>
      fed(all, load) && !fed(nets, load) ? sum + voltAmps(survey, load, load.nominal) / load.nominal : sum,
    0,
  )
}

function voltAmps({ circuit }: Survey, load: Survey['circuit']['loads'][number], volts: number): number {
  const branch = circuit.branches.find((b) => b.of.kind === 'load' && circuit.loads[b.of.load] === load)!
  return volts * volts * Math.hypot(branch.y.re, branch.y.im)
}
