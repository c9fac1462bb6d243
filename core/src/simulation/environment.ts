import type { Felt } from '../catalogue'
import type { Circuit } from '../circuit'
import { Heat, type PlantActivity, type Scenario, type Watch } from '../heat'
import { flowsOf, Pipes, type Warmth } from '../water'
import { thresholds } from './sensing'
import type { SeenByWater } from './seen-by-water'
import { readGates, readRising } from './water-state'

/** Without a model of heat, °C: the flow of a boiler that aims at nothing, how much cooler it comes back, and cold water. */
const usualFlow = 70
const usualDrop = 20
const restWater = 18

/** A control that feels a temperature: which lump, or the air outdoors. */
interface Feeler {
  control: number
  lump?: number
}

/** Water in the pipes and, where a scenario is chosen, the heat in it and in the rooms. */
export class Environment {
  flows: Float64Array
  heat?: Heat
  readonly gates: Uint8Array
  readonly pumps: Uint8Array
  private readonly rising: Uint8Array
  private feelers: Feeler[] = []
  private readonly pipes: Pipes
  /** Of every source: was its water hot when it was last looked at? */
  private readonly hot: Uint8Array

  constructor(
    private readonly circuit: Circuit,
    from?: Environment,
  ) {
    const { ways, emitters } = circuit.water
    this.gates = from ? from.gates.slice() : new Uint8Array(ways.length)
    this.pumps = from ? from.pumps.slice() : new Uint8Array(ways.length)
    this.rising = from ? from.rising.slice() : new Uint8Array(emitters.length)
    this.flows = from ? from.flows : new Float64Array(ways.length)
    this.pipes = new Pipes(circuit.water, from?.pipes)
    this.hot = from ? from.hot.slice() : new Uint8Array(circuit.water.sources.length)
    if (from?.heat) {
      this.heat = from.heat.fork()
      this.feelers = from.feelers
    }
  }

  /** Lets temperatures go their own way from here, in such a house and weather; without a scenario, a hand sets them. */
  begin(scenario: Scenario | undefined, time: number, startHour: number): void {
    this.heat = scenario && new Heat(this.circuit, scenario, startHour)
    this.heat?.begin(time)
    this.feelers = this.heat ? feelersOf(this.circuit, this.heat) : []
  }

  /** What is felt just now goes to whom it concerns. */
  feel(time: number, set: (control: number, celsius: number) => void): void {
    const { heat } = this
    if (!heat) return
    const outside = heat.outdoorsAt(time)
    for (const { control, lump } of this.feelers) set(control, lump === undefined ? outside : heat.celsius[lump])
  }

  /** Which water flows. */
  updateWater(plant: SeenByWater, time: number): void {
    const { emitters } = this.circuit.water
    readGates(this.circuit, plant, this)
    if (this.heat) this.rising.set(this.heat.rising)
    else if (emitters.some((e) => e.rise > 0)) readRising(this.circuit, plant, this.rising)
    const { gates, pumps, rising } = this
    const flows = flowsOf(this.circuit, { gates, pumps, rising })
    const hot = this.circuit.water.sources.map((_, s) => (plant.hot(s) ? 1 : 0))
    if (flows !== this.flows || hot.some((h, s) => h !== this.hot[s]))
      this.pipes.remember(time, this.flows, this.warmth(plant))
    this.hot.set(hot)
    this.flows = flows
  }

  /** °C of the pipes at the two ends of every way. */
  pipeTemperatures(plant: SeenByWater, time: number): Float64Array {
    return this.pipes.at(time, this.flows, this.warmth(plant))
  }

  /** The pipes are as warm as those of another such system, °C by way and end. */
  warmPipes(celsius: Float64Array, time: number): void {
    this.pipes.takeOver(celsius, time)
  }

