import type { Condition } from '../catalogue'
import { type AtomId, conducts, type EdgeId, type Feed, FED, feedsOf, LINE, secondaryLive } from '../circuit'
import { Rig } from '../hypotheses'
import type { Simulation } from '../simulation'
import type { Asker, Background } from './asker'
import { busCauses } from './bus-causes'
import { besidePlan, type BesidePlan } from './beside-plan'
import { endsOf, failedIn, once, type Cause, type Claim } from './claims'
import { loadEnds } from './demands'
import { lastTime, overloadCauses, plainest, secondaryShorts } from './protections'
import { standstillCauses } from './standstill'
import { joined, ownBranches, stopsOf, type Branches } from './stops'
import { waysFrom } from './ways'

/** What leads back to itself: it explains nothing, and is left out of every chain. */
export const round: Cause = { claim: { is: 'unconnected', ref: '', pole: 'line' }, failed: false, because: [] }

/** Each once; where others tell why, what merely has nothing on it (an input nobody uses) is left out. */
function telling(causes: readonly Cause[]): Cause[] {
  const bare = (cause: Cause) => endsOf(cause).every(({ claim }) => claim.is === 'unconnected')
  return once(causes.every(bare) ? causes : causes.filter((cause) => !bare(cause)))
}

const reached = ({ claim }: Cause): boolean => claim.is === 'terminal' && claim.reached

/** Asks back from effect to cause. Each thing is told once in a chain: what leads back to itself ends there. */
export class Inquiry implements Asker {
  readonly beside: BesidePlan
  private readonly under = new Set<string>()

  constructor(
    readonly sim: Simulation,
    readonly known: Background = {},
    private readonly branches: Branches = 'all',
  ) {
    this.beside = besidePlan(sim.circuit, known.plan)
  }

  at(ms: number): Inquiry | undefined {
    const { acts } = this.known
    if (!acts || ms < 0) return undefined
    return new Inquiry(Rig.at(this.known.from ?? this.sim.circuit, acts, ms).simulation, this.known, this.branches)
  }

  once(key: string, claim: Claim, because: () => Cause[], failed = false): Cause {
    if (this.under.has(key)) return round
    this.under.add(key)
    const found = failed ? [] : because()
    const causes = telling(found.filter((cause) => cause !== round))
    this.under.delete(key)
    if (causes.length === 0 && found.length > 0 && this.under.size > 0) return round
    return { claim, failed, because: causes }
  }

  private idOf(device: number): string {
    return this.sim.circuit.devices[device].device.id
  }

  /** `from`: the feeds it may be of; any, where that is not known. */
  terminal(atom: AtomId, pole: 'line' | 'neutral', from: (feed: Feed) => boolean = () => true): Cause {
    const { sim } = this
    const { circuit } = sim
    const ref = circuit.atoms[atom].ref
    const feeds = feedsOf(circuit).filter(from)
    const paths = feeds.flatMap((feed) => {
      const edges = plainest(circuit, sim.electrics.state, this.beside.strays, feed[pole], (at) => at === atom)
      return edges ? [{ feed, edges }] : []
    })
    const dead = ({ feed }: (typeof paths)[number]) =>
      feed.transformer !== undefined && pole === 'line' && !secondaryLive(sim.electrics, feed.transformer)
    const path = paths.find((p) => !dead(p)) ?? paths[0]
    const claim: Claim = { is: 'terminal', ref, pole, reached: path !== undefined && !dead(path) }
    return this.once(`${pole} ${ref}`, claim, () => {
      if (path && dead(path)) return [this.transformer(path.feed.transformer!)]
      if (path && path.feed.transformer !== undefined && pole === 'line')
        return [this.transformer(path.feed.transformer), ...path.edges.flatMap((edge) => this.edge(edge, true))]
      if (path) return path.edges.flatMap((edge) => this.edge(edge, true))
      return this.stops(atom, pole)
    })
  }

