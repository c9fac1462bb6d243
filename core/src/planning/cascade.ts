import { nth } from '../lists'
import { allocated, CentreTooSmall, type Allocation, type Joined, type Spare } from './allocate'
import { centreKind, type CentreKindId } from './centres'

/** Conductors that are to be joined, in whichever box their cables come to. */
export interface JoinedAnywhere extends Joined {
  /** Extra-low voltage: what joins it from box to box lies in a cable of its own. */
  extraLow?: boolean
}

/** One box of several. */
export interface Box extends Omit<Allocation, 'places' | 'spares'> {
  /** Per function and conductor its terminal, where it is in this box. */
  places: (number | undefined)[][]
  /** Per spare conductor its terminal, where it is in this box and has one. */
  spares: (number | undefined)[]
}

/** A cable from one box to the next, and what each of its conductors joins, by the numbers of functions and terminals. */
export interface Joint {
  /** The box it goes out from; it goes to the next. */
  from: number
  extraLow: boolean
  conductors: { function: number; between: [number, number] }[]
}

export interface Cascade {
  boxes: Box[]
  joints: Joint[]
}

/** Conductors of a cable between two boxes: five cores, one of which is earth; of extra-low voltage four. */
const mostJoined = { mains: 4, extraLow: 4 } as const
const mostBoxes = 8
const mostRounds = 6

/**
 * Wiring in as few boxes of a kind as take it. All cables of a device come to one box; what conductors in several boxes have in common
 * is joined from each box to the next. Of the ways to divide them found, the one with the fewest boxes, then the fewest conductors
 * between them, then the fewest terminals: the best division of the devices in the order in which they are named, gone on from by
 * moving one device at a time to another place in that order, as long as that helps.
 *
 * @param devices per device the cables that come from it, in the order in which they are named
 * @throws CentreTooSmall where more boxes than eight would be needed, or no box takes a single device
 */
export function cascaded(
  functions: readonly JoinedAnywhere[],
  spares: readonly Spare[],
  kind: CentreKindId,
  devices: readonly (readonly string[])[],
): Cascade {
  const used = devices
    .map((cables): OfDevice => ({
      cables,
      conductors: functions.map(({ from }) => from.filter((cable) => cables.includes(cable)).length),
      live: spares.filter(({ live, from }) => live && cables.includes(from)).length,
      spare: spares.filter(({ from }) => cables.includes(from)).length,
    }))
    .filter(({ conductors, spare }) => spare > 0 || conductors.some((n) => n > 0))
  const division = (order: readonly number[]) =>
    new Division(
      functions,
      spares,
      kind,
      order.map((device) => nth(used, device)),
    )
  // Names are typed letter by letter, and change nothing of how it is divided.
  const key = JSON.stringify([
    kind,
    used.map(({ conductors, live }) => [conductors, live]),
    functions.map(kindOfFunction),
  ])
  const order = orders.get(key) ?? bestOrder(used.length, (one) => division(one).cost)
  if (orders.size >= mostKnown) orders.clear()
  orders.set(key, order)
  const best = division(order)
  if (best.cost === Infinity) throw new CentreTooSmall(kind, best.needed(0, used.length))
  return best.laid()
}

const orders = new Map<string, readonly number[]>()
const mostKnown = 100
const kindOfFunction = ({ id, extraLow }: JoinedAnywhere) => (extraLow ? 'low' : id === 'E' ? 'earth' : 'mains')

/** From the order in which they are named on, one device at a time is moved to another place in it, as long as that helps. */
function bestOrder(devices: number, costOf: (order: readonly number[]) => number): readonly number[] {
  let best = Array.from({ length: devices }, (_, device) => device)
  let least = costOf(best)
  for (let helps = true, round = 0; helps && round < mostRounds; round++) {
    helps = false
    // The supply comes to the first box.
    for (let from = 1; from < devices; from++)
      for (let to = 1; to < devices; to++) {
        if (from === to) continue
        const order = [...best]
        order.splice(to, 0, ...order.splice(from, 1))
        const cost = costOf(order)
        if (!(cost < least)) continue
        ;[best, least, helps] = [order, cost, true]
      }
  }
  return best
}

