import { coreName, endText, terminalText, typeIn } from '../catalogue'
import type { FirstDone } from '../planning'
import type { Cable, Colour, Core, Device, End, Installation } from '../installation'

/** What a hand does at one place, at one time. */
export interface TerminationStep {
  /** Says what is done and where it ends: a step of other wiring is another step. */
  id: string
  do: 'link' | 'cut-link' | 'land' | 'park' | 'cut-back' | 'join' | 'clamp' | 'close'
  /** The terminal as it is printed there; of a link both. */
  terminal?: string
  legend?: string
  cable?: string
  core?: { colour: Colour; sleeve?: Colour; name: string }
  /** Where the other end is; of a link, what it joins. */
  purpose: string
}

/** What is done in one go: a cable at a wiring centre, a device at its far end. */
export interface TerminationStage {
  id: string
  title: string
  /** Where somebody stands for it. */
  place: string
  steps: TerminationStep[]
}

/**
 * The order in which the conductors of an installation are terminated. In each wiring centre what is said comes first; then cable by cable, a conductor alone in its terminal before those that share one and hide each other, reserves after them, and
 * the clamp on the sheath; then device by device at the far ends; covers come last. Ends that nobody has found are left out, and
 * what the maker of a device has joined to it.
 */
export function terminationOrder(installation: Installation, first: FirstDone = 'links'): TerminationStage[] {
  const order = new Order(installation)
  const stages = installation.wiringCentres.flatMap(({ id }) => {
    const links = order.linksAt(id)
    const { supplies, others, mains } = order.cablesAt(id, first === 'mains')
    return first === 'supply' ? [...supplies, links, ...others] : [links, ...supplies, mains, ...others]
  })
  return [
    ...stages,
    ...installation.connectors.map(({ id }) => order.connector(id)),
    ...installation.devices.map(({ id }) => order.device(id)),
    ...order.covers(),
  ].filter(({ steps }) => steps.length > 0)
}

interface EndOf {
  cable: Cable
  core: Core
  end: 0 | 1
  at: End
}

class Order {
  private readonly ends: EndOf[]
  /** How many conductors are in a terminal. */
  private readonly crowd = new Map<string, number>()
  private readonly supplies: ReadonlySet<string>
  /** Terminals of wiring centres that are joined with a conductor of the supply, in their own box or the next. */
  private readonly onMains: ReadonlySet<string>

  constructor(private readonly installation: Installation) {
    const { devices, cables } = installation
    // The near end of a device's own lead is its maker's work.
    const isMade = (cable: Cable, at: End) =>
      cable.leadOf !== undefined && 'terminal' in at && ownerOf(at.terminal) === cable.leadOf
    this.ends = cables.flatMap((cable) =>
      cable.cores.flatMap((core) =>
        ([0, 1] as const).flatMap((end): EndOf[] => {
          const at = core.ends[end]
          if (at.at === 'loose' || at.at === 'unknown' || isMade(cable, at)) return []
          return [{ cable, core, end, at }]
        }),
      ),
    )
    for (const { at } of this.ends)
      if ('terminal' in at) this.crowd.set(at.terminal, (this.crowd.get(at.terminal) ?? 0) + 1)
    const feeds = ({ type }: Device) => typeIn(installation, type).primitives.some(({ kind }) => kind === 'source')
    this.supplies = new Set(devices.filter(feeds).map(({ id }) => id))
    this.onMains = this.joinedWith(this.ends.filter(({ cable }) => this.isSupply(cable)).map(({ at }) => at))
  }

  private isSupply({ cores }: Cable): boolean {
    return cores.some(({ ends }) => ends.some((e) => 'terminal' in e && this.supplies.has(ownerOf(e.terminal))))
  }

