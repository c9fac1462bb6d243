import { feltFlow } from '../water'
import type { Asker } from './asker'
import type { Cause } from './claims'
import { wanted } from './demands'

/** Why no water moves, or where: pumps that do not run; with one that runs, the valves that stand shut. */
export function standstillCauses(asker: Asker): Cause[] {
  const { sim } = asker
  const { water, installation } = sim.circuit
  const pumps = water.ways.flatMap(({ pump }) => (pump ? [pump.load] : []))
  const still = pumps.filter((load) => !sim.loadWorking(load))
  if (still.length === pumps.length && pumps.length > 0) return still.map((load) => asker.load(load))
  const served = installation.intent.demands.filter((d) => wanted(sim, d))
  const valves = new Set(
    (served.length > 0 ? served : installation.intent.demands).flatMap((d) => d.circuit.valves.map((v) => v.device)),
  )
  const shut = shutPorts(asker, (device) => valves.has(device))
  return shut.length > 0 ? shut : shutPorts(asker, () => true)
}

/** Valves of some devices that let no water through, each by its travel. */
export function shutPorts(asker: Asker, of: (device: string) => boolean): Cause[] {
  const { sim } = asker
  const { circuit } = sim
  const shut = circuit.water.ways.flatMap(({ port, device }, way) =>
    port !== undefined && of(circuit.devices[device].device.id) && Math.abs(sim.flows[way]) < feltFlow
      ? [circuit.ports[port].actuator]
      : [],
  )
  return [...new Set(shut)].map((actuator) => asker.travel(actuator))
}
