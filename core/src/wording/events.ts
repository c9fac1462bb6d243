import type { Circuit } from '../circuit'
import type { PutIn } from '../hypotheses'
import type { SimEvent } from '../simulation'
import { actuatorOf, behaviourOf, deviceName, motionText, partName, phaseText } from './names'

const workOf = (circuit: Circuit, device: string, part: string) =>
  circuit.loads.find((l) => l.part.id === part && circuit.devices[l.device].device.id === device)!.part.work

/** Is an event worth a line? What a device's electronics do within it, before its relay follows, is not. */
export function isTold(circuit: Circuit, event: SimEvent): boolean {
  if (event.kind !== 'contact') return true
  const at = circuit.deviceIndex.get(event.device)
  const contact = circuit.contacts.find((c) => c.device === at && c.part.id === event.part)!
  const { a, b } = circuit.edges[contact.edge]
  return circuit.atoms[a].kind !== 'internal' || circuit.atoms[b].kind !== 'internal'
}

/** One event as a line of the log, without its time. */
export function eventText(
  circuit: Circuit,
  event: SimEvent,
  faults: ReadonlyMap<string, Pick<PutIn, 'label'>>,
): string {
  switch (event.kind) {
    case 'control':
    case 'clock': {
      const { device, type } = circuit.devices[circuit.deviceIndex.get(event.device)!]
      const control = type.controls.find((c) => c.id === event.control)!
      const value =
        control.kind === 'number'
          ? `${event.value} ${control.unit}`
          : control.values.find((v) => v.id === event.value)!.label.toLowerCase()
      return `${device.name}: ${control.label.toLowerCase()} ${value}${event.kind === 'clock' ? ', by its clock' : ''}`
    }
    case 'fault':
      return `Fault put in: ${faults.get(event.fault)?.label ?? event.fault}`
    case 'mend':
      return `Fault taken out: ${faults.get(event.fault)?.label ?? event.fault}`
    case 'contact': {
      const to = event.throw === 'made' ? '' : event.throw === 'no' ? ' (on)' : ' (rest)'
      return `${partName(circuit, event.device, event.part)}${to} ${event.closed ? 'makes' : 'lets go'}`
    }
    case 'travel':
      return `${deviceName(circuit, event.device)} ${motionText(circuit, actuatorOf(circuit, event.device, event.part), event.motion)}`
    case 'phase':
      return `${deviceName(circuit, event.device)}: ${phaseText(circuit, behaviourOf(circuit, event.device, event.part), event.phase)}`
    case 'work':
      return workOf(circuit, event.device, event.part) === 'heats'
        ? `${partName(circuit, event.device, event.part)} ${event.running ? 'heats' : 'no longer heats'}`
        : `${deviceName(circuit, event.device)} ${event.running ? 'runs' : 'stops'}`
    case 'short':
      return 'Short circuit: line joined to neutral or earth'
    case 'fuse':
      return `${partName(circuit, event.device, event.part)} blows`
    case 'trip':
      return `${partName(circuit, event.device, event.part)} trips: what goes out does not all come back`
    case 'burnt':
      return `${partName(circuit, event.device, event.part)} burns out: more volts, or longer without a pause, than it stands`
    case 'limit':
      return `${partName(circuit, event.device, event.part)} trips: too hot, reset by hand`
    case 'unlatched':
      return `${deviceName(circuit, event.device)}: the motor drives, the lever's latch lets go`
    case 'bus':
      return `${partName(circuit, event.device, event.part)} ${event.linked ? 'is answered' : 'is no longer answered'}`
    case 'hunting':
      return 'Hunting: the same states come round again with nobody touching anything'
  }
}