  /** Where the ways stop by which a pole should come to a terminal: those of the plan, else those there are. */
  private stops(atom: AtomId, pole: 'line' | 'neutral'): Cause[] {
    const { sim, beside } = this
    const { circuit } = sim
    const ref = circuit.atoms[atom].ref
    const { plan } = beside
    const planned = plan.atomIndex.get(ref)
    const lines = (of: typeof circuit) => feedsOf(of).map((feed) => feed[pole])
    const ways = planned === undefined ? [] : waysFrom(plan, lines(plan), planned)
    if (ways.length > 0) {
      const stops = ownBranches(this, ways, this.branches).flatMap((way) => stopsOf(this, way, beside))
      const causes = stops.flatMap((stop) =>
        'edge' in stop ? this.edge(stop.edge, false) : this.departures(plan, stop.missing),
      )
      if (causes.length > 0) return causes
    }
    const here = plan === circuit ? [] : waysFrom(circuit, lines(circuit), atom)
    if (here.length === 0)
      return [{ claim: { is: 'unconnected', ref, pole }, failed: plan === circuit || ways.length > 0, because: [] }]
    const own = besidePlan(circuit)
    return here
      .flatMap((way) => stopsOf(this, way, own))
      .flatMap((stop) => ('edge' in stop ? this.edge(stop.edge, false) : []))
  }

  /** Why the branches of a load that are the demand's own bring it nothing, whatever others bring. */
  ownStops(load: number): Cause[] {
    return this.stops(this.endsOfLoad(load).fed, 'line')
  }

  departures(of: Simulation['circuit'], edge: EdgeId): Cause[] {
    return this.beside
      .departed(of, edge)
      .map((what) => ({ claim: { is: 'departure', what }, failed: true, because: [] }))
  }

  private transformer(index: number): Cause {
    const { sim } = this
    const { device, part, primary } = sim.circuit.transformers[index]
    const open = sim.electrics.state.openTransformers[index] === 1
    const claim: Claim = {
      is: 'transformer',
      device: this.idOf(device),
      part: part.id,
      supplied: sim.loadEnergised(primary),
      open,
    }
    return this.once(`transformer ${index}`, claim, () => [this.load(primary)], open)
  }

  edge(index: EdgeId, conducting: boolean): Cause[] {
    const { sim } = this
    const edge = sim.circuit.edges[index]
    switch (edge.kind) {
      case 'contact':
        return [this.contact(edge.contact)]
      case 'fuse':
        return conducting ? [] : [this.fuse(edge.fuse)]
      case 'strap':
        return []
      default: {
        if (conducting) return this.beside.strays.has(index) ? this.departures(sim.circuit, index) : []
        if (conducts(sim.circuit, sim.electrics.state, index) || edge.kind === 'link') return []
        return [{ claim: { is: 'conductor', cable: edge.cable.id, core: edge.core.id }, failed: true, because: [] }]
      }
    }
  }

  /** Blown by what went through it, where it is known to have been so; else it has failed. */
  private fuse(index: number): Cause {
    const { device, part } = this.sim.circuit.fuses[index]
    const id = this.idOf(device)
    const blown = lastTime(this, (e) => e.kind === 'fuse' && e.device === id && e.part === part.id)
    const then = blown === undefined ? undefined : this.at(blown - 1)
    const because = then ? overloadCauses(then) : []
    return this.once(`fuse ${index}`, { is: 'fuse', device: id, part: part.id }, () => because, because.length === 0)
  }

  contact(index: number): Cause {
    const { sim } = this
    const { device, part, throw: name, closedWhen, inverted } = sim.circuit.contacts[index]
    const closed = sim.contactClosed(index)
    const claim: Claim = { is: 'contact', device: this.idOf(device), part: part.id, throw: name, closed }
    const should = sim.contactShouldBeClosed(index)
    // A contact on its way for some milliseconds is not failed; one that is held against its device is.
    const failed = sim.contactHeld(index) && should !== closed
    return this.once(`contact ${index}`, claim, () => this.condition(closedWhen, device, should !== inverted), failed)
  }

