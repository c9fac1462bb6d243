import { nth } from '../lists'
import type { Circuit, Electrics } from '../circuit'
import type { Installation } from '../installation'
import { measure, terminalVolts, type Reading } from '../instruments'
import { calledPhases, type Simulation } from '../simulation'
import { signsOf, valveSigns, warmEmitters } from '../trace'
import { feelOf } from '../water'
import { damageSeen } from './damage-seen'
import type { Look, LookResult } from './look'
import { wiringSeen } from './wiring-seen'

/** From this part of its travel on, a valve no longer stands shut. */
const shutTravel = 0.02
/** A valve that has moved so often since the last touch, and goes round for good, buzzes. */
const buzzMoves = 3

const word = (is: boolean, yes: string, no: string): LookResult => ({ word: is ? yes : no })
const nothing: LookResult = { unknown: 'nothing-there' }

/** What is certain to be seen, as a word. */
function sureOr(chances: Readonly<Record<string, number>>): LookResult {
  const sure = Object.keys(chances).find((one) => chances[one] === 1)
  return sure === undefined ? { chances } : { word: sure }
}

/**
 * What a look shows at this moment of a simulation, settled or on its way. Throws {@link ActionError} where an instrument is to
 * be put on a terminal that is not there. `drawn`: what the wiring is compared with; without it nothing is known of that.
 *
 * @example
 * lookAt(sim, { at: 'lever', device: 'zv-1' }) // { word: 'stiff' }
 */
export function lookAt(sim: Simulation, look: Look, drawn?: Installation): LookResult {
  const { circuit } = sim
  if (look.at === 'points') return pointsShown(sim, look)
  if (look.at === 'pipe') return pipeShown(sim, look.connection)
  if (look.at === 'eyes') return sureOr(damageSeen(sim, look.thing))
  if (look.at === 'wiring') return drawn ? wiringSeen(drawn, circuit.installation, look.thing) : nothing
  const device = circuit.deviceIndex.get(look.device)
  if (device === undefined) return nothing
  const own = <T extends { device: number }>(parts: readonly T[]): number[] =>
    parts.flatMap((part, i) => (part.device === device ? [i] : []))
  const valves = own(circuit.actuators).map((i) => valveSigns(sim, i))
  /** Undefined where nothing of it lights up. */
  const isLit = () => {
    const lights = own(circuit.loads).filter((i) => nth(circuit.loads, i).part.lights)
    return lights.length === 0 ? undefined : lights.some((i) => sim.loadEnergised(i))
  }
  switch (look.at) {
    case 'valve':
      return word(
        own(circuit.actuators).some((i) => sim.actuatorPosition(i) > shutTravel),
        'open',
        'shut',
      )
    case 'lever': {
      const felt = valves.find(({ lever }) => lever !== undefined)
      if (!felt) return nothing
      // A lever that gives way, and stands half way, is driven part open or held there.
      return { word: felt.lever === 'slack' && felt.place === 'part' ? 'half-way' : felt.lever! }
    }
    case 'motor':
      if (sim.hunting && own(circuit.actuators).some((i) => goesRound(sim, i))) return { word: 'buzzes' }
      return word(
        valves.some(({ hums }) => hums),
        'hums',
        'silent',
      )
    case 'clicks': {
      const heard = sim.history.filter(
        (e) => e.kind === 'contact' && e.device === look.device && e.time >= look.since && e.closed,
      )
      return { word: heard.length === 0 ? 'none' : heard.length === 1 ? 'one' : 'more' }
    }
    case 'pump':
      return word(
        own(circuit.loads).some((i) => sim.loadWorking(i)),
        'running',
        'not-running',
      )
    case 'boiler':
      // What the boiler shows is what it believes: its phase, not the terminal.
      return word(
        own(circuit.behaviours).some((i) => calledPhases.has(sim.phase(i).phase)),
        'called',
        'not-called',
      )
    case 'display': {
      const [sequence] = own(circuit.behaviours)
      return sequence === undefined ? nothing : { word: sim.phase(sequence).phase }
    }
    case 'lamps': {
      const lit = isLit()
      return lit === undefined ? nothing : word(lit, 'lit', 'dark')
    }
    case 'clock': {
      const wrongBy = sim.lostTime(device)
      if (wrongBy === undefined) return nothing
      // One whose display hangs on no supply has a battery, or a spring.
      if (isLit() === false) return { word: 'dark' }
      return word(wrongBy === 0, 'right', 'wrong')
    }
    case 'flow-temperature': {
      const way = circuit.water.sources.find((s) => s.device === device)?.way
      return way === undefined ? nothing : { value: nth(sim.pipeTemperatures(), 2 * way + 1), unit: '°C' }
    }
    case 'warmth': {
      const emitters = own(circuit.water.emitters)
      if (emitters.length === 0) return nothing
      const warm = warmEmitters(sim)
      return word(
        emitters.some((e) => warm.includes(e)),
        'warms',
        'stays-cold',
      )
    }
    case 'trip': {
      const trips = circuit.trips.filter((t) => t.device === device)
      return trips.length === 0
        ? nothing
        : word(
            trips.some(({ part }) => sim.control(look.device, part.throws.control) === part.throws.to),
            'tripped',
            'in',
          )
    }
    case 'spindle': {
      const [actuator] = own(circuit.actuators)
      if (actuator === undefined) return nothing
      if (!sim.actuatorSeized(actuator)) return { word: 'turns' }
      // What is bound at its driven end may be bound in its body or in its gears.
      return sim.actuatorPosition(actuator) === 1 ? { chances: { turns: 0.5, seized: 0.5 } } : { word: 'seized' }
    }
    case 'fuse':
      return own(circuit.fuses).length === 0
        ? nothing
        : word(signsOf(sim).blown.includes(look.device), 'blown', 'whole')
  }
}

