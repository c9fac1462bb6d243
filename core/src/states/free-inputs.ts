import type { Circuit } from '../circuit'
import { leavesOfContact, type Input, type Leaf } from '../inputs'
import { senses } from '../simulation'
import { sensorIsRead } from './read-by'

const leafKey = (leaf: Leaf): string => (leaf.kind === 'sensor' ? `s${leaf.sensor}` : `c${leaf.control}`)

/** Every free input of an installation: those of its demands first, then limits and sensors that no demand has and something reads. */
export function inputsOf(circuit: Circuit): Input[] {
  const inputs: Input[] = []
  const seen = new Set<string>()
  const used = new Set<string>()
  const add = (device: string, leaves: Leaf[], ofNoDemand?: Input['ofNoDemand']) => {
    const key = leaves.map(leafKey).sort().join()
    if (leaves.length === 0 || seen.has(key)) return
    seen.add(key)
    leaves.forEach((leaf) => used.add(leafKey(leaf)))
    inputs.push({ device, leaves, ...(ofNoDemand && { ofNoDemand }) })
  }
  for (const { channel, thermostat } of circuit.installation.intent.demands)
    for (const at of [channel, thermostat]) if (at) add(at.device, leavesOfContact(circuit, at))
  circuit.sensors.forEach((part, sensor) => {
    const { device, throws, reads, setPoint } = part
    if (used.has(`s${sensor}`) || !sensorIsRead(circuit, sensor)) return
    const { id } = circuit.devices[device].device
    const leaves: Leaf[] = [{ kind: 'sensor', sensor }]
    if (throws) {
      const resting = throws.to
      const asking = String(circuit.controls[throws.control].initial)
      leaves.push({ kind: 'choice', control: throws.control, asking, resting })
    }
    const initial = (control: number) => Number(circuit.controls[control].initial)
    add(id, leaves, { asks: senses(part, initial(reads), initial(setPoint), false, false) })
  })
  return inputs
}