  condition(condition: Condition, device: number, value: boolean): Cause[] {
    const { sim } = this
    const compiled = sim.circuit.devices[device]
    const id = compiled.device.id
    if ('control' in condition) {
      const setTo = String(sim.control(id, condition.control))
      return condition.is.includes(setTo) === value ? [this.control(device, condition.control, setTo)] : []
    }
    if ('sensor' in condition) {
      const sensor = compiled.sensorIndex.get(condition.sensor)!
      return sim.sensorAsks(sensor) === value ? [this.sensor(sensor)] : []
    }
    if ('actuator' in condition) return [this.travel(compiled.actuatorIndex.get(condition.actuator)!)]
    if ('energised' in condition) {
      const load = compiled.loadIndex.get(condition.energised)!
      if (sim.loadEnergised(load) !== value) return []
      return this.isInner(load) ? this.openParts(device, load) : [this.load(load)]
    }
    if ('works' in condition) {
      const load = compiled.loadIndex.get(condition.works)!
      return sim.loadWorking(load) === value ? [this.load(load)] : []
    }
    if ('behaviour' in condition) return [this.phase(compiled.behaviourIndex.get(condition.behaviour)!)]
    if ('setting' in condition) {
      const stands = compiled.amount(condition)
      return (stands === condition.is) === value ? [this.setting(device, condition.setting, stands)] : []
    }
    if ('linked' in condition) return busCauses(this, compiled.busIndex.get(condition.linked)!, 'link', value)
    if ('hears' in condition) return busCauses(this, compiled.busIndex.get(condition.hears)!, condition.request, value)
    if ('flows' in condition) {
      const flows = sim.flows[compiled.wayIndex.get(condition.flows)!]
      if (flows >= compiled.amount(condition.from) !== value) return []
      return [this.flow(device, condition.flows, value)]
    }
    // The clock: what it says is told by the control that follows it.
    if ('timed' in condition) return []
    if ('not' in condition) return this.condition(condition.not, device, !value)
    const parts = 'all' in condition ? condition.all : condition.any
    // Several ways to ask may look at one knob: it is told once.
    return once(parts.flatMap((part) => this.condition(part, device, value)))
  }

  private sensor(index: number): Cause {
    const { sim } = this
    const { device, part } = sim.circuit.sensors[index]
    const id = this.idOf(device)
    const claim: Claim = {
      is: 'sensor',
      device: id,
      part: part.id,
      asks: sim.sensorAsks(index),
      temperature: Number(sim.control(id, part.reads)),
      set: Number(sim.control(id, part.setPoint)),
    }
    return { claim, failed: sim.sensorDead(index), because: [] }
  }

  /** A choice made at set-up; made otherwise than planned, it departs. */
  private setting(device: number, setting: string, value: number): Cause {
    const id = this.idOf(device)
    const { plan } = this.beside
    const planned = plan.devices.find(
      (d) => d.device.id === id && d.type.id === this.sim.circuit.devices[device].type.id,
    )
    const belongs = planned?.amount({ setting }) ?? value
    const claim: Claim =
      belongs === value
        ? { is: 'setting', device: id, setting, value }
        : { is: 'departure', what: { kind: 'setting', device: id, setting, stands: value, belongs } }
    return { claim, failed: belongs !== value, because: [] }
  }

  /** A control as a hand has set it, or as a part of the device itself threw it. */
  private control(device: number, control: string, value: string): Cause {
    const { sim } = this
    const { circuit } = sim
    const id = this.idOf(device)
    const set: Cause = { claim: { is: 'control', device: id, control, value }, failed: false, because: [] }
    const index = circuit.devices[device].controlIndex.get(control)
    const throws = (t?: { control: string | number; to: string }) =>
      t !== undefined && (t.control === control || t.control === index) && t.to === value
    const handAt = lastTime(this, (e) => e.kind === 'control' && e.device === id && e.control === control) ?? -1
    const thrownAt = (kinds: readonly string[], part: string) => {
      const at = lastTime(this, (e) => kinds.includes(e.kind) && 'part' in e && e.device === id && e.part === part)
      return at !== undefined && at >= handAt ? at : undefined
    }
    const because = (part: string, causes: (then: Inquiry) => Cause[], kinds: readonly string[]): Cause[] => {
      const at = thrownAt(kinds, part)
      const then = at === undefined ? undefined : this.at(at - 1)
      return then ? causes(then) : []
    }
    const thrown = [
      ...circuit.trips.flatMap(({ device: d, part }) =>
        d === device && throws(part.throws) ? because(part.id, overloadCauses, ['trip']) : [],
      ),
      ...circuit.sensors.flatMap(({ device: d, part, throws: t }, i) =>
        d === device && throws(t) ? because(part.id, (then) => [then.sensor(i)], ['limit']) : [],
      ),
      ...circuit.behaviours.flatMap(({ device: d, part, throws: t }) =>
        d === device && throws(t) ? because(part.id, standstillCauses, ['phase']) : [],
      ),
    ]
    if (thrown.length === 0) return set
    return this.once(`thrown ${id}.${control}`, { is: 'thrown', device: id, control, value }, () => thrown)
  }