/** Does this valve move again and again? */
function goesRound({ circuit, history }: Simulation, actuator: number): boolean {
  const { device, part } = nth(circuit.actuators, actuator)
  const { id } = nth(circuit.devices, device).device
  const recent = history.slice(-60)
  return recent.filter((e) => e.kind === 'travel' && e.device === id && e.part === part.id).length >= buzzMoves
}

/** A hand on the pipe at a connection of a device. */
function pipeShown(sim: Simulation, connection: string): LookResult {
  const { water, devices } = sim.circuit
  const isEnd = (device: number, end: string) => `${nth(devices, device).device.id}.${end}` === connection
  const way = water.ways.findIndex(({ device, part }) => isEnd(device, part.from) || isEnd(device, part.to))
  if (way < 0) return nothing
  const { device, part } = nth(water.ways, way)
  return { word: feelOf(nth(sim.pipeTemperatures(), 2 * way + (isEnd(device, part.from) ? 0 : 1))) }
}

type PointsLook = Extract<Look, { at: 'points' }>

/** What instruments show depends on the electrical state alone: of each, what was looked at in it before. */
const shownBefore = new WeakMap<Electrics, WeakMap<PointsLook, LookResult>>()

function pointsShown(sim: Simulation, look: PointsLook): LookResult {
  // While a short stands there is nothing to be read, whatever the state.
  if (sim.shortNow) return readAt(sim, look)
  const { electrics } = sim
  let before = shownBefore.get(electrics)
  if (!before) shownBefore.set(electrics, (before = new WeakMap<PointsLook, LookResult>()))
  let shown = before.get(look)
  if (!shown) before.set(look, (shown = readAt(sim, look)))
  return shown
}

function readAt(sim: Simulation, { with: instrument, red, black }: PointsLook): LookResult {
  const { circuit } = sim
  const atom = circuit.atomIndex.get(red)
  if (black === undefined && atom !== undefined && (instrument === 'tester' || instrument === 'meter')) {
    const read = terminalVolts(sim.electrics, atom, instrument)
    return read ? { value: read.volts, unit: 'V', full: fullVolts(circuit, read.against) } : { unknown: 'open-end' }
  }
  return shownOf(circuit, measure(sim, instrument, red, black ?? red))
}

/** Full volts where a transformer feeds, or the mains. */
const fullVolts = (circuit: Circuit, against: string | undefined): number =>
  circuit.transformers.find((t) => nth(circuit.devices, t.device).device.id === against)?.nominal ??
  circuit.installation.supply.volts

/** An instrument's reading as what is shown. */
export function shownOf(circuit: Circuit, reading: Reading): LookResult {
  switch (reading.kind) {
    case 'volts':
      return { value: reading.volts, unit: 'V', full: circuit.installation.supply.volts }
    case 'ohms':
      return { value: reading.ohms, unit: 'Ω' }
    case 'insulation':
      return { value: reading.megohms, unit: 'MΩ' }
    case 'power':
      return { value: reading.watts, unit: 'W' }
    case 'polarity':
      return { word: reading.verdict }
    case 'refused':
      return { unknown: 'refused' }
    case 'unknown':
      return { unknown: 'open-end' }
  }
}
