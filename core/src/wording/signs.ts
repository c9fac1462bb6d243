import type { Circuit } from '../circuit'
import type { LeverFeel, Signs } from '../trace'
import { deviceName, partName, phaseText } from './names'

const leverWords: Record<LeverFeel, string> = {
  stiff: 'lever resists',
  slack: 'lever slack',
  latched: 'lever latched part open',
  fixed: 'lever does not move',
}

/** Whether a motor is heard and how its lever feels: "hums, lever slack". */
export const valveFeelText = ({ hums, lever }: Signs['valves'][number]): string =>
  [hums ? 'hums' : 'silent', ...(lever ? [leverWords[lever]] : [])].join(', ')

/** What there is to see, hear and feel, a line to each thing, by what it is about. */
export function signLines(circuit: Circuit, signs: Signs): Map<string, string> {
  const lines = new Map<string, string>()
  if (signs.hunting) lines.set('hunting', 'Hunts: the same states come round and round')
  for (const valve of signs.valves) {
    const { ends } = circuit.actuators[valve.actuator].part
    const place = {
      rest: ends?.shut ?? 'shut',
      part: ends?.part ?? 'part way',
      driven: ends?.open ?? 'open',
    }[valve.place]
    lines.set(`valve ${valve.actuator}`, `${deviceName(circuit, valve.device)} ${place}, ${valveFeelText(valve)}`)
  }
  signs.boilers.forEach(({ device, calls, phase }, i) => {
    const called = calls.length > 0 ? 'called' : 'not called'
    lines.set(`boiler ${i}`, `${deviceName(circuit, device)} ${called}, shows ${phaseText(circuit, i, phase)}`)
  })
  circuit.loads.forEach(({ device, part }, load) => {
    if (!part.work) return
    const works = signs.working.includes(load)
    const words = part.work === 'runs' ? ['stands still', 'runs'] : ['cold', 'heats']
    const { id, name } = circuit.devices[device].device
    const what = part.work === 'runs' ? name : partName(circuit, id, part.id)
    lines.set(`load ${load}`, `${what} ${words[works ? 1 : 0]}`)
  })
  circuit.devices.forEach(({ device, type, busIndex }) => {
    const say = (what: string, text: string) => lines.set(`${what} ${device.id}`, `${device.name}: ${text}`)
    if (type.primitives.some((p) => p.kind === 'load' && p.lights))
      say('display', signs.dark.includes(device.id) ? 'display and lamps dark' : 'display lit')
    if (signs.blown.includes(device.id)) say('fuse', 'fuse blown')
    if ([...busIndex.values()].some((port) => circuit.buses[port].part.role === 'controller'))
      say('bus', signs.unlinked.includes(device.id) ? 'bus not answered' : 'bus answered')
  })
  for (const demand of circuit.installation.intent.demands)
    lines.set(`warm ${demand.id}`, `${demand.name} ${signs.warm.includes(demand.id) ? 'warms' : 'stays cold'}`)
  return lines
}

/** What shows otherwise than it does on a whole system. */
export function signDifferences(circuit: Circuit, signs: Signs, healthy: Signs): string[] {
  if (signs.hunting && !healthy.hunting) return ['The valve hunts: the same states come round and round']
  const usual = signLines(circuit, healthy)
  return [...signLines(circuit, signs)].flatMap(([key, line]) => (usual.get(key) === line ? [] : [line]))
}