  /** What links, conductors in the boxes and from one to another, and fuses in them join with the first ones. */
  private joinedWith(first: readonly End[]): ReadonlySet<string> {
    const { wiringCentres, devices, links, cables } = this.installation
    const primitivesOf = ({ type }: Device) => typeIn(this.installation, type).primitives
    const fuses = devices.filter((device) => primitivesOf(device).every(({ kind }) => kind === 'fuse'))
    const throughFuses = fuses.flatMap((fuse) =>
      primitivesOf(fuse).flatMap((one) =>
        one.kind === 'fuse' ? [[one.a, one.b].map((pole) => `${fuse.id}.${pole}`)] : [],
      ),
    )
    const inBoxes = new Set([...wiringCentres, ...fuses].map(({ id }) => id))
    const terminalsOf = ({ ends }: Core) => ends.flatMap((end) => ('terminal' in end ? [end.terminal] : []))
    const joints = [
      ...links.filter(({ kind }) => kind !== 'cut').map(({ between }) => between),
      ...cables.flatMap(({ cores }) => cores.map(terminalsOf).filter((refs) => refs.length === 2)),
      ...throughFuses,
    ].filter((refs) => refs.every((ref) => inBoxes.has(ownerOf(ref))))
    const reached = new Set(first.flatMap((end) => ('terminal' in end ? [end.terminal] : [])))
    for (let before = -1; before < reached.size;) {
      before = reached.size
      for (const refs of joints) if (refs.some((ref) => reached.has(ref))) refs.forEach((ref) => reached.add(ref))
    }
    return reached
  }

  linksAt(owner: string): TerminationStage {
    const links = this.installation.links.filter(
      ({ kind, between }) => kind !== 'factory' && between.every((ref) => ownerOf(ref) === owner),
    )
    return {
      id: `links ${owner}`,
      title: `Links of the ${this.nameOf(owner)}`,
      place: this.placeOf(owner),
      steps: links.map(({ kind, between: [a, b] }) => ({
        id: `${kind} ${a}+${b}`,
        do: kind === 'cut' ? ('cut-link' as const) : ('link' as const),
        terminal: `${markOf(a)} to ${markOf(b)}`,
        legend: this.legendOf(a),
        purpose: kind === 'cut' ? 'the factory link between them' : 'fit a link',
      })),
    }
  }

  /**
   * Cables with an end in a wiring centre: those that come from a supply, and the others; these, where that is asked for, without
   * their line, neutral and earth, which are then a stage of their own.
   */
  cablesAt(
    owner: string,
    mainsTogether: boolean,
  ): { supplies: TerminationStage[]; others: TerminationStage[]; mains: TerminationStage } {
    const isTogether = ({ cable, at }: EndOf) =>
      mainsTogether && !this.isSupply(cable) && 'terminal' in at && this.onMains.has(at.terminal)
    const stages = this.installation.cables.flatMap((cable) => {
      const here = this.ends.filter((e) => e.cable === cable && this.isAt(e, owner))
      if (here.length === 0) return []
      const own = here.filter((e) => !isTogether(e))
      const stage: TerminationStage = {
        id: `${cable.id}@${owner}`,
        title: `${cable.label}, at the ${this.nameOf(owner)}`,
        place: this.placeOf(owner),
        steps: [...this.uniqueFirst(own).map((e) => this.step(e)), clampOf(cable, owner)],
      }
      return [{ stage, supplies: this.isSupply(cable) }]
    })
    const of = (supplies: boolean) => stages.filter((one) => one.supplies === supplies).map(({ stage }) => stage)
    const together = this.ends.filter((e) => isTogether(e) && this.isAt(e, owner))
    const mains = {
      id: `mains ${owner}`,
      title: `Line, neutral and earth, at the ${this.nameOf(owner)}`,
      place: this.placeOf(owner),
      steps: this.uniqueFirst(together).map((e) => this.step(e)),
    }
    return { supplies: of(true), others: of(false), mains }
  }

  connector(id: string): TerminationStage {
    const own = this.uniqueFirst(this.ends.filter((e) => this.isAt(e, id)))
    return {
      id: `connector ${id}`,
      title: this.nameOf(id),
      place: this.placeOf(id),
      steps: own.map((e) => this.step(e)),
    }
  }

