import type { Circuit } from '../circuit'
import { sharesOf } from '../water'
import { HOLDING, nextBurner, restart, type Burner } from './burner'
import { firstAtLeastZero } from './crossing'
import { mainsCelsius, outdoors, weathers, type HouseId, type WeatherId } from './houses'
import { ambient, lumpsOf, whPerLitre, type Lumps } from './lumps'
import { Modes, type Course } from './modes'

/** How a day is lived: the house it stands in and the weather round it. */
export interface Scenario {
  house: HouseId
  weather: WeatherId
}

/** What the rest of the installation does just now, as heat sees it. */
export interface PlantActivity {
  flows: Float64Array
  /** Of every heat source: may it heat, and to what, °C; no aim, for as long as it may. */
  heats(source: number): boolean
  aim(source: number): number | undefined
  /** Does an emitter give off its heat: does its fan run? */
  gives(emitter: number): boolean
  /** Litres a minute drawn from each store. */
  draws(store: number): number
}

/** Something that wakes up when a lump crosses a temperature: a sensor's threshold. */
export interface Watch {
  lump: number
  celsius: number
  rising: boolean
}

/** Heat so far, Wh. */
export interface Ledger {
  /** Brought in by each source, and by people and appliances. */
  brought: Float64Array
  gains: number
  /** Lost to outdoors by each room, by each cylinder to its cupboard, and drawn off as hot water. */
  lost: Float64Array
  storeLost: Float64Array
  drawn: number
  /** Now held in excess of the start. */
  stored: number
}

/** Water is driven by warmth from this difference, K, and stops below the second. */
const rises = 5
const stopsRising = 2
/** Without flow to speak of, l/h. */
const noFlow = 1
const msPerHour = 3_600_000
/** Crossings are looked for no further ahead; the weather changes sooner. */
const horizonHours = 1

const modesOf = new WeakMap<Circuit, Map<string, Modes>>()

/**
 * Rooms, cylinders and water as lumps that hold heat, exactly solved between events. It looks at what the installation does,
 * says what everything that feels a temperature feels, and when next something will cross a threshold.
 */
export class Heat {
  readonly lumps: Lumps
  readonly celsius: Float64Array
  /** Of every emitter: is its water driven by warmth alone? */
  readonly rising: Uint8Array
  private readonly burners: Burner[]
  private readonly brought: Float64Array
  private readonly lost: Float64Array
  private readonly storeLost: Float64Array
  private drawn = 0
  private gains = 0
  /** What the course was worked out for, so that it is worked out anew only when something has changed. */
  private key = ''
  private course?: Course
  private courseFrom = 0
  private bookedHours = 0
  private bookedSums?: Float64Array
  private free: number[] = []
  private joints: Joint[] = []
  private readonly watts: Float64Array
  /** Litres a minute drawn from each store on this course. */
  private draws: number[] = []
  private now = 0
  private next = Infinity
  private watchKey = ''

  constructor(
    private readonly circuit: Circuit,
    readonly scenario: Scenario,
    /** Hours after Monday's midnight at which time 0 stands. */
    private readonly startHour: number,
    from?: Heat,
  ) {
    const { sources, emitters } = circuit.water
    this.lumps = from?.lumps ?? lumpsOf(circuit, scenario.house)
    this.celsius = (from?.celsius ?? this.lumps.start).slice()
    this.rising = from ? from.rising.slice() : new Uint8Array(emitters.length)
    this.burners = from ? from.burners.slice() : sources.map(() => 'off')
    this.brought = from ? from.brought.slice() : new Float64Array(sources.length)
    this.lost = from ? from.lost.slice() : new Float64Array(this.lumps.rooms.length)
    this.storeLost = from ? from.storeLost.slice() : new Float64Array(this.lumps.stores.length)
    this.watts = new Float64Array(sources.length)
    if (from) {
      this.drawn = from.drawn
      this.gains = from.gains
      this.now = from.now
      this.key = from.key
      this.watchKey = from.watchKey
      this.course = from.course
      this.courseFrom = from.courseFrom
      this.bookedHours = from.bookedHours
      this.bookedSums = from.bookedSums
      this.free = from.free
      this.joints = from.joints
      this.draws = from.draws
      this.watts.set(from.watts)
      this.next = from.next
    }
  }

