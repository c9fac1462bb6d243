import type { BusRequest } from '../catalogue'
import type { ElectricalAnswer, Circuit } from '../circuit'

/** What travels from a controller: that it is there, and what it asks for. */
const THERE = 1
const bits: Record<BusRequest, number> = { heating: 2, 'hot-water': 4 }

/** How a controller's link stands, for whoever looks at the bus. */
export interface BusReading {
  controller: number
  /** The boiler's port it is joined to by both wires; undefined where by none or one. */
  boiler?: number
  /** Do the two hear each other? */
  linked: boolean
  asks: BusRequest[]
  /** The last change is on its way and not answered yet. */
  waiting: boolean
}

/** What every port says and hears. A change takes its seconds to arrive. */
export class Bus {
  /** Per controller port, what the boiler has of it. */
  readonly said: Uint8Array
  /** Per controller port, when its last change arrives, ms; Infinity where nothing is on its way. */
  readonly due: Float64Array
  /** Per controller port, the boiler's port it is or was last joined to. */
  readonly peer: Int16Array

  constructor(
    private readonly circuit: Circuit,
    from?: Bus,
  ) {
    const n = circuit.buses.length
    this.said = from ? from.said.slice() : new Uint8Array(n)
    this.due = from ? from.due.slice() : new Float64Array(n).fill(Infinity)
    this.peer = from ? from.peer.slice() : new Int16Array(n).fill(-1)
  }

  nextAt(): number {
    return this.due.reduce((next, due) => Math.min(next, due), Infinity)
  }

  /** What arrives at `now`, and what sets out. Says which links came up or went down. */
  update(
    now: number,
    answer: ElectricalAnswer,
    energised: (load: number) => boolean,
    silent: (port: number) => boolean,
    asking: (port: number, request: BusRequest) => boolean,
    changed: (port: number, linked: boolean) => void,
  ): void {
    const { buses } = this.circuit
    const up = (port: number) => {
      const { powered, heard } = buses[port]
      return energised(powered) && (heard === undefined || energised(heard)) && !silent(port)
    }
    buses.forEach(({ part, answerMs }, i) => {
      if (part.role !== 'controller') return
      const peer = up(i)
        ? buses.findIndex((b, k) => b.part.role === 'boiler' && up(k) && this.joined(answer, i, k))
        : -1
      let wanted = 0
      if (peer >= 0) {
        this.peer[i] = peer
        wanted = THERE
        for (const request of Object.keys(part.requests ?? {}) as BusRequest[])
          if (asking(i, request)) wanted |= bits[request]
      }
      if (this.due[i] <= now) {
        const before = this.said[i] & THERE
        this.said[i] = wanted
        if (before !== (wanted & THERE)) changed(i, wanted !== 0)
      }
      if (wanted === this.said[i]) this.due[i] = Infinity
      else if (!(this.due[i] > now && this.due[i] < Infinity)) this.due[i] = now + answerMs
    })
  }

  linked(port: number): boolean {
    return (this.said[port] & THERE) !== 0
  }

  hears(port: number, request: BusRequest): boolean {
    return this.said.some((said, i) => this.peer[i] === port && (said & bits[request]) !== 0)
  }

  readings(answer: ElectricalAnswer): BusReading[] {
    return this.circuit.buses.flatMap(({ part }, i): BusReading[] => {
      if (part.role !== 'controller') return []
      const boiler = this.circuit.buses.findIndex((b, k) => b.part.role === 'boiler' && this.joined(answer, i, k))
      const asks = (Object.keys(bits) as BusRequest[]).filter((request) => (this.said[i] & bits[request]) !== 0)
      const waiting = this.due[i] < Infinity
      return [{ controller: i, boiler: boiler < 0 ? undefined : boiler, linked: this.linked(i), asks, waiting }]
    })
  }

  private joined({ linked }: ElectricalAnswer, one: number, other: number): boolean {
    return linked[one * this.circuit.buses.length + other] === 1
  }
}
