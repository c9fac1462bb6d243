import type { Circuit } from '../circuit'
import { placesAt, type Found, type WrittenLook } from '../looks'
import { ActionError, Simulation } from '../simulation'
import type { HuntEntry } from './case'
import { Course } from './course'

/** An entry of a log that does not fit the installation, and why. */
export interface Misfit {
  entry: string
  reason: string
}

/**
 * Entries that do not fit an installation: what cannot be done there, or is not there to be looked at; the others are what can be
 * followed. `whole`: the installation at rest with nothing wrong.
 */
export function misfits(circuit: Circuit, log: readonly HuntEntry[], whole = new Simulation(circuit)): Misfit[] {
  const course = new Course(whole.fork())
  return log.flatMap((entry) => {
    try {
      check(circuit, course, entry)
      return []
    } catch (error) {
      if (error instanceof ActionError) return [{ entry: entry.id, reason: error.message }]
      throw error
    }
  })
}

function check(circuit: Circuit, course: Course, entry: HuntEntry): void {
  if ('do' in entry) course.act(entry.do)
  else if ('renew' in entry) hasDevice(circuit, entry.renew)
  else if ('blamed' in entry) hasDevice(circuit, entry.blamed)
  else if ('says' in entry) hasDemand(circuit, entry.says.demand)
  else if ('see' in entry) {
    known(circuit, entry.see)
    if (typeof entry.found !== 'string') placed(circuit, entry.see, entry.found)
    const notDone = course.fork()
    entry.after?.forEach((act) => notDone.act(act))
  }
}

function hasDevice({ deviceIndex }: Circuit, id: string): void {
  if (!deviceIndex.has(id)) throw new ActionError(`there is no device "${id}"`)
}

function hasThing({ deviceIndex, installation }: Circuit, id: string): void {
  if (!deviceIndex.has(id) && !installation.wiringCentres.some((centre) => centre.id === id))
    throw new ActionError(`there is no device or wiring centre "${id}"`)
}

function hasDemand({ installation }: Circuit, id: string | undefined): void {
  if (id !== undefined && !installation.intent.demands.some((d) => d.id === id))
    throw new ActionError(`there is no demand "${id}"`)
}

/** Throws {@link ActionError} where something is told of a place that is not there, or where no places are told. */
function placed({ installation }: Circuit, see: WrittenLook, found: Found): void {
  if (!('at' in found) || !found.at) return
  if (see.at !== 'wiring' || found.word !== 'otherwise')
    throw new ActionError('places are told only of wiring that lies otherwise than it is drawn')
  const places = placesAt(installation, see.thing)
  const wrong = found.at.find((place) => !places.includes(place))
  if (wrong !== undefined) throw new ActionError(`"${wrong}" is no terminal and no set-up choice of "${see.thing}"`)
}

/** Throws {@link ActionError} where what is to be looked at is no part of the installation. */
function known(circuit: Circuit, see: WrittenLook): void {
  const terminals = see.at === 'points' ? [see.red, ...(see.black === undefined ? [] : [see.black])] : []
  for (const ref of terminals) if (!circuit.atomIndex.has(ref)) throw new ActionError(`there is no terminal "${ref}"`)
  if ('thing' in see) return hasThing(circuit, see.thing)
  const device = see.at === 'points' ? undefined : see.at === 'pipe' ? see.connection.split('.')[0] : see.device
  if (device !== undefined) hasDevice(circuit, device)
}
