import { neverMakes, stuckMade } from './failures'
import type { Amount, Condition, Contact, Control, Sensor, Setting, Timed } from './primitives'
import { setPointWeek } from './weeks'

export const onTheWall = 'On an inside wall of its zone, about 1.5 m up, away from sun and draughts.'

/** The dial of a room thermostat and the room around it. */
export const roomDial: Control[] = [
  { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 5, max: 30, step: 0.5, initial: 10 },
  {
    kind: 'number',
    id: 'room',
    label: 'Room',
    unit: '°C',
    min: -5,
    max: 40,
    step: 0.5,
    initial: 18,
    ambient: true,
    feels: 'room',
  },
]
/** As {@link roomDial}, its set-point turned by a week while another control of the device stands so. */
export const timedDial = (follows: NonNullable<Timed['while']>): Control[] =>
  roomDial.map((c) =>
    c.id === 'set' && c.kind === 'number' ? { ...c, timed: { turns: true, usual: setPointWeek, while: follows } } : c,
  )

/** The dial of a cylinder thermostat and the water behind the wall it is strapped to. */
export const cylinderDial: Control[] = [
  { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 40, max: 75, step: 1, initial: 60 },
  {
    kind: 'number',
    id: 'cylinder',
    label: 'Cylinder',
    unit: '°C',
    min: 5,
    max: 95,
    step: 1,
    initial: 65,
    ambient: true,
    feels: 'cylinder',
  },
]

export const differential = (min: number, max: number, usual: number, origin: string): Setting => ({
  id: 'differential',
  label: 'Differential',
  unit: 'K',
  min,
  max,
  default: usual,
  origin,
})
export const electronicDifferential = differential(0.2, 3, 0.5, 'domain: 0.5 to 1 K')

export const sensorOf = (
  id: string,
  label: string,
  reads: string,
  width: Amount = { setting: 'differential' },
): Sensor => ({ kind: 'sensor', id, label, reads, setPoint: 'set', differential: width })

/** A thermostat's contact, with what cures it where it fails. */
export const contactOf = (a: string, b: string, closedWhen: Condition, remedy: string): Contact => ({
  kind: 'contact',
  id: 'contact',
  label: 'contact',
  a,
  b,
  closedWhen,
  failures: [neverMakes('contact does not make', 2, remedy), stuckMade('contact welded', 1, remedy)],
})
