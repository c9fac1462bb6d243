import { wiringText, type Circuit } from '../circuit'
import { circuitOfVariant, restOf, type Hypothesis } from '../hypotheses'
import { nth } from '../lists'
import { Simulation } from '../simulation'
import { Noticing } from './complaints'
import { DrawnWiring } from './drawn-wiring'
import { causesOf, type Suspect } from './suspects'

/** Installations that are joined alike, with the same wrong with them: they can do and show nothing that differs. */
export type Kind = number

/**
 * Every suspect's installation at rest, as somebody would find it. Suspects whose conductors join the same are one kind, and
 * worked out once; what has been worked out is kept for every log that starts here.
 */
export class Ground {
  /** Per suspect its kind; that of one without a hypothesis is its own. */
  readonly kindOf: readonly Kind[]
  /** What each of them looks like beside the drawing. */
  readonly wiring: DrawnWiring
  private readonly rests: (Simulation | undefined)[] = []
  private readonly noticings: (Noticing | undefined)[] = []
  private readonly members: number[] = []
  /** How the conductors of a kind lie, from when that was worked out until it has been brought to rest. */
  private readonly owns = new Map<Kind, Circuit>()
  private oneByOne?: Ground

  constructor(
    readonly circuit: Circuit,
    readonly suspects: readonly Suspect[],
    /** With nothing wrong. Not to be changed: fork it. */
    readonly whole = new Simulation(circuit),
    /** The same suspects, those that are joined alike together; undefined: this is it. */
    private readonly joined?: Ground,
    /** Per suspect how its conductors lie, and that at rest, where it is known already. */
    private readonly made: readonly { own: Circuit; rest?: Simulation }[] = [],
  ) {
    this.wiring = joined?.wiring ?? new DrawnWiring(circuit.installation)
    const kinds = new Map<string, Kind>()
    this.kindOf = suspects.map((suspect, i) => {
      const own =
        !joined && onlyRewired(suspect)
          ? (made[i]?.own ?? circuitOfVariant(circuit, suspect.hypothesis.variant))
          : undefined
      const key = own ? wiringText(own) : `only ${suspect.id}`
      const known = kinds.get(key)
      if (known !== undefined) return known
      if (own) this.owns.set(kinds.size, own)
      this.members.push(i)
      kinds.set(key, kinds.size)
      return kinds.size - 1
    })
  }

  /**
   * Every suspect a kind of its own: what joins the same by other conductors comes apart where one of them is lifted. Told by
   * {@link partsConductors}.
   */
  get apart(): Ground {
    if (this.joined) return this
    return (this.oneByOne ??= new Ground(this.circuit, this.suspects, this.whole, this))
  }

  /** How the conductors of a suspect lie, where it was worked out with others that are joined alike; else undefined. */
  ownCircuitOf(suspect: number): Circuit | undefined {
    const { hypothesis } = nth(this.suspects, suspect)
    const isFirst = nth(this.members, nth(this.kindOf, suspect)) === suspect
    return hypothesis && !isFirst ? circuitOfVariant(this.circuit, hypothesis.variant) : undefined
  }

  /** How many kinds there are. */
  get kinds(): number {
    return this.members.length
  }

  /** Not to be changed: fork it. */
  restOf(kind: Kind): Simulation {
    return (this.rests[kind] ??= this.broughtToRest(kind))
  }

  /** What a customer would have noticed of it. */
  noticing(kind: Kind): Noticing {
    return (this.noticings[kind] ??= new Noticing(this.restOf(kind)))
  }

  private broughtToRest(kind: Kind): Simulation {
    const suspect = nth(this.members, kind)
    if (this.joined) {
      const rest = this.joined.restOf(nth(this.joined.kindOf, suspect))
      const own = this.joined.ownCircuitOf(suspect)
      return own ? rest.rewired(own) : rest
    }
    const { hypothesis } = nth(this.suspects, suspect)
    if (!hypothesis) return this.whole
    const own = this.owns.get(kind)
    this.owns.delete(kind)
    return restOf(this.circuit, hypothesis.variant, this.whole, this.made[suspect] ?? (own && { own }))
  }
}

/** Is nothing wrong but how conductors and links lie? */
function onlyRewired(suspect: Suspect): suspect is Suspect & { hypothesis: Hypothesis } {
  const { variant } = suspect.hypothesis ?? {}
  if (!variant?.change || variant.defects.length > 0 || variant.start.length > 0) return false
  return causesOf(suspect).every(({ kind }) => kind !== 'setting' && kind !== 'start')
}
