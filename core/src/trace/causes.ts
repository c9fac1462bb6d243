import type { BusRequest, Condition } from '../catalogue'
import { type AtomId, conductingPath, feedsOf, LINE, secondaryLive } from '../circuit'
import type { Motion, Simulation } from '../simulation'
import { callLoad, loadEnds, wanted, type DemandView } from './demands'
import { openPointsOf, waysFrom } from './ways'

/** One link in the chain of causes, as references; wording is elsewhere. */
export type Claim =
  | { is: 'terminal'; ref: string; live: boolean }
  | { is: 'contact'; device: string; part: string; throw: 'made' | 'no' | 'nc'; closed: boolean }
  | { is: 'conductor'; cable: string; core: string }
  | { is: 'fuse'; device: string; part: string }
  | { is: 'travel'; device: string; part: string; motion: Motion; position: number; driven: boolean }
  | { is: 'load'; device: string; part: string; energised: boolean; open: boolean }
  | { is: 'sensor'; device: string; part: string; asks: boolean; temperature: number; set: number }
  | { is: 'control'; device: string; control: string; value: string }
  | { is: 'setting'; device: string; setting: string; value: number }
  | { is: 'bus'; device: string; part: string; what: 'link' | BusRequest; heard: boolean; joined: boolean }
  | { is: 'flow'; device: string; part: string; flows: boolean }
  | { is: 'phase'; device: string; part: string; phase: string }
  | { is: 'transformer'; device: string; part: string; supplied: boolean; open: boolean }
  | { is: 'unconnected'; ref: string; pole: 'line' | 'neutral' }
  /** Volts that no conductor brings: picked up in these cables from what lies beside. */
  | { is: 'induced'; ref: string; volts: number; cables: string[]; actsFrom: number }

export interface Cause {
  claim: Claim
  /** It is not as its own device would have it: the part has failed. */
  failed: boolean
  because: Cause[]
}

/** Why a terminal is live, or not: the contacts and conductors that make it so, and behind each the reason it stands as it does. */
export function whyTerminal(sim: Simulation, ref: string): Cause {
  const atom = sim.circuit.atomIndex.get(ref)
  if (atom === undefined) throw new Error(`no terminal "${ref}"`)
  return new Inquiry(sim).terminal(atom, 'line')
}

/** Why a load is energised, or not. */
export const whyLoad = (sim: Simulation, load: number): Cause => new Inquiry(sim).load(load)

/** Parts in the chain that are not as their devices would have them, each once. */
export function failedIn(cause: Cause): Cause[] {
  const here = cause.failed ? [cause] : []
  const all = [...here, ...cause.because.flatMap(failedIn)]
  const key = (c: Cause) => JSON.stringify(c.claim)
  return all.filter((c, i) => all.findIndex((d) => key(d) === key(c)) === i)
}

/** Calls that stand with no demand that owns them. */
export function callsUnasked(sim: DemandView): { boiler: string; input: string; load: number }[] {
  const { circuit } = sim
  const calls = circuit.devices.flatMap(({ device, type }) =>
    type.inputs.map((i) => ({ boiler: device.id, input: i.id })),
  )
  return calls.flatMap((call) => {
    const load = callLoad(circuit, call)
    if (!sim.loadEnergised(load)) return []
    const owners = circuit.installation.intent.demands.filter(
      (d) => d.call.boiler === call.boiler && d.call.input === call.input,
    )
    return owners.some((d) => wanted(sim, d)) ? [] : [{ ...call, load }]
  })
}

/** Calls that stand with no demand that owns them: input and chain of causes. */
export const unaskedCalls = (sim: Simulation): { boiler: string; input: string; cause: Cause }[] =>
  callsUnasked(sim).map(({ load, ...call }) => ({ ...call, cause: whyLoad(sim, load) }))

/** Asks back from effect to cause. Each thing is told once in a chain: what leads back to itself ends there. */
class Inquiry {
  private readonly under = new Set<string>()

  constructor(private readonly sim: Simulation) {}

  private once(key: string, claim: Claim, because: () => Cause[], failed = false): Cause {
    if (this.under.has(key)) return { claim, failed, because: [] }
    this.under.add(key)
    const causes = failed ? [] : because()
    this.under.delete(key)
    return { claim, failed, because: causes }
  }