  private flow(device: number, way: string, flows: boolean): Cause {
    const claim: Claim = { is: 'flow', device: this.idOf(device), part: way, flows }
    return this.once(`flow ${device} ${way}`, claim, () => (flows ? [] : standstillCauses(this)))
  }

  travel(actuator: number): Cause {
    const { sim } = this
    const { device, part, drivenBy, movedBy, reversed } = sim.circuit.actuators[actuator]
    const driven = sim.loadEnergised(drivenBy) !== reversed
    const position = sim.actuatorPosition(actuator)
    const arrived = position === (driven ? 1 : 0)
    const impeded = sim.actuatorHeld(actuator) || sim.loadJammed(drivenBy)
    const turned = sim.actuatorTurned(actuator)
    const failed = turned || (impeded && !arrived)
    const motion = sim.actuatorMotion(actuator)
    const claim: Claim = { is: 'travel', device: this.idOf(device), part: part.id, motion, position, driven, turned }
    return this.once(
      `travel ${actuator}`,
      claim,
      () =>
        motion === 'latched' && part.latch
          ? [this.control(device, part.latch.control, part.latch.latched)]
          : [...(movedBy !== undefined && !arrived ? [this.load(movedBy)] : []), this.load(drivenBy)],
      failed,
    )
  }

  phase(behaviour: number): Cause {
    const { sim } = this
    const { device, part, watches } = sim.circuit.behaviours[behaviour]
    const { phase } = sim.phase(behaviour)
    const claim: Claim = { is: 'phase', device: this.idOf(device), part: part.id, phase }
    // Flow is asked for by one that has gone looking for it, and by none before.
    const minds = (watch: Condition) => !('flows' in watch) || phase === 'no-flow'
    const because = () =>
      Object.entries(watches)
        // That it has its supply goes without saying, and comes last.
        .sort(([x], [y]) => Number(x === 'powered') - Number(y === 'powered'))
        .map(([, watch]) => watch)
        .filter(minds)
        .flatMap((watch) => this.condition(watch, device, sim.conditionHolds(watch, device)))
    return this.once(`phase ${behaviour}`, claim, because, sim.behaviourLockedOut(behaviour))
  }

  /** Is a load fed from within its device, by parts that no conductor reaches? */
  private isInner(load: number): boolean {
    return this.isInside(this.endsOfLoad(load).fed, 'line')
  }
  private isInside(atom: AtomId, pole: 'line' | 'neutral'): boolean {
    const { circuit } = this.sim
    const origins = feedsOf(circuit).map((feed) => feed[pole])
    return circuit.atoms[atom].kind === 'internal' && waysFrom(circuit, origins, atom).length === 0
  }

  /** The end at which the signal should reach a load, and the other: as planned, where there is a plan. */
  private endsOfLoad(load: number): { fed: AtomId; back: AtomId } {
    const { circuit } = this.sim
    const { plan, atomOf } = this.beside
    const { device, part } = circuit.loads[load]
    const planned = plan.deviceIndex.get(this.idOf(device))
    const at = planned === undefined ? undefined : plan.devices[planned].loadIndex.get(part.id)
    if (at === undefined) return loadEnds(circuit, load)
    const { fed, back } = loadEnds(plan, at)
    return { fed: atomOf(fed) ?? circuit.loads[load].a, back: atomOf(back) ?? circuit.loads[load].b }
  }

