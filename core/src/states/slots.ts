import type { Circuit } from '../circuit'
import { AT_TIMES, NOT_HELD, type BehaviourState, type Bus, type PartFlags, type Travel } from '../simulation'
import type { Input } from '../inputs'

/** A phase that ends by itself some time, and one that does not. */
export const PENDING = 1e15

/** One thing of a state that can change, and whose it is. */
export interface Slot {
  device: number
  part: string
  read(): number
  write(value: number): void
}

const phaseNames: string[] = []
/** A phase and whether it ends by itself, as one number. */
function phaseNumber({ phase, until }: BehaviourState): number {
  let at = phaseNames.indexOf(phase)
  if (at < 0) at = phaseNames.push(phase) - 1
  return at * 2 + (until < Infinity ? 1 : 0)
}
const phaseOf = (value: number): BehaviourState => ({
  phase: phaseNames[value >> 1],
  until: value & 1 ? PENDING : Infinity,
})

/** Controls that an input, a limit, a lockout or a valve's motor can change, with the values they have. */
function varyingControls(circuit: Circuit, inputs: readonly Input[]): { control: number; values: string[] }[] {
  const changing = new Set(inputs.flatMap((i) => i.leaves.flatMap((l) => (l.kind === 'choice' ? [l.control] : []))))
  for (const { device, part } of circuit.actuators)
    if (part.latch) changing.add(circuit.devices[device].controlIndex.get(part.latch.control)!)
  for (const { throws } of circuit.behaviours) if (throws) changing.add(throws.control)
  return [...changing]
    .sort((x, y) => x - y)
    .map((control) => {
      const { device, id } = circuit.controls[control]
      const kind = circuit.devices[device].type.controls.find((c) => c.id === id)!
      return { control, values: kind.kind === 'choice' ? kind.values.map((v) => v.id) : [] }
    })
}

/** What the slots of a state read and write: the parts of the machine. */
export interface Parts {
  circuit: Circuit
  flags: PartFlags
  values: (string | number)[]
  sensing: Uint8Array
  closed: Uint8Array
  missing: Uint8Array
  energised: Uint8Array
  working: Uint8Array
  travel: Travel
  bus: Bus
  phases: BehaviourState[]
  /** Of every actuator, the positions it is told apart at. */
  places: number[][]
  placeOf(actuator: number): number
}

/** Everything of a state that can change, each in its place. */
export function slotsOf(parts: Parts, inputs: readonly Input[]): Slot[] {
  const { circuit, travel, bus, values, flags, places, phases } = parts
  const of = (device: number, part: string, read: () => number, write: (value: number) => void): Slot => ({
    device,
    part,
    read,
    write,
  })
  const bits = (array: Uint8Array, i: number) => [() => array[i], (value: number) => void (array[i] = value)] as const
  return [
    ...varyingControls(circuit, inputs).map(({ control, values: all }) =>
      of(
        circuit.controls[control].device,
        `control ${circuit.controls[control].id}`,
        () => all.indexOf(String(values[control])),
        (value) => (values[control] = all[value]),
      ),
    ),
    ...circuit.sensors.map((s, i) => of(s.device, `sensor ${s.part.id}`, ...bits(parts.sensing, i))),
    ...circuit.contacts.map((c, i) => of(c.device, `contact ${c.part.id} ${c.throw}`, ...bits(parts.closed, i))),
    ...circuit.contacts.flatMap((c, i) =>
      flags.heldContacts[i] === AT_TIMES
        ? [of(c.device, `missing ${c.part.id} ${c.throw}`, ...bits(parts.missing, i))]
        : [],
    ),
    ...circuit.loads.map((l, i) =>
      of(
        l.device,
        `load ${l.part.id}`,
        () => parts.energised[i] | (parts.working[i] << 1),
        (value) => {
          parts.energised[i] = value & 1
          parts.working[i] = value >> 1
        },
      ),
    ),
    ...circuit.actuators.map((a, i) =>
      of(
        a.device,
        `travel ${a.part.id}`,
        () => parts.placeOf(i) * 3 + Math.sign(travel.velocity[i]) + 1,
        (value) => {
          travel.velocity[i] = (value % 3) - 1
          travel.position[i] =
            flags.heldActuators[i] !== NOT_HELD ? flags.heldActuators[i] : places[i][Math.floor(value / 3)]
        },
      ),
    ),
    ...circuit.cams.map(({ actuator }, i) => {
      const { device, part } = circuit.actuators[actuator]
      const nth = circuit.cams.slice(0, i).filter((c) => c.actuator === actuator).length
      return of(device, `cam ${part.id} ${nth}`, ...bits(travel.cams, i))
    }),
    ...circuit.behaviours.map((b, i) =>
      of(
        b.device,
        `sequence ${b.part.id}`,
        () => phaseNumber(phases[i]),
        (value) => (phases[i] = phaseOf(value)),
      ),
    ),
    ...circuit.buses.flatMap((b, i) => [
      of(b.device, `bus ${b.part.id} said`, ...bits(bus.said, i)),
      of(
        b.device,
        `bus ${b.part.id} under way`,
        () => (bus.due[i] < Infinity ? 1 : 0) + (bus.peer[i] + 1) * 2,
        (value) => {
          bus.due[i] = value & 1 ? PENDING : Infinity
          bus.peer[i] = (value >> 1) - 1
        },
      ),
    ]),
  ]
}
