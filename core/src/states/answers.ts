import { electricsOf, FED, LINE, RETURN, shortCircuit, type Circuit, type Electrics } from '../circuit'
import { damageKey, type DamageState } from '../simulation'

/** What the electrical answer for one state of the contacts says that matters here. */
export interface Answer {
  short: boolean
  /** Of the mains: line joined to neutral or earth. */
  mainsShort: boolean
  /** Is a terminal that must stay at extra-low voltage joined to the mains' line? The first such atom, else −1. */
  mainsAt: number
  /** Per load: 0 below its drop-out, 1 between, 2 from its pull-in. */
  volts: Uint8Array
  /** Per load: do half-waves hold its rotor? */
  held: Uint8Array
  /** A load under more volts than it withstands, else −1. */
  burnt: number
  /** Kept only where bus ports look at nets. */
  electrics?: Electrics
}

export const LOW = 0
export const MIDDLE = 1
export const WORKING = 2

/** The electrical answers of one installation with its damage, each worked out once. */
export class Answers {
  private readonly known = new Map<string, Answer>()
  private readonly damaged: string
  private readonly extraLow: number[]

  constructor(
    private readonly circuit: Circuit,
    private readonly damage: DamageState,
  ) {
    this.damaged = damageKey(damage)
    this.extraLow = circuit.devices.flatMap(({ type, device }) =>
      type.terminals.filter((t) => t.extraLow).map((t) => circuit.atomIndex.get(`${device.id}.${t.id}`)!),
    )
  }

  /** The answer for contacts that stand so. */
  of(closed: Uint8Array): Answer {
    let key = ''
    for (let i = 0; i < closed.length; i += 16) {
      let bits = 0
      for (let k = 0; k < 16 && i + k < closed.length; k++) bits |= closed[i + k] << k
      key += String.fromCharCode(bits)
    }
    let found = this.known.get(key)
    if (!found) this.known.set(key, (found = this.solve(closed, `${key}|${this.damaged}`)))
    return found
  }

  private solve(closed: Uint8Array, key: string): Answer {
    const { circuit, damage } = this
    const electrics = electricsOf(circuit, { ...damage, closed }, key)
    const { netOf, poles } = electrics.nets
    const volts = new Uint8Array(circuit.loads.length)
    const held = new Uint8Array(circuit.loads.length)
    let burnt = -1
    circuit.loads.forEach(({ pullsIn, dropsOut, holdsOn, withstands }, i) => {
      const v = electrics.loadVolts[i]
      volts[i] = damage.openLoads[i] || v < dropsOut ? LOW : v < pullsIn ? MIDDLE : WORKING
      held[i] = !damage.openLoads[i] && electrics.loadMeans[i] >= holdsOn ? 1 : 0
      if (v > withstands && !damage.openLoads[i]) burnt = i
    })
    const mainsShort = shortCircuit(circuit, electrics.nets)
    return {
      short: mainsShort || secondariesShorted(circuit, electrics),
      mainsShort,
      mainsAt: this.extraLow.find((atom) => poles[netOf[atom]] & LINE) ?? -1,
      volts,
      held,
      burnt,
      ...(circuit.buses.length > 0 && { electrics }),
    }
  }
}

/** Are both sides of a transformer's secondary in one net? */
const secondariesShorted = ({ transformers }: Circuit, { nets: { netOf, poles } }: Electrics): boolean =>
  transformers.some(({ fed }) => (poles[netOf[fed]] & (FED | RETURN)) === (FED | RETURN))