  /** A device at the far end of its cables, with the links in its own terminals. */
  device(id: string): TerminationStage {
    const links = this.linksAt(id).steps
    const own = this.uniqueFirst(this.ends.filter((e) => this.isAt(e, id)))
    return {
      id: `device ${id}`,
      title: this.nameOf(id),
      place: this.placeOf(id),
      steps: [...links, ...own.map((e) => this.step(e))],
    }
  }

  /** Last of all, wherever a conductor was landed. */
  covers(): TerminationStage[] {
    const { wiringCentres, devices, links } = this.installation
    const owners = [...wiringCentres, ...devices].map(({ id }) => id)
    const used = new Set(this.ends.flatMap(({ at }) => ('terminal' in at ? [ownerOf(at.terminal)] : [])))
    const steps = owners
      .filter((owner) => used.has(owner))
      .map((owner): TerminationStep => {
        const fitted = links.filter(
          (l) => l.kind === 'fitted' && l.between.every((ref) => ownerOf(ref) === owner),
        ).length
        const counted = fitted === 0 ? '' : `Count its links: ${fitted}. `
        return {
          id: `close ${owner}`,
          do: 'close',
          terminal: this.nameOf(owner),
          purpose: `${counted}Nothing under the edge; cover on`,
        }
      })
    return [{ id: 'covers', title: 'Covers', place: '', steps }]
  }

  private isAt(end: EndOf, owner: string): boolean {
    return this.placeOfEnd(end) === owner
  }

  /** Where a hand is for an end: one that is cut back lies beside the other ends of its cable. */
  private placeOfEnd({ at, cable, end }: EndOf): string | undefined {
    const ownOf = (one: End) =>
      'terminal' in one ? ownerOf(one.terminal) : one.at === 'connector' ? one.connector : undefined
    return ownOf(at) ?? cable.cores.map(({ ends }) => ownOf(ends[end])).find((owner) => owner !== undefined)
  }

  private uniqueFirst(ends: readonly EndOf[]): EndOf[] {
    const rank = ({ at }: EndOf) => {
      if (at.at !== 'terminal') return at.at === 'parked' ? 2 : 3
      return (this.crowd.get(at.terminal) ?? 0) > 1 ? 1 : 0
    }
    return [...ends].sort((x, y) => rank(x) - rank(y))
  }

  private step({ cable, core, end, at }: EndOf): TerminationStep {
    const far = core.ends[1 - end]
    const here = 'terminal' in at ? at.terminal : at.at === 'connector' ? at.connector : at.at
    const what = { terminal: 'land', parked: 'park', connector: 'join', 'cut-back': 'cut-back' } as const
    return {
      id: `${cable.id}.${core.id}.${end}@${here}`,
      do: what[at.at as keyof typeof what],
      ...('terminal' in at && { terminal: markOf(at.terminal), legend: this.legendOf(at.terminal) }),
      cable: cable.label,
      core: { colour: core.colour, sleeve: core.sleeve, name: coreName(cable, core) },
      purpose:
        at.at === 'terminal' || at.at === 'connector'
          ? endText(this.installation, far)
          : endText(this.installation, at),
    }
  }

  private legendOf(ref: string): string {
    const [owner = '', terminal] = ref.split('.')
    const centre = this.installation.wiringCentres.find(({ id }) => id === owner)
    return centre?.terminals.find(({ id }) => id === terminal)?.legend ?? terminalText(this.installation, ref)
  }

  private thing(owner: string) {
    const { devices, wiringCentres, connectors } = this.installation
    return [...devices, ...wiringCentres, ...connectors].find(({ id }) => id === owner)
  }
  private nameOf(owner: string): string {
    return this.thing(owner)?.name ?? owner
  }
  private placeOf(owner: string): string {
    const place = this.thing(owner)?.place
    return this.installation.places.find(({ id }) => id === place)?.name ?? ''
  }
}

const clampOf = ({ id, label }: Cable, owner: string): TerminationStep => ({
  id: `clamp ${id}@${owner}`,
  do: 'clamp',
  cable: label,
  purpose: 'label it, clamp it on its sheath',
})

const ownerOf = (ref: string): string => ref.slice(0, ref.indexOf('.'))
const markOf = (ref: string): string => ref.slice(ref.indexOf('.') + 1)