/** A conductor between the boxes outweighs any number of terminals, and a box any number of conductors. */
const weights = { box: 1e6, conductor: 1e3, terminal: 1 } as const

/** What comes from a device: its cables, and what conductors are in them. */
interface OfDevice {
  cables: readonly string[]
  /** Per function. */
  conductors: readonly number[]
  /** Spare ones that may be live. */
  live: number
  /** All that are spare. */
  spare: number
}

/** The best way to divide devices, in one order, among boxes: each box takes some that follow each other. */
class Division {
  readonly cost: number
  /** Where the devices of each box begin, the first at 0. */
  private readonly cuts: readonly number[]
  /** Per function, how many of its conductors come from the devices before each. */
  private readonly before: number[][]
  private readonly liveBefore: number[]
  private readonly boxOfCable = new Map<string, number>()
  private readonly ways: number

  constructor(
    private readonly functions: readonly JoinedAnywhere[],
    private readonly spares: readonly Spare[],
    private readonly kind: CentreKindId,
    readonly devices: readonly OfDevice[],
  ) {
    this.ways = centreKind(kind).ways
    const counted = (count: (device: OfDevice) => number): number[] => {
      const sums = [0]
      for (const device of devices) sums.push((sums.at(-1) ?? 0) + count(device))
      return sums
    }
    this.before = functions.map((_, f) => counted(({ conductors }) => nth(conductors, f)))
    this.liveBefore = counted(({ live }) => live)
    ;({ cuts: this.cuts, cost: this.cost } = this.best())
    devices.forEach(({ cables }, i) => {
      const box = this.cuts.findLastIndex((from) => from <= i)
      for (const cable of cables) this.boxOfCable.set(cable, box)
    })
  }

  /** Box after box: what is joined at a cut hangs on no other. */
  private best(): { cuts: number[]; cost: number } {
    const n = this.devices.length
    const { terminals: has = Infinity } = centreKind(this.kind)
    /** Boxes that hold what comes to them, by where they end. */
    const boxes: { from: number; cost: number }[][] = []
    for (let to = 1; to <= n; to++) {
      const ending: { from: number; cost: number }[] = []
      // With a device more it takes no fewer, whatever is joined.
      for (let from = to - 1; from >= 0 && this.taken(from, to) <= has; from--) {
        const needed = this.needed(from, to)
        if (needed > has) continue
        const joined = from > 0 ? this.joined(from) : 0
        ending.push({ from, cost: weights.box + needed * weights.terminal + joined * weights.conductor })
      }
      boxes[to] = ending
    }
    /** By where the last box ends: the least cost up to there, and where that box begins. */
    const least = new Float64Array(n + 1).fill(Infinity)
    const begins = new Int32Array(n + 1)
    least[0] = 0
    for (let to = 1; to <= n; to++)
      for (const { from, cost } of nth(boxes, to))
        if (nth(least, from) + cost < nth(least, to)) {
          least[to] = nth(least, from) + cost
          begins[to] = from
        }
    const cuts: number[] = []
    if (nth(least, n) < Infinity) for (let to = n; to > 0; to = nth(begins, to)) cuts.unshift(nth(begins, to))
    return cuts.length > mostBoxes || cuts.length === 0 ? { cuts: [0], cost: Infinity } : { cuts, cost: nth(least, n) }
  }

  private joined(at: number): number {
    return this.crossing(at).reduce((sum, n) => sum + n, 0)
  }

  /** How many terminals a box takes with the devices from one up to another, with what joins it to the boxes beside it. */
  needed(from: number, to: number): number {
    return this.taken(from, to, this.crossing(from), this.crossing(to))
  }

  private taken(from: number, to: number, one?: Uint8Array, other?: Uint8Array): number {
    const { before, liveBefore, ways } = this
    let sum = nth(liveBefore, to) - nth(liveBefore, from)
    for (let f = 0; f < before.length; f++) {
      const own = before[f]
      sum += Math.ceil((own[to] - own[from] + (one ? one[f] : 0) + (other ? other[f] : 0)) / ways)
    }
    return sum
  }

