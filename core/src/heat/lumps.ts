import type { Circuit } from '../circuit'
import type { Amount } from '../catalogue'
import { cupboardCelsius, designKelvin, designMargin, houses, type HouseId } from './houses'

/** Everything that holds heat, in one order: water of sources, water of emitters, then rooms and cylinders. */
export interface Lumps {
  /** Wh/K of each. */
  capacities: Float64Array
  /** °C at which each begins. */
  start: Float64Array
  /** Lump of a heat source's water; undefined where it heats a cylinder. */
  sourceLump: (number | undefined)[]
  /** The lump a source without water of its own heats. */
  heats: (number | undefined)[]
  emitterLump: number[]
  /** W/K between an emitter's water and what it warms. */
  emitterPerKelvin: number[]
  /** The room or cylinder that an emitter warms. */
  warms: number[]
  rooms: { place: string; lump: number; lossWPerK: number; gainsW: number }[]
  stores: { lump: number; loses: number }[]
  /** Place of each space, for who feels it. */
  roomAt: Map<string, number>
  storeAt: Map<string, number>
}

/** Rooms begin a little cool, cylinders warm, water at the temperature of the house. */
const startRoom = 17
const startStore = 45
/** Wh/(l·K) of water. */
const waterWhPerLitre = 1.163
/** Wh/K where a source has no water to speak of. */
const leastCapacity = 0.5

/** The lumps of an installation in such a house: what the document says goes first. */
export function lumpsOf(circuit: Circuit, house: HouseId): Lumps {
  const { sources, emitters, stores } = circuit.water
  const figures = houses[house]
  const capacities: number[] = []
  const start: number[] = []
  const add = (capacity: number, celsius: number) => {
    start.push(celsius)
    return capacities.push(Math.max(leastCapacity, capacity)) - 1
  }
  const device = (index: number) => circuit.devices[index]
  const placeOf = (index: number) => device(index).device.place
  /** A setting that the document itself gives. */
  const given = (index: number, amount: Amount) =>
    typeof amount === 'object' && device(index).device.settings[amount.setting] !== undefined

  const sourceLump = sources.map((s) => (s.way === undefined ? undefined : add(s.capacity, startRoom)))
  const emitterLump = emitters.map((e) => add(e.capacity, startRoom))
  const places = [...new Set(emitters.filter((e) => e.part.into === 'room').map((e) => placeOf(e.device)))]
  const roomAt = new Map<string, number>()
  const rooms = places.map((place) => {
    const said = circuit.installation.places.find((p) => p.id === place)?.room
    const share = 1 / places.length
    const lump = add(said?.capacityWhPerK ?? figures.capacityWhPerK * share, startRoom)
    roomAt.set(place, lump)
    const lossWPerK = said?.lossWPerK ?? figures.lossWPerK * share
    return { place, lump, lossWPerK, gainsW: said?.gainsW ?? figures.gainsW * share }
  })
  const storeAt = new Map<string, number>()
  const bodies = stores.map((s) => {
    const litres = given(s.device, s.part.litres) ? s.litres : figures.cylinderLitres
    const lump = add(litres * waterWhPerLitre, startStore)
    storeAt.set(placeOf(s.device), lump)
    return { lump, loses: s.loses }
  })
  const anyStore = bodies[0]?.lump
  const store = (index: number) => {
    const own = stores.findIndex((s) => s.device === index)
    return own >= 0 ? bodies[own].lump : (storeAt.get(placeOf(index)) ?? anyStore)
  }
  const sized = (index: number, kelvin: number) => {
    const room = rooms.find((r) => r.place === placeOf(index))!
    return (room.lossWPerK * designKelvin * designMargin) / kelvin
  }
  return {
    capacities: Float64Array.from(capacities),
    start: Float64Array.from(start),
    sourceLump,
    heats: sources.map((s) => (s.way === undefined ? store(s.device) : undefined)),
    emitterLump,
    emitterPerKelvin: emitters.map((e) =>
      e.part.into === 'room' && !given(e.device, e.part.watts) ? sized(e.device, e.part.kelvin) : e.perKelvin,
    ),
    warms: emitters.map((e) => (e.part.into === 'room' ? roomAt.get(placeOf(e.device))! : store(e.device))),
    rooms,
    stores: bodies,
    roomAt,
    storeAt,
  }
}

export const ambient = cupboardCelsius
export const whPerLitre = waterWhPerLitre