  /** Why an inner load has no supply, as far as more is known: an open part of its device, or no supply to it at all. */
  private openParts(device: number, load: number): Cause[] {
    const { sim } = this
    if (sim.loadEnergised(load)) return []
    const own = sim.circuit.loads.flatMap((l, i) => (l.device === device ? [i] : []))
    const open = own.filter((i) => sim.loadOpen(i))
    const starved = own.filter((i) => sim.circuit.loads[i].part.lights && !sim.loadEnergised(i))
    return (open.length > 0 ? open : starved).map((i) => this.load(i))
  }

  load(load: number): Cause {
    const { sim } = this
    const { device, part } = sim.circuit.loads[load]
    const id = this.idOf(device)
    const { fed, back } = this.endsOfLoad(load)
    const energised = sim.loadEnergised(load)
    const open = sim.loadOpen(load)
    const jammed = sim.loadJammed(load)
    const claim: Claim = { is: 'load', device: id, part: part.id, energised, open, jammed }
    const burnt = open && lastTime(this, (e) => e.kind === 'burnt' && e.device === id && e.part === part.id)
    const then = typeof burnt === 'number' ? this.at(burnt - 1) : undefined
    const because = () => {
      if (then) return [then.terminal(fed, 'line')]
      const line = this.terminal(fed, 'line')
      if (energised && !reached(line)) {
        const others = this.fedThrough(load, fed)
        if (others.length > 0) return others
        const picked = this.induced(load, fed)
        if (picked) return [picked]
      }
      if (energised || !reached(line)) return [line]
      const feeds = feedsOf(sim.circuit).filter((f) => joined(this, f.line, fed))
      const same = (feed: Feed) => feeds.some((f) => f.transformer === feed.transformer)
      const strange = failedIn(line).length > 0 ? [line] : []
      if (this.isInside(back, 'neutral')) return [...strange, ...this.openParts(device, load)]
      const neutral = this.terminal(back, 'neutral', feeds.length > 0 ? same : undefined)
      if (!reached(neutral))
        return strange.length > 0 && failedIn(neutral).length === 0 ? strange : [...strange, neutral]
      const short = secondaryShorts(this)
      return short.length > 0 ? short : strange.length > 0 ? strange : [neutral]
    }
    return this.once(`load ${load}`, claim, because, (open && !then) || sim.loadHeld(load) || (jammed && energised))
  }

  /** Other loads by which a load gets its supply, in series with them: each for want of its own way back. */
  private fedThrough(load: number, fed: AtomId): Cause[] {
    const { circuit, electrics } = this.sim
    const { netOf, poles } = electrics.nets
    return circuit.loads.flatMap(({ device, part }, other): Cause[] => {
      const ends = this.endsOfLoad(other)
      if (other === load || netOf[ends.back] !== netOf[fed] || !(poles[netOf[ends.fed]] & (LINE | FED))) return []
      const claim: Claim = { is: 'through', device: this.idOf(device), part: part.id }
      return [this.once(`through ${other}`, claim, () => [this.terminal(ends.back, 'neutral')])]
    })
  }

  /** What an input acts on that no conductor feeds: volts by capacitance from live conductors beside its own. */
  private induced(load: number, atom: AtomId): Cause | undefined {
    const { circuit, electrics } = this.sim
    const { netOf, poles } = electrics.nets
    const net = netOf[atom]
    const cables = circuit.branches.flatMap(({ a, b, of }) => {
      if (of.kind !== 'capacitance') return []
      const [p, q] = [netOf[a], netOf[b]]
      const other = p === net ? q : q === net ? p : undefined
      return other !== undefined && poles[other] & LINE ? [of.cable] : []
    })
    if (cables.length === 0) return undefined
    const claim: Claim = {
      is: 'induced',
      ref: circuit.atoms[atom].ref,
      volts: electrics.loadVolts[load],
      cables: [...new Set(cables)],
      actsFrom: circuit.loads[load].pullsIn,
    }
    const parted = this.stops(atom, 'line').filter((c) => c.claim.is === 'departure' || c.claim.is === 'conductor')
    return { claim, failed: parted.length === 0, because: parted }
  }
}
