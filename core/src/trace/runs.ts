import { edgesAt, feedsOf, type Circuit } from '../circuit'
import type { Demand } from '../installation'
import { callLoad, coilsOf, loadEnds, ownCoils, ownContacts } from './demands'
import { gatesOf, type Way } from './paths'
import { through, waysFrom } from './ways'

/** Every signal from the spur to one load, laid out as a line of stations. Layout only: holds no state. */
export interface Run {
  /** `device.part` of the load. */
  id: string
  load: number
  /** The atom at which the signal reaches it. */
  fed: number
  /** Devices whose contacts stand in it, in order. */
  devices: string[]
  /** Empty where nothing leads to the load. */
  way: Way
}

/** Is there a conductor on a load's own terminals? */
const isWired = (circuit: Circuit, load: number): boolean =>
  edgesAt(circuit, circuit.loads[load].a).some((e) => ['core', 'link'].includes(circuit.edges[e].kind))

/** The runs of an installation: relay coils, valve motors in the order of the demands, boiler calls, what the boiler drives. */
export function runsOf(circuit: Circuit): Run[] {
  const { demands } = circuit.installation.intent
  const wantedCalls = new Set(demands.map((d) => callLoad(circuit, d.call)))
  const inputs = circuit.devices.flatMap(({ type, loadIndex }) => type.inputs.map((i) => loadIndex.get(i.load)!))
  const motors = circuit.actuators.map((a) => a.drivenBy)
  const works = circuit.loads.flatMap((load, i) => (load.part.work ? [i] : []))
  const lines = feedsOf(circuit).map((f) => f.line)
  const isUsed = (load: number) => waysFrom(circuit, lines, loadEnds(circuit, load).fed).length > 0
  const coils = coilsOf(circuit).filter((load) => isUsed(load) || isWired(circuit, load))
  // An input that nobody means to use and that nothing leads to is left out.
  const reachable = (load: number) => circuit.atoms[loadEnds(circuit, load).fed].kind !== 'internal' && isUsed(load)
  const calls = inputs.filter((load) => wantedCalls.has(load) || reachable(load))
  return [...new Set([...coils, ...motors, ...calls, ...works])].map((load) => {
    const { device, part } = circuit.loads[load]
    const { fed } = loadEnds(circuit, load)
    const [way = []] = waysFrom(circuit, lines, fed)
    const devices = gatesOf(way).flatMap((edge) => {
      const e = circuit.edges[edge]
      return e.kind === 'contact' ? [circuit.devices[circuit.contacts[e.contact].device].device.id] : []
    })
    return { id: `${circuit.devices[device].device.id}.${part.id}`, load, fed, devices: [...new Set(devices)], way }
  })
}

/**
 * The runs of one demand: what drives its valves, its call, and what comes of it; of ways that part, its own branches
 * only. For a screen that follows one demand among many.
 */
export function runsOfDemand(circuit: Circuit, demand: Demand): Run[] {
  const valves = demand.circuit.valves.map(({ device }) => circuit.deviceIndex.get(device)!)
  const driven = circuit.actuators.filter((a) => valves.includes(a.device)).map((a) => a.drivenBy)
  const call = callLoad(circuit, demand.call)
  const own = ownContacts(circuit, demand)
  const concerned = new Set([...ownCoils(circuit, demand), ...driven, call])
  return runsOf(circuit)
    .filter(({ load }) => concerned.has(load) || circuit.loads[load].part.work !== undefined)
    .map((run) => ({ ...run, way: through(circuit, run.way, own) }))
}
