import type { Circuit } from '../circuit'
import type { Recording, Signal } from '../trace'
import { waitText } from './acts'
import { behaviourOf, deviceName, partName, phaseText } from './names'

/** What a signal is of, as a name. */
export function signalText(circuit: Circuit, { of }: Signal): string {
  switch (of.kind) {
    case 'room':
      return circuit.installation.places.find((p) => p.id === of.of)?.name ?? of.of
    case 'cylinder':
      return deviceName(circuit, of.of)
    case 'water':
      return `${deviceName(circuit, of.of)} water`
    case 'phase':
      return deviceName(circuit, of.device)
    case 'travel':
      return `${deviceName(circuit, of.device)} travel`
    default:
      return partName(circuit, of.device, of.part)
  }
}

/** What it does at a moment, in a word or with its unit. */
export function signalValueText(circuit: Circuit, { of }: Signal, value: number | string): string {
  switch (of.kind) {
    case 'contact':
      return value ? 'made' : 'open'
    case 'load':
      return value ? 'on' : 'off'
    case 'travel':
      return `${Math.round(Number(value) * 100)}\u00a0%`
    case 'phase':
      return phaseText(circuit, behaviourOf(circuit, of.device, of.part), String(value))
    default:
      return `${Number(value).toFixed(1)} °C`
  }
}

/** What a recording comes to: burner starts and hours, pumps, what held motors took. */
export function recordingText(circuit: Circuit, { boilers, ran, heldWh }: Recording): string[] {
  return [
    ...boilers.map(
      ({ boiler, starts, ranMs }) =>
        `${deviceName(circuit, boiler)} starts ${starts === 1 ? 'once' : `${starts} times`}${ranMs > 0 ? ` and runs ${lastsText(ranMs)}` : ''}`,
    ),
    ...ran
      .filter(({ ms }) => ms > 0)
      .map(({ device, part, ms }) => `${partName(circuit, device, part)} runs ${lastsText(ms)}`),
    ...(heldWh >= 0.05 ? [`Motors take ${heldWh.toFixed(1)} Wh to hold their valves`] : []),
  ]
}

const lastsText = (ms: number): string => (ms < 2 * 3_600_000 ? waitText(ms) : `${(ms / 3_600_000).toFixed(1)} h`)