  fork(): Heat {
    return new Heat(this.circuit, this.scenario, this.startHour, this)
  }

  /** Where time stands when it is first looked at. */
  begin(time: number): void {
    this.now = time
    this.courseFrom = time
  }

  get nextAt(): number {
    return this.next
  }

  outdoorsAt(time: number): number {
    return outdoors(weathers[this.scenario.weather], Math.floor(this.startHour + time / msPerHour + 1e-9))
  }

  /** Time goes on to `time`; everything warms or cools. */
  passTo(time: number): void {
    if (!this.course || time <= this.now) {
      this.now = Math.max(this.now, time)
      return
    }
    const hours = (time - this.courseFrom) / msPerHour
    const at = this.course.at(hours)
    this.book(hours)
    this.free.forEach((lump, i) => (this.celsius[lump] = at[i]))
    this.now = time
    this.bookedHours = hours
  }

  /** Books the heat that moved since it was last booked. */
  private book(hours: number): void {
    const { lumps, circuit } = this
    const sums = this.course!.integral(hours)
    const dh = hours - this.bookedHours
    const before = this.bookedSums
    const summed = new Float64Array(lumps.capacities.length)
    for (let l = 0; l < summed.length; l++) summed[l] = this.celsius[l] * dh
    this.free.forEach((lump, i) => (summed[lump] = sums[i] - (before ? before[i] : 0)))
    this.bookedSums = sums
    const outside = this.outdoorsAt(this.courseFrom)
    lumps.rooms.forEach(({ lump, lossWPerK, gainsW }, i) => {
      this.lost[i] += lossWPerK * (summed[lump] - outside * dh)
      this.gains += gainsW * dh
    })
    lumps.stores.forEach(({ lump, loses }, i) => {
      this.storeLost[i] += loses * (summed[lump] - ambient * dh)
      this.drawn += this.draws[i] * 60 * whPerLitre * (summed[lump] - mainsCelsius * dh)
    })
    circuit.water.sources.forEach((_, s) => {
      if (this.watts[s] !== HOLDING) this.brought[s] += this.watts[s] * dh
      else this.brought[s] += this.flowTo(s, summed)
    })
  }

  /** Heat from a source's water into everything joined to it: W of temperatures, Wh of their sums. */
  private flowTo(source: number, of: Float64Array): number {
    const lump = this.lumps.sourceLump[source]!
    return this.joints.reduce((sum, { a, b, g }) => {
      if (a === lump) return sum + g * (of[a] - of[b])
      if (b === lump) return sum + g * (of[b] - of[a])
      return sum
    }, 0)
  }

  get ledger(): Ledger {
    const { capacities, start } = this.lumps
    const stored = this.celsius.reduce((sum, t, i) => sum + capacities[i] * (t - start[i]), 0)
    const { brought, gains, lost, storeLost, drawn } = this
    return { brought, gains, lost, storeLost, drawn, stored }
  }

  /** Looks at what goes on; a new course is worked out where it has changed. */
  update(activity: PlantActivity, watches: readonly Watch[]): void {
    this.joints = this.jointsOf(activity)
    this.updateBurners(activity)
    this.updateRising()
    const { circuit } = this
    const g = this.joints.map((j) => j.g.toPrecision(6)).join()
    const draws = circuit.water.stores.map((_, i) => activity.draws(i)).join()
    const key = `${this.burners.join()}|${this.watts.join()}|${g}|${draws}|${this.hourOf(this.now)}|${this.aims(activity)}`
    const watchKey = watches.map((w) => `${w.lump} ${w.celsius} ${w.rising}`).join()
    if (key === this.key && watchKey === this.watchKey && this.course && this.now < this.next) return
    if (key !== this.key || !this.course) this.plan(activity)
    this.key = key
    this.watchKey = watchKey
    this.findNext(activity, watches)
  }

