import {
  type AtomId,
  type EdgeId,
  EARTH,
  emptyNets,
  LINE,
  mergeNets,
  NEUTRAL,
  shortCircuit,
  wholeState,
  type Circuit,
  type CircuitState,
  type Nets,
} from '../../circuit'
import { placeOf, type Cable, type Core, type End, type Installation, type Link } from '../../installation'

/** One end of a conductor that is on something, and what it is on. */
export interface Landed {
  cable: Cable
  core: Core
  end: 0 | 1
  terminal: string
}

/** An installation looked over once for all rules: what is joined by wiring alone, and what could be through contacts. */
export class Survey {
  /** Nets with every contact open but the isolators': what wiring alone joins. */
  readonly wired: Nets
  /** Nets with every contact shut: what could ever be joined. */
  readonly all: Nets
  /** With every contact shut, line and neutral meet: then what could be joined says nothing of loads. */
  readonly allShort: boolean
  /** Ends on each terminal or connector, parked ones included. */
  readonly at = new Map<string, Landed[]>()
  private readonly extraLow: Set<number>

  constructor(readonly circuit: Circuit) {
    this.wired = this.netsWith(() => false)
    this.all = this.netsWith(() => true)
    this.allShort = shortCircuit(circuit, this.all)
    for (const cable of circuit.installation.cables)
      for (const core of cable.cores)
        core.ends.forEach((end, i) => {
          const on = placeOf(end)
          if (on === undefined) return
          const landed: Landed = { cable, core, end: i as 0 | 1, terminal: on }
          this.at.set(on, [...(this.at.get(on) ?? []), landed])
        })
    this.extraLow = new Set(
      circuit.devices.flatMap(({ type, device }) =>
        type.terminals
          .filter((t) => t.extraLow)
          .map((t) => this.wired.netOf[circuit.atomIndex.get(`${device.id}.${t.id}`)!]),
      ),
    )
  }

  /** Nets with fuses whole, isolators shut, and every other contact as `closes` says of its device. */
  netsWith(closes: (device: number, contact: number) => boolean): Nets {
    return mergeNets(this.circuit, this.stateWith(closes), emptyNets(this.circuit))
  }
  /** Every contact open but the isolators'. */
  get wiredState(): CircuitState {
    return this.stateWith(() => false)
  }
  /** What wiring alone joins, with one edge taken out. */
  wiredWithout(edge: EdgeId): Nets {
    const state = this.wiredState
    state.brokenEdges[edge] = 1
    return mergeNets(this.circuit, state, emptyNets(this.circuit))
  }
  private stateWith(closes: (device: number, contact: number) => boolean): CircuitState {
    const { circuit } = this
    const isolators = new Set(circuit.sources.map((s) => s.device))
    const closed = Uint8Array.from(circuit.contacts, (c, i) => (isolators.has(c.device) || closes(c.device, i) ? 1 : 0))
    return { ...wholeState(circuit), closed }
  }

  /** Nets with every contact shut and one edge taken out. */
  netsWithout(edge: EdgeId): Nets {
    const { circuit } = this
    const state = wholeState(circuit)
    state.closed.fill(1)
    state.brokenEdges[edge] = 1
    return mergeNets(circuit, state, emptyNets(circuit))
  }

  atom(ref: string): AtomId {
    return this.circuit.atomIndex.get(ref)!
  }
  poles(nets: Nets, atom: AtomId): number {
    return nets.poles[nets.netOf[atom]]
  }
  /** Can this point be at the mains' line, whatever contacts do? */
  canBeLive(atom: AtomId): boolean {
    return (this.poles(this.all, atom) & LINE) !== 0
  }
  isNeutral(atom: AtomId): boolean {
    return (this.poles(this.wired, atom) & NEUTRAL) !== 0
  }
  isEarth(atom: AtomId): boolean {
    return (this.poles(this.wired, atom) & EARTH) !== 0
  }
  /** Is this point wired to an extra-low-voltage terminal? */
  isExtraLow(atom: AtomId): boolean {
    return this.extraLow.has(this.wired.netOf[atom])
  }
  /** How many conductors a terminal or connector takes. */
  waysOf(ref: string): number {
    const { wiringCentres, connectors } = this.circuit.installation
    const [owner, terminal] = ref.split('.')
    const centre = wiringCentres.find((c) => c.id === owner)
    if (centre) return centre.terminals.find((t) => t.id === terminal)?.ways ?? deviceWays
    return connectors.find((c) => c.id === ref)?.ways ?? deviceWays
  }
  /** Terminals of wiring centres for which this is true. */
  centreTerminals(fits: (atom: AtomId) => boolean): string[] {
    return this.circuit.atoms.flatMap((atom, i) => (atom.kind === 'centre' && fits(i as AtomId) ? [atom.ref] : []))
  }
  /** Can a terminal take a conductor more? */
  hasRoom(ref: string): boolean {
    return (this.at.get(ref)?.length ?? 0) < this.waysOf(ref)
  }
  /** The atom at one end of a conductor. */
  atomOf(cable: Cable, core: Core, end: 0 | 1): AtomId {
    const on = placeOf(core.ends[end])
    return this.atom(on ?? `${cable.id}.${core.id}.${end + 1}`)
  }
}

/** Conductors that a device's terminal takes: a usual value. */
const deviceWays = 4

/** Links recorded between two places, counted as joined though no link reaches from one to the other. */
export const linksBetweenPlaces = ({ links }: Pick<Installation, 'links'>): Link[] =>
  links.filter(({ kind, between }) => kind !== 'cut' && between[0].split('.')[0] !== between[1].split('.')[0])

/** On a terminal or in a connector, and meant to conduct. */
export const inUse = (end: End): boolean => end.at === 'terminal' || end.at === 'connector'
