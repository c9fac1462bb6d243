import type { Circuit } from '../circuit'
import type { Simulation } from '../simulation'
import type { DemandState, OwnRun } from '../trace'
import { demandWords, deviceName, motionText, openPointText, travelText } from './names'
import { timeText } from './water'

/** "hygiene run of Cylinder thermostat". */
export function runName(circuit: Circuit, { device, control }: OwnRun): string {
  const { type } = circuit.devices[circuit.deviceIndex.get(device)!]
  const { label } = type.controls.find((c) => c.id === control)!
  return `${label.toLowerCase()} of ${deviceName(circuit, device)}`
}

/** "hygiene run, until about 04:10": a run is what its control is called, ended by its clock where that is set. */
export function ownRunText(sim: Simulation, { device, control, until }: OwnRun): string {
  return `${runName(sim.circuit, { device, control })}${until === undefined ? '' : `, until about ${timeText(until % 1440)}`}`
}

/** A demand's word, where a valve is on its way for it how far that has come: "Opening 40 %". */
export function demandHeadline(sim: Simulation, { word, travelling = [] }: DemandState): string {
  const [first] = travelling
  if (first === undefined) return demandWords[word]
  const motion = motionText(sim.circuit, first, sim.actuatorMotion(first))
  const percent = Math.round(sim.actuatorPosition(first) * 100)
  return `${motion.charAt(0).toUpperCase()}${motion.slice(1)} ${percent}\u00a0%`
}

/** What stands behind a demand's word: where it is held up, what travels for it, what run it is; empty where the word says all. */
export function demandDetailText(sim: Simulation, { word, openPoints, travelling, run }: DemandState): string {
  const { circuit } = sim
  const parts: string[] = []
  if (run) parts.push(ownRunText(sim, run))
  for (const actuator of travelling ?? []) {
    const { device } = circuit.actuators[actuator]
    const name = circuit.devices[device].device.name
    const motion = motionText(circuit, actuator, sim.actuatorMotion(actuator))
    parts.push(`${name} ${motion}, ${travelText(circuit, actuator, sim.actuatorPosition(actuator))}`)
  }
  if (word === 'held-up') parts.push(`at ${openPoints.map((point) => openPointText(circuit, point)).join(' or ')}`)
  return parts.join('; ')
}