  private aims(activity: PlantActivity): string {
    return this.circuit.water.sources.map((_, s) => activity.aim(s) ?? '').join()
  }

  private hourOf(time: number): number {
    return Math.floor(this.startHour + time / msPerHour + 1e-9)
  }

  /** Everything that passes heat to something else just now, W/K. */
  private jointsOf({ flows, gives }: PlantActivity): Joint[] {
    const { water } = this.circuit
    const { lumps } = this
    const joints: Joint[] = []
    const shares = sharesOf(water, flows)
    water.emitters.forEach(({ way }, e) => {
      lumps.sourceLump.forEach((source, s) => {
        const g = shares[e][s] * Math.abs(flows[way]) * whPerLitre
        if (source !== undefined && g > 0) joints.push({ a: source, b: lumps.emitterLump[e], g })
      })
      if (gives(e)) joints.push({ a: lumps.emitterLump[e], b: lumps.warms[e], g: lumps.emitterPerKelvin[e] })
    })
    return joints
  }

  private updateBurners(activity: PlantActivity): void {
    this.circuit.water.sources.forEach(({ way, most, least, part }, s) => {
      const lump = this.lumps.sourceLump[s]
      const carried = way === undefined || Math.abs(activity.flows[way]) >= noFlow || part.mindsItself === true
      const { burner, watts } = nextBurner({
        before: this.burners[s],
        mayHeat: activity.heats(s),
        aim: lump === undefined ? undefined : activity.aim(s),
        carried,
        celsius: lump === undefined ? 0 : this.celsius[lump],
        needed: lump === undefined ? 0 : this.flowTo(s, this.celsius),
        most,
        least,
      })
      this.burners[s] = burner
      this.watts[s] = watts
    })
  }

  private updateRising(): void {
    const { water } = this.circuit
    water.emitters.forEach(({ rise }, e) => {
      if (rise <= 0) return
      const apart = this.hottest() - this.celsius[this.lumps.emitterLump[e]]
      this.rising[e] = apart >= (this.rising[e] ? stopsRising : rises) ? 1 : 0
    })
  }
  private hottest(): number {
    return Math.max(...this.lumps.sourceLump.map((l) => (l === undefined ? -Infinity : this.celsius[l])))
  }

  /** Works out how temperatures go on from now. */
  private plan(activity: PlantActivity): void {
    const { lumps, circuit, joints } = this
    const held = new Set(lumps.sourceLump.filter((l, s) => l !== undefined && this.burners[s] === 'holds'))
    this.free = Array.from(lumps.capacities.keys()).filter((l) => !held.has(l))
    const place = new Map(this.free.map((l, i) => [l, i]))
    const n = this.free.length
    const matrix = new Float64Array(n * n)
    const watts = new Float64Array(n)
    const toward = (lump: number, g: number, celsius: number) => {
      const i = place.get(lump)
      if (i === undefined) return
      matrix[i * n + i] += g
      watts[i] += g * celsius
    }
    for (const { a, b, g } of joints) {
      const [i, j] = [place.get(a), place.get(b)]
      if (i !== undefined && j !== undefined) {
        matrix[i * n + i] += g
        matrix[j * n + j] += g
        matrix[i * n + j] -= g
        matrix[j * n + i] -= g
      } else if (i !== undefined) toward(a, g, this.celsius[b])
      else if (j !== undefined) toward(b, g, this.celsius[a])
    }
    const outside = this.outdoorsAt(this.now)
    for (const { lump, lossWPerK, gainsW } of lumps.rooms) {
      toward(lump, lossWPerK, outside)
      watts[place.get(lump)!] += gainsW
    }
    lumps.stores.forEach(({ lump, loses }, i) => {
      toward(lump, loses, ambient)
      toward(lump, activity.draws(i) * 60 * whPerLitre, mainsCelsius)
    })
    circuit.water.sources.forEach((_, s) => {
      const lump = lumps.sourceLump[s] ?? lumps.heats[s]
      const i = lump === undefined ? undefined : place.get(lump)
      if (i !== undefined && this.watts[s] > 0) watts[i] += this.watts[s]
    })
    this.course = this.modes(matrix).from(
      Float64Array.from(this.free, (l) => this.celsius[l]),
      watts,
    )
    this.draws = circuit.water.stores.map((_, i) => activity.draws(i))
    this.courseFrom = this.now
    this.bookedHours = 0
    this.bookedSums = undefined
  }

