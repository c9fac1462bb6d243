import { type AtomId, EARTH, LINE, NEUTRAL } from '../../circuit'
import type { Demand } from '../../installation'
import { leavesOf } from '../../catalogue'
import { feltFlow, OPEN, SHUT, solveFlows } from '../../water'
import type { CheckFinding } from '../finding'
import type { Survey } from './survey'

/** What is wrong with the installation as a whole: supplies, pump, limit, thermostat, bypass. */
export function schemeFindings(survey: Survey): CheckFinding[] {
  return [
    ...secondSupply(survey),
    ...borrowedNeutral(survey),
    ...pumpBesideItsOutput(survey),
    ...limitNotInSeries(survey),
    ...noCylinderThermostat(survey),
    ...noBypass(survey),
  ]
}

const idOf = ({ circuit }: Survey, device: number) => circuit.devices[device].device.id

/** More than one point of isolation: to be known before a cover comes off. */
function secondSupply(survey: Survey): CheckFinding[] {
  const { sources } = survey.circuit
  if (sources.length < 2) return []
  const devices = sources.map((s) => idOf(survey, s.device))
  return [{ rule: 'second-supply', severity: 'advice', terminals: [], devices }]
}

/** Devices that have line from one supply and neutral from another alone. */
function borrowedNeutral(survey: Survey): CheckFinding[] {
  const { circuit, all } = survey
  if (circuit.sources.length < 2) return []
  const at = (atom: AtomId, pole: 'line' | 'neutral') =>
    circuit.sources.flatMap((s, i) => (all.netOf[s[pole]] === all.netOf[atom] ? [i] : []))
  const devices = circuit.loads.flatMap(({ a, b, device }) => {
    const pairs = [
      { lines: at(a, 'line'), neutrals: at(b, 'neutral') },
      { lines: at(b, 'line'), neutrals: at(a, 'neutral') },
    ]
    const borrowed = pairs.some(
      ({ lines, neutrals }) => lines.length > 0 && neutrals.length > 0 && !lines.some((s) => neutrals.includes(s)),
    )
    return borrowed ? [idOf(survey, device)] : []
  })
  return [...new Set(devices)].map((device) => ({
    rule: 'borrowed-neutral',
    severity: 'danger',
    terminals: [],
    devices: [device],
  }))
}

/** Boilers that run a pump on after a call, and a pump that does not hang on that output. */
function pumpBesideItsOutput(survey: Survey): CheckFinding[] {
  const { circuit, wired } = survey
  const own = new Set(circuit.installation.intent.demands.flatMap((d) => d.circuit.runs ?? []))
  const boilers = new Set(circuit.installation.intent.demands.map((d) => d.call.boiler))
  const outputs = circuit.contacts.filter(
    ({ device, closedWhen }) =>
      boilers.has(idOf(survey, device)) &&
      leavesOf(closedWhen).some((leaf) => 'behaviour' in leaf && leaf.in.includes('overrun')),
  )
  if (outputs.length === 0) return []
  const fed = new Set(
    outputs.flatMap(({ edge }) => [circuit.edges[edge].a, circuit.edges[edge].b].map((a) => wired.netOf[a])),
  )
  const lines = new Set(wired.netOf.filter((net) => wired.poles[net] & (LINE | NEUTRAL | EARTH)))
  return circuit.water.ways.flatMap(({ device, pump }): CheckFinding[] => {
    const id = idOf(survey, device)
    if (!pump || own.has(id) || boilers.has(id)) return []
    const { a, b } = circuit.loads[pump.load]
    const onOutput = [a, b].some((atom) => fed.has(wired.netOf[atom]) && !lines.has(wired.netOf[atom]))
    return onOutput ? [] : [{ rule: 'pump-beside-its-output', severity: 'poor-practice', terminals: [], devices: [id] }]
  })
}

/** A high limit that can trip without shutting a normally closed valve of the cylinder. */
function limitNotInSeries(survey: Survey): CheckFinding[] {
  const { circuit } = survey
  const water = circuit.installation.intent.demands.filter((d) => d.kind === 'hot-water')
  return circuit.sensors.flatMap(({ device, throws }): CheckFinding[] => {
    if (!throws || water.length === 0) return []
    // A limit within what it guards has no terminals of its own to be wired wrongly.
    const contacts = circuit.contacts.flatMap((c, i) =>
      c.device === device &&
      [circuit.edges[c.edge].a, circuit.edges[c.edge].b].every((a) => circuit.atoms[a].kind === 'device')
        ? [i]
        : [],
    )
    if (contacts.length === 0 || heats(survey, device)) return []
    const tripped = survey.netsWith((_, contact) => !contacts.includes(contact))
    const shuts = water.some((d) =>
      normallyClosed(survey, d).some((motor) => fedBy(survey, survey.all, motor) && !fedBy(survey, tripped, motor)),
    )
    if (shuts) return []
    return [{ rule: 'limit-not-in-series', severity: 'danger', terminals: [], devices: [idOf(survey, device)] }]
  })
}

const heats = ({ circuit }: Survey, device: number): boolean =>
  circuit.loads.some((l) => l.device === device && l.part.work === 'heats')

/** Motors of the valves of a demand that shut all ways when they lose their supply. */
function normallyClosed({ circuit }: Survey, demand: Demand): number[] {
  return demand.circuit.valves.flatMap(({ device }) => {
    const at = circuit.deviceIndex.get(device)!
    const ports = circuit.ports.filter((p) => p.device === at)
    if (ports.length === 0 || ports.some((p) => p.part.openFrom === 0)) return []
    return [...new Set(ports.map((p) => circuit.actuators[p.actuator].drivenBy))]
  })
}

function fedBy({ circuit }: Survey, nets: Survey['all'], load: number): boolean {
  const { a, b } = circuit.loads[load]
  const [p, q] = [nets.poles[nets.netOf[a]], nets.poles[nets.netOf[b]]]
  return (p & LINE && q & NEUTRAL) !== 0 || (q & LINE && p & NEUTRAL) !== 0
}

function noCylinderThermostat({ circuit }: Survey): CheckFinding[] {
  return circuit.installation.intent.demands
    .filter((d) => d.kind === 'hot-water' && d.thermostat === null)
    .map((d) => ({
      rule: 'no-cylinder-thermostat',
      severity: 'poor-practice',
      terminals: [],
      devices: [d.call.boiler],
      demands: [d.id],
    }))
}

/** Every circuit can shut, and then the pump has no way. */
function noBypass(survey: Survey): CheckFinding[] {
  const { water, ports } = survey.circuit
  const gates = Uint8Array.from(water.ways, ({ port }) =>
    port === undefined || ports[port].part.openFrom === 0 ? OPEN : SHUT,
  )
  const pumps = Uint8Array.from(water.ways, ({ pump }) => (pump ? 1 : 0))
  const flows = solveFlows(water, { gates, pumps, rising: new Uint8Array(water.emitters.length) })
  const stuck = water.ways.findIndex(({ pump }, i) => pump && Math.abs(flows[i]) < feltFlow)
  if (stuck < 0) return []
  return [
    { rule: 'no-bypass', severity: 'poor-practice', terminals: [], devices: [idOf(survey, water.ways[stuck].device)] },
  ]
}
