import type { Circuit } from '../circuit'
import { gatesOf, type Way } from './paths'
import { wayOf } from './ways'

/** Every signal from the spur to one load, laid out as a line of stations. Layout only: holds no state. */
export interface Run {
  /** `device.part` of the load. */
  id: string
  load: number
  /** Devices whose contacts stand in it, in order. */
  devices: string[]
  /** Empty where nothing leads to the load. */
  way: Way
}

/** The runs of an installation: valve motors in the order of the demands, then boiler calls, then what the boiler drives. */
export function runsOf(circuit: Circuit): Run[] {
  const calls = circuit.devices.flatMap(({ type, loadIndex }) => type.inputs.map((i) => loadIndex.get(i.load)!))
  const motors = circuit.actuators.map((a) => a.drivenBy)
  const works = circuit.loads.flatMap((load, i) => (load.part.work ? [i] : []))
  return [...motors, ...calls, ...works].map((load) => {
    const { device, part, a } = circuit.loads[load]
    const way = circuit.sources.map((s) => wayOf(circuit, s.line, a)).find((w) => w !== undefined) ?? []
    const devices = gatesOf(way).flatMap((edge) => {
      const e = circuit.edges[edge]
      return e.kind === 'contact' ? [circuit.devices[circuit.contacts[e.contact].device].device.id] : []
    })
    return { id: `${circuit.devices[device].device.id}.${part.id}`, load, devices: [...new Set(devices)], way }
  })
}