  terminal(atom: AtomId, pole: 'line' | 'neutral'): Cause {
    const { sim } = this
    const { circuit } = sim
    const ref = circuit.atoms[atom].ref
    const feeds = feedsOf(circuit)
    const paths = feeds.flatMap((feed) => {
      const edges = conductingPath(circuit, sim.electrics.state, feed[pole], (reached) => reached === atom)
      return edges ? [{ feed, edges }] : []
    })
    const dead = ({ feed }: (typeof paths)[number]) =>
      feed.transformer !== undefined && pole === 'line' && !secondaryLive(sim.electrics, feed.transformer)
    const path = paths.find((p) => !dead(p)) ?? paths[0]
    const claim: Claim = { is: 'terminal', ref, live: path !== undefined && !dead(path) && pole === 'line' }
    return this.once(`${pole} ${ref}`, claim, () => {
      if (path && dead(path)) return [this.transformer(path.feed.transformer!)]
      if (path) return path.edges.flatMap((edge) => this.edge(edge, true))
      const ways = waysFrom(
        circuit,
        feeds.map((f) => f[pole]),
        atom,
      )
      if (ways.length === 0) return [{ claim: { is: 'unconnected', ref, pole }, failed: true, because: [] }]
      return ways
        .flatMap((way) => openPointsOf(circuit, sim.electrics.state, way))
        .flatMap((edge) => this.edge(edge, false))
    })
  }

  private transformer(index: number): Cause {
    const { sim } = this
    const { device, part, primary } = sim.circuit.transformers[index]
    const open = sim.electrics.state.openTransformers[index] === 1
    const claim: Claim = {
      is: 'transformer',
      device: sim.circuit.devices[device].device.id,
      part: part.id,
      supplied: sim.loadEnergised(primary),
      open,
    }
    return this.once(`transformer ${index}`, claim, () => [this.load(primary)], open)
  }

  /** Why an edge conducts, or does not. A conductor that conducts needs no reason. */
  private edge(index: number, conducting: boolean): Cause[] {
    const { sim } = this
    const edge = sim.circuit.edges[index]
    const id = (device: number) => sim.circuit.devices[device].device.id
    switch (edge.kind) {
      case 'contact':
        return [this.contact(edge.contact)]
      case 'fuse': {
        if (conducting) return []
        const { device, part } = sim.circuit.fuses[edge.fuse]
        return [{ claim: { is: 'fuse', device: id(device), part: part.id }, failed: true, because: [] }]
      }
      case 'core':
        if (conducting) return []
        return [{ claim: { is: 'conductor', cable: edge.cable.id, core: edge.core.id }, failed: true, because: [] }]
      default:
        return []
    }
  }

  private contact(index: number): Cause {
    const { sim } = this
    const { device, part, throw: name, closedWhen, inverted } = sim.circuit.contacts[index]
    const closed = sim.contactClosed(index)
    const id = sim.circuit.devices[device].device.id
    const claim: Claim = { is: 'contact', device: id, part: part.id, throw: name, closed }
    // A contact on its way for some milliseconds is not failed; one that is held against its device is.
    const failed = sim.contactHeld(index) && sim.contactShouldBeClosed(index) !== closed
    return this.once(`contact ${index}`, claim, () => this.condition(closedWhen, device, closed !== inverted), failed)
  }

  private condition(condition: Condition, device: number, value: boolean): Cause[] {
    const { sim } = this
    const compiled = sim.circuit.devices[device]
    const id = compiled.device.id
    if ('control' in condition) {
      const setTo = String(sim.control(id, condition.control))
      if (condition.is.includes(setTo) !== value) return []
      return [
        { claim: { is: 'control', device: id, control: condition.control, value: setTo }, failed: false, because: [] },
      ]
    }
    if ('sensor' in condition) {
      const i = compiled.sensorIndex.get(condition.sensor)!
      const asks = sim.sensorAsks(i)
      if (asks !== value) return []
      const { part } = sim.circuit.sensors[i]
      const temperature = Number(sim.control(id, part.reads))
      const set = Number(sim.control(id, part.setPoint))
      return [
        {
          claim: { is: 'sensor', device: id, part: part.id, asks, temperature, set },
          failed: sim.sensorDead(i),
          because: [],
        },
      ]
    }
    if ('actuator' in condition) return [this.travel(compiled.actuatorIndex.get(condition.actuator)!)]
    if ('energised' in condition) {
      const load = compiled.loadIndex.get(condition.energised)!
      if (sim.loadEnergised(load) !== value) return []
      return this.isInner(load) ? this.openParts(device, load) : [this.load(load)]
    }
    if ('works' in condition) return this.condition({ energised: condition.works }, device, value)
    if ('behaviour' in condition) return [this.phase(compiled.behaviourIndex.get(condition.behaviour)!)]
    if ('setting' in condition) {
      const stands = compiled.amount(condition)
      if ((stands === condition.is) !== value) return []
      return [
        { claim: { is: 'setting', device: id, setting: condition.setting, value: stands }, failed: false, because: [] },
      ]
    }
    if ('linked' in condition) return this.bus(compiled.busIndex.get(condition.linked)!, 'link', value)
    if ('hears' in condition) return this.bus(compiled.busIndex.get(condition.hears)!, condition.request, value)
    if ('flows' in condition) {
      const flows = sim.flows[compiled.wayIndex.get(condition.flows)!]
      if (flows >= compiled.amount(condition.from) !== value) return []
      return [{ claim: { is: 'flow', device: id, part: condition.flows, flows: value }, failed: false, because: [] }]
    }
    // The clock: what it says is told by the control that follows it.
    if ('timed' in condition) return []
    if ('not' in condition) return this.condition(condition.not, device, !value)
    const parts = 'all' in condition ? condition.all : condition.any
    const causes = parts.flatMap((part) => this.condition(part, device, value))
    // Several ways to ask may look at one knob: it is told once.
    const text = (cause: Cause) => JSON.stringify(cause.claim)
    return causes.filter((cause, i) => causes.findIndex((other) => text(other) === text(cause)) === i)
  }