  /** Per function, how many conductors join it at a cut. */
  private crossing(at: number): Uint8Array {
    let counts = this.crossings[at]
    if (!counts) {
      counts = new Uint8Array(this.functions.length)
      for (const { functions } of this.jointsAt(at)) for (const f of functions) counts[f] = nth(counts, f) + 1
      this.crossings[at] = counts
    }
    return counts
  }
  private readonly crossings: Uint8Array[] = []

  /** The cables from the box that ends before a device to the one that begins with it: of each, the functions that it joins. */
  private jointsAt(at: number): { extraLow: boolean; functions: number[] }[] {
    this.joints[at] ??= this.jointsMade(at)
    return this.joints[at]
  }
  private readonly joints: { extraLow: boolean; functions: number[] }[][] = []

  private jointsMade(at: number): { extraLow: boolean; functions: number[] }[] {
    const earth = this.functions.findIndex(({ id }) => id === 'E')
    const crossing = this.before.flatMap((before, f) =>
      nth(before, at) > 0 && nth(before, at) < (before.at(-1) ?? 0) ? [f] : [],
    )
    const isLow = (f: number) => nth(this.functions, f).extraLow === true
    const mains = crossing.filter((f) => !isLow(f) && f !== earth)
    // Each cable with mains in it has an earth.
    const carried =
      mains.length === 0 && crossing.includes(earth)
        ? [[earth]]
        : inParts(mains, mostJoined.mains).map((part) => (earth < 0 ? part : [...part, earth]))
    return [
      ...carried.map((functions) => ({ extraLow: false, functions })),
      ...inParts(crossing.filter(isLow), mostJoined.extraLow).map((functions) => ({ extraLow: true, functions })),
    ]
  }

  laid(): Cascade {
    const joints = this.cuts.slice(1).flatMap((at, from) => this.jointsAt(at).map((joint) => ({ ...joint, from })))
    const name = (j: number) => `joint ${j}`
    /** Per joint and function its terminals in the two boxes. */
    const ends = joints.map(({ functions }) => functions.map((): [number, number] => [-1, -1]))
    const isIn = (box: number, cable: string) => this.boxOfCable.get(cable) === box
    const boxes = this.cuts.map((_, box): Box => {
      const here = this.functions.map(({ id, legend, from }, f) => {
        const own = from.flatMap((cable, i) => (isIn(box, cable) ? [{ cable, i }] : []))
        const crossing = joints.flatMap((one, j) =>
          (one.from === box || one.from === box - 1) && one.functions.includes(f) ? [j] : [],
        )
        return { id, legend, f, own, crossing }
      })
      const inUse = here.filter(({ own, crossing }) => own.length + crossing.length > 0)
      const spares = this.spares.flatMap((spare, s) => (isIn(box, spare.from) ? [{ spare, s }] : []))
      const { terminals, links, ...laid } = allocated(
        inUse.map(({ id, legend, own, crossing }) => ({
          id,
          legend,
          from: [...own.map(({ cable }) => cable), ...crossing.map(name)],
        })),
        spares.map(({ spare }) => spare),
        this.kind,
      )
      const places = this.functions.map(({ from }) => from.map((): number | undefined => undefined))
      inUse.forEach(({ f, own, crossing }, i) => {
        const at = nth(laid.places, i)
        own.forEach((one, n) => (nth(places, f)[one.i] = nth(at, n)))
        crossing.forEach((j, n) => {
          const { from, functions } = nth(joints, j)
          nth(nth(ends, j), functions.indexOf(f))[from === box ? 0 : 1] = nth(at, own.length + n)
        })
      })
      const parked = this.spares.map((): number | undefined => undefined)
      spares.forEach(({ s }, i) => (parked[s] = laid.spares[i]))
      // Counted on from box to box: wherever a number stands alone, it is of one terminal.
      const counted = terminals.map((terminal, i) => ({ ...terminal, id: String(box * terminals.length + i + 1) }))
      return { terminals: counted, links, places, spares: parked }
    })
    return {
      boxes,
      joints: joints.map(({ from, extraLow, functions }, j) => ({
        from,
        extraLow,
        conductors: functions.map((f, i) => ({ function: f, between: nth(nth(ends, j), i) })),
      })),
    }
  }
}

const inParts = <T>(all: readonly T[], most: number): T[][] =>
  Array.from({ length: Math.ceil(all.length / most) }, (_, i) => all.slice(i * most, (i + 1) * most))