  /** What the water of sources and behind emitters is like; by a hand's reckoning where there is no model of heat. */
  private warmth(plant: SeenByWater): Warmth {
    const { sources, emitters } = this.circuit.water
    const { heat } = this
    return {
      source: (way) => {
        const s = sources.findIndex((source) => source.way === way)
        if (s < 0) return undefined
        const lump = heat?.lumps.sourceLump[s]
        if (heat && lump !== undefined) return heat.celsius[lump]
        return this.hot[s] ? (plant.aims(s) ?? usualFlow) : null
      },
      behind: (way, inlet) => {
        const e = emitters.findIndex((emitter) => emitter.way === way)
        if (e < 0) return undefined
        if (heat) return heat.celsius[heat.lumps.emitterLump[e]]
        return plant.gives(e) ? Math.max(restWater, inlet - usualDrop) : inlet
      },
    }
  }

  updateHeat(plant: SeenByWater, time: number): void {
    if (!this.heat) return
    const { circuit } = this
    const { stores } = circuit.water
    const activity: PlantActivity = {
      flows: this.flows,
      heats: (s) => plant.may(s),
      aim: (s) => plant.aims(s),
      gives: (e) => plant.gives(e),
      draws: (i) => {
        const { control, litresPerMinute } = stores[i].part.draws
        return litresPerMinute[String(plant.control(circuit.devices[stores[i].device].controlIndex.get(control)!))] ?? 0
      },
    }
    this.heat.update(activity, this.watches(plant))
    // Warmth may just have begun or ceased to drive the water.
    if (this.rising.some((r, i) => r !== this.heat!.rising[i])) this.updateWater(plant, time)
  }

  /** Has the water of this device's source grown hotter than its limit allows? */
  overheated(device: number): boolean {
    const { heat, circuit } = this
    if (!heat) return false
    return circuit.water.sources.some((s, i) => {
      const lump = heat.lumps.sourceLump[i]
      return s.device === device && lump !== undefined && heat.celsius[lump] >= s.limit - 1e-6
    })
  }

  private watches(plant: SeenByWater): Watch[] {
    const { sensors } = this.circuit
    return sensors.flatMap((sensor, i) => {
      const lump = this.feelers.find((f) => f.control === sensor.reads)?.lump
      if (lump === undefined) return []
      const { lower, upper } = thresholds(sensor, Number(plant.control(sensor.setPoint)), plant.heated(sensor))
      return [plant.asks(i) ? { lump, celsius: upper, rising: true } : { lump, celsius: lower, rising: false }]
    })
  }
}

/** Who feels what: each ambient temperature of a device by where it stands, or by the demand it is thermostat of. */
function feelersOf({ devices, installation, water }: Circuit, { lumps }: Heat): Feeler[] {
  const emitterOf = (id: string) => water.emitters.findIndex((e) => devices[e.device].device.id === id)
  const byDemand = (device: string): number | undefined => {
    const demand = installation.intent.demands.find((d) => d.thermostat?.device === device)
    const emitter = demand?.circuit.emitters?.map(emitterOf).find((e) => e >= 0)
    return emitter === undefined ? undefined : lumps.warms[emitter]
  }
  const lumpOf = (felt: Felt, index: number): number | undefined => {
    const { device } = devices[index]
    switch (felt) {
      case 'room':
        return lumps.roomAt.get(device.place) ?? byDemand(device.id)
      case 'cylinder':
        return lumps.storeAt.get(device.place) ?? byDemand(device.id) ?? lumps.stores[0]?.lump
      case 'water': {
        const source = water.sources.findIndex((s) => s.device === index)
        return lumps.sourceLump[source]
      }
      case 'emitter':
        return lumps.emitterLump[water.emitters.findIndex((e) => e.device === index)]
      // Water comes back as warm as what it was warmed for has left it.
      case 'return':
        return lumps.emitterLump[water.emitters.findIndex((e) => e.part.into === 'room')]
      case 'outdoors':
        return undefined
    }
  }
  return devices.flatMap(({ type, controlIndex }, index) =>
    type.controls.flatMap((c): Feeler[] => {
      if (c.kind !== 'number' || !c.feels) return []
      const lump = lumpOf(c.feels, index)
      // What stands for a cylinder that is not there feels nothing.
      if (lump === undefined && c.feels !== 'room' && c.feels !== 'outdoors') return []
      return [{ control: controlIndex.get(c.id)!, lump }]
    }),
  )
}
