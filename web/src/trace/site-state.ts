import { controlsAfter, isSetByHand, type HuntEntry, type Simulation } from '@nobbet/core'

/**
 * The acts that bring the controls from where a log has left them to where they stand in a simulation. What is not a hand's to set,
 * a temperature or how a radio link stands, is left out.
 */
export function controlsToSet(simulation: Simulation, log: readonly HuntEntry[]): string[] {
  const { circuit } = simulation
  const left = controlsAfter(circuit, log)
  return circuit.devices.flatMap(({ device, type }) =>
    type.controls.flatMap((control) => {
      const name = `${device.id}.${control.id}`
      const stands = String(simulation.control(device.id, control.id))
      return !isSetByHand(circuit, device.id, control.id) || left.get(name) === stands ? [] : [`${name}=${stands}`]
    }),
  )
}