  private modes(matrix: Float64Array): Modes {
    let known = modesOf.get(this.circuit)
    if (!known) modesOf.set(this.circuit, (known = new Map<string, Modes>()))
    const key = `${this.scenario.house} ${this.free.join()} ${Array.from(matrix, (g) => g.toPrecision(7)).join()}`
    let modes = known.get(key)
    if (!modes) {
      if (known.size > 2000) known.clear()
      modes = new Modes(
        Float64Array.from(this.free, (l) => this.lumps.capacities[l]),
        matrix,
      )
      known.set(key, modes)
    }
    return modes
  }

  /** When something next happens by itself: a threshold crossed, a burner that turns, the next hour's weather. */
  private findNext(activity: PlantActivity, watches: readonly Watch[]): void {
    const { lumps, circuit } = this
    const place = new Map(this.free.map((l, i) => [l, i]))
    const begun = (this.now - this.courseFrom) / msPerHour
    const toHour = ((this.hourOf(this.now) + 1 - this.startHour) * msPerHour - this.now) / msPerHour
    let soonest = Math.min(horizonHours, toHour)
    const look = (terms: [lump: number, weight: number][], offset: number) => {
      const weights = new Float64Array(this.free.length)
      let constant = offset
      for (const [lump, weight] of terms) {
        const i = place.get(lump)
        if (i === undefined) constant += weight * this.celsius[lump]
        else weights[i] += weight
      }
      const f = this.course!.sum(weights)
      const at = firstAtLeastZero((h) => f(begun + h) + constant, soonest)
      // What is past it already was dealt with just now, or is about to be by who watches.
      if (at > 0 && at < soonest) soonest = at
    }
    for (const { lump, celsius, rising } of watches) look([[lump, rising ? 1 : -1]], rising ? -celsius : celsius)
    circuit.water.sources.forEach(({ most, least, limit }, s) => {
      const lump = lumps.sourceLump[s]
      if (lump === undefined) return
      const aim = activity.aim(s)
      if (this.burners[s] === 'blind') look([[lump, 1]], -limit)
      if (aim === undefined) return
      const needs = this.joints.flatMap(({ a, b, g }): [number, number][] =>
        a === lump
          ? [
              [a, g],
              [b, -g],
            ]
          : b === lump
            ? [
                [b, g],
                [a, -g],
              ]
            : [],
      )
      const fewer = needs.map(([l, w]): [number, number] => [l, -w])
      if (this.burners[s] === 'full') {
        look([[lump, 1]], -aim)
        // At its aim and short of heat its water cools first: it is looked at again when it no longer does.
        look(fewer, most)
      }
      if (this.burners[s] === 'rests') look([[lump, -1]], aim - restart)
      if (this.burners[s] === 'holds') {
        look(needs, -most)
        look(fewer, least)
      }
    })
    circuit.water.emitters.forEach(({ rise }, e) => {
      if (rise <= 0) return
      const lump = lumps.emitterLump[e]
      const source = lumps.sourceLump.find((l) => l !== undefined && this.celsius[l] === this.hottest())
      if (source === undefined) return
      if (this.rising[e])
        look(
          [
            [lump, 1],
            [source, -1],
          ],
          stopsRising,
        )
      else
        look(
          [
            [source, 1],
            [lump, -1],
          ],
          -rises,
        )
    })
    this.next = Math.max(this.now + 1, Math.ceil(this.now + soonest * msPerHour - 1e-6))
  }
}

interface Joint {
  a: number
  b: number
  /** W/K. */
  g: number
}