  /** A link that stands or a request that is heard, or not. */
  private bus(port: number, what: 'link' | BusRequest, value: boolean): Cause[] {
    const { sim } = this
    const { device, part } = sim.circuit.buses[port]
    const id = sim.circuit.devices[device].device.id
    const reading = sim
      .busReadings()
      .find((r) => r.controller === port || (r.boiler === port && (what === 'link' || r.asks.includes(what) === value)))
    const joined = reading?.boiler !== undefined
    const claim: Claim = { is: 'bus', device: id, part: part.id, what, heard: value, joined }
    const asker = reading && reading.controller !== port ? sim.circuit.buses[reading.controller] : undefined
    const because = (): Cause[] => {
      const request = asker && what !== 'link' ? asker.part.requests?.[what] : undefined
      return request && joined ? this.condition(request, asker!.device, value) : []
    }
    return [this.once(`bus ${port} ${what}`, claim, because, sim.busSilent(port))]
  }

  private travel(actuator: number): Cause {
    const { sim } = this
    const { device, part, drivenBy, reversed } = sim.circuit.actuators[actuator]
    const driven = sim.loadEnergised(drivenBy) !== reversed
    const position = sim.actuatorPosition(actuator)
    const impeded = sim.actuatorHeld(actuator) || sim.loadJammed(drivenBy)
    const failed = impeded && position !== (driven ? 1 : 0)
    const id = sim.circuit.devices[device].device.id
    const motion = sim.actuatorMotion(actuator)
    const claim: Claim = { is: 'travel', device: id, part: part.id, motion, position, driven }
    return this.once(`travel ${actuator}`, claim, () => [this.load(drivenBy)], failed)
  }

  private phase(behaviour: number): Cause {
    const { sim } = this
    const { device, part, watches } = sim.circuit.behaviours[behaviour]
    const failed = sim.behaviourLockedOut(behaviour)
    const id = sim.circuit.devices[device].device.id
    const claim: Claim = { is: 'phase', device: id, part: part.id, phase: sim.phase(behaviour).phase }
    const because = () =>
      Object.values(watches).flatMap((watch) => this.condition(watch, device, sim.conditionHolds(watch, device)))
    return this.once(`phase ${behaviour}`, claim, because, failed)
  }

  /** Is a load fed from within its device, by parts that no conductor reaches? */
  private isInner(load: number): boolean {
    const { circuit } = this.sim
    const { fed } = loadEnds(circuit, load)
    const lines = feedsOf(circuit).map((f) => f.line)
    return circuit.atoms[fed].kind === 'internal' && waysFrom(circuit, lines, fed).length === 0
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
    const { fed, back } = loadEnds(sim.circuit, load)
    const energised = sim.loadEnergised(load)
    const open = sim.loadOpen(load)
    const claim: Claim = { is: 'load', device: sim.circuit.devices[device].device.id, part: part.id, energised, open }
    const because = () => {
      const line = this.terminal(fed, 'line')
      const picked = energised && line.claim.is === 'terminal' && !line.claim.live ? this.induced(load, fed) : undefined
      if (picked) return [picked]
      if (energised || !(line.claim.is === 'terminal' && line.claim.live)) return [line]
      return [this.terminal(back, 'neutral')]
    }
    return this.once(`load ${load}`, claim, because, open || sim.loadHeld(load))
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
    return { claim, failed: true, because: [] }
  }
}
