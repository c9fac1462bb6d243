import type { Circuit } from '../circuit'
import { calledPhases } from '../simulation'
import { passes, settle } from './acts'
import { askableContacts, canBeOpened, type ControlState } from './candidates'
import type { Course } from './course'
import { isHarmless } from './harmless'

/** A control off its plate, with everything asking that it would switch. */
export interface OffPlate {
  device: string
  /** The contacts that ask: of the services that it switches, all but its own. */
  asking: ControlState
  /** Is no state dangerous without it that was not before? Gone through when it is first asked for, and remembered. */
  isHarmless: () => boolean
}

/**
 * Controls worth taking off their plates: with such a one at rest, and all else of its services asking, one of these courses calls the
 * boiler all the same. What goes on without it does not come of it.
 *
 * @param actsTo what brings the controls to a state.
 */
export function offPlatesOf(
  circuit: Circuit,
  courses: readonly Course[],
  actsTo: (asking: ControlState) => readonly string[],
): OffPlate[] {
  const { demands } = circuit.installation.intent
  const contacts = askableContacts(circuit)
  const devices = [...new Set(contacts.map(({ device }) => device))]
  return devices.flatMap((device): OffPlate[] => {
    const own = demands.filter(({ channel, thermostat }) => [channel, thermostat].some((at) => at?.device === device))
    const others = own.flatMap(({ channel, thermostat }) => [channel, thermostat]).filter((at) => at?.device !== device)
    const asking = contacts
      .filter((one) => others.some((at) => at?.device === one.device && at.contact === one.contact))
      .map((one) => `${one.device}.${one.contact}`)
    const acts = actsTo(asking).filter((act) => !passes(act))
    const isCalled = (course: Course): boolean => {
      const fork = course.fork()
      for (const act of [...acts, settle]) fork.act(act)
      return circuit.behaviours.some((_, i) => calledPhases.has(fork.sim.phase(i).phase))
    }
    if (!canBeOpened(circuit, device) || !courses.some(isCalled)) return []
    return [{ device, asking, isHarmless: () => isHarmless(circuit, [{ what: 'off-plate', of: device }]) }]
  })
}
