import { same } from '../changes'
import type { Circuit } from '../circuit'
import { actionsFor, demandActions, supplyActions } from '../inputs'
import type { Demand } from '../installation'
import { nth } from '../lists'
import type { WrittenLook } from '../looks'
import type { Simulation } from '../simulation'
import { unaskedCalls, unmetDemands, warmUnasked } from '../trace'
import { ActionError, calledPhases, type Action } from '../simulation'
import { histories, perform, settledMs } from './histories'
import { usualRun, type RunOptions } from './options'
import type { HandCheck, RowKind, RowLook, RunRow } from './row'
import { runMinutes } from './run-minutes'
import { expectedOf } from './shown'
import {
  boxChecks,
  controlsTurned,
  coverChecks,
  deadOf,
  earthsOf,
  insulationOf,
  polarityOf,
  thingsToLookAt,
  valvesOf,
  type Things,
} from './things'

/** A call that comes sooner waits for no valve. */
const atOnceMs = 3000
/** The longest overrun of the catalogue's boilers, and a little. */
const overrunMs = 900_000

/**
 * The run of an installation, made of its own model: how its controls stand; isolated, what is counted and measured dead; from everything
 * off, each demand alone, dropped by its thermostat, raised, dropped by its channel; all together, and each dropped from that; what runs on
 * after all are off; isolation; everything put back. What is expected at each row is what the healthy installation shows then.
 * Nothing is looked at that could not be known there, or that depends on what was asked for before.
 */
export const commissioningRun = (circuit: Circuit, options: RunOptions = usualRun): RunRow[] =>
  new RunInTheMaking(circuit, options).rows()

/** Rows in which something is still under way. */
const onTheWay: ReadonlySet<RowKind> = new Set(['before-travel-ends', 'box', 'isolated', 'put-back'])

/** Does it not do what its demands ask, or what none of them asks? */
const doesOtherwise = (sim: Simulation): boolean =>
  unmetDemands(sim).length + unaskedCalls(sim).length + warmUnasked(sim).length > 0

/** What the demands say of the call, whatever the wiring makes of it. */
const callsByIntent = (looks: readonly WrittenLook[], wanted: readonly Demand[]): RowLook[] =>
  looks.flatMap((see) =>
    see.at === 'boiler' ? [{ see, expect: { word: wanted.length > 0 ? 'called' : 'not-called' } }] : [],
  )

interface Wanted {
  about?: Demand
  wanted?: readonly Demand[]
  acts?: readonly Action[]
  waitMs?: number
  looks?: readonly WrittenLook[]
  byHand?: readonly HandCheck[]
}

class RunInTheMaking {
  /** The one it is told by, and others that came to it otherwise. */
  private readonly sim: Simulation
  private readonly others: readonly Simulation[]
  private readonly made: RunRow[] = []
  private readonly things: Things
  private readonly demands: readonly Demand[]
  /** From acts until everything is looked at, ms. */
  private readonly settled: number
  /** What was felt to warm already is warm: it is not felt to warm again. */
  private readonly warmed = new Set<string>()

  constructor(
    private readonly circuit: Circuit,
    private readonly options: RunOptions,
  ) {
    this.settled = settledMs(circuit)
    const [sim, ...others] = histories(circuit)
    this.sim = sim
    this.others = others
    this.things = thingsToLookAt(circuit)
    const { demands } = circuit.installation.intent
    this.demands = [...demands].sort(
      (a, b) =>
        Number(b.kind === options.first) - Number(a.kind === options.first) || demands.indexOf(a) - demands.indexOf(b),
    )
  }

  rows(): RunRow[] {
    const { circuit, options, sim, things, demands } = this
    const power = supplyActions(circuit, true)
    const off = demandActions(circuit, [])
    const turned = controlsTurned(demandActions(circuit, this.ids(demands)))
    if (turned.length > 0)
      this.add('as-it-stood', { byHand: turned.map((control): HandCheck => ({ check: 'stands', ...control })) })
    const isDead = !options.short && !options.coversOn && power.length > 0
    if (isDead) this.deadTests()
    // Nobody knows how the controls stand: each is set, whatever it stands at in the model.
    this.add('rest', {
      acts: [...(isDead ? power : []), ...off],
      waitMs: this.settled,
      looks: this.plant,
    })
    for (const demand of demands) this.alone(demand)
    if (demands.length > 1 && !options.short) this.together()
    this.add('all-off', {
      acts: changed(sim, off),
      waitMs: this.settled,
      looks: this.plant,
    })
    this.add('overrun-over', { waitMs: overrunMs, looks: things.pumps })
    const isolate = supplyActions(circuit, false)
    if (isolate.length > 0)
      this.add('isolated', { acts: isolate, waitMs: 1000, looks: deadOf(circuit, things, options.coversOn) })
    this.leave(isolate.length > 0 ? power : [], turned)
    return this.made
  }

  private deadTests(): void {
    const { circuit, options } = this
    const [earths, polarity] = [earthsOf(circuit), polarityOf(circuit)]
    const insulation = options.insulation ? insulationOf(circuit) : []
    this.add('box', {
      acts: supplyActions(circuit, false),
      waitMs: 1000,
      byHand: boxChecks(circuit.installation),
    })
    this.add('earths', { looks: earths })
    this.add('polarity', { looks: polarity })
    this.add('insulation', { looks: insulation })
    this.add('covers', { byHand: coverChecks(circuit, [...earths, ...polarity, ...insulation]) })
  }

  private alone(demand: Demand): void {
    const { circuit, options, sim, things } = this
    const acts = changed(sim, demandActions(circuit, [demand.id]))
    // A valve that stands where it is to go already has it called at once.
    const calls = Math.min(...[sim, ...this.others].map((one) => callAfter(one, acts)))
    const sooner = calls < Infinity && calls > atOnceMs ? Math.round(calls / 2000) * 1000 : 0
    const about = { about: demand, wanted: [demand] }
    if (sooner > 0) this.add('before-travel-ends', { ...about, acts, waitMs: sooner, looks: things.boilers })
    this.add('alone', {
      ...about,
      acts: sooner > 0 ? [] : acts,
      waitMs: this.settled - sooner,
      looks: [...this.plant, ...this.felt()],
    })
    if (options.short) return
    const own = [...things.boilers, ...valvesOf(demand, things.valves), ...things.pumps]
    const { channel, thermostat } = demand
    const drop = (kind: RowKind, by: NonNullable<Demand['channel']>) =>
      this.add(kind, { about: demand, acts: actionsFor(circuit, by, false), waitMs: this.settled, looks: own })
    if (thermostat) drop('thermostat-down', thermostat)
    if (thermostat && channel) {
      const up = actionsFor(circuit, thermostat, true)
      this.add('thermostat-up', { ...about, acts: up, waitMs: this.settled, looks: things.boilers })
    }
    if (channel) drop('channel-off', channel)
  }

  private together(): void {
    const { circuit, sim, demands } = this
    const all = demandActions(circuit, this.ids(demands))
    this.add('together', { wanted: demands, acts: changed(sim, all), waitMs: this.settled, looks: this.plant })
    for (const demand of demands) {
      const others = demands.filter((one) => one !== demand)
      // From together: all of them first, then this one dropped.
      const again = changed(sim, all)
      const before: Action[] = again.length > 0 ? [...again, { do: 'wait', ms: this.settled }] : []
      const then = sim.fork()
      perform(then, before)
      const drop = changed(then, demandActions(circuit, this.ids(others)))
      if (drop.length > 0)
        this.add('dropped-from-together', {
          about: demand,
          wanted: others,
          acts: [...before, ...drop],
          waitMs: this.settled,
          looks: this.plant,
        })
    }
  }

  /** Power on again, controls as they stood; of one that nobody wrote down it is asked whether it stands as its user wants it. */
  private leave(power: readonly Action[], turned: readonly { device: string; control: string }[]): void {
    const { stood } = this.options
    const back = turned.flatMap(({ device, control }): Extract<Action, { do: 'set' }>[] => {
      const value = stood[`${device}.${control}`]
      return value === undefined || !this.takes(device, control, value) ? [] : [{ do: 'set', device, control, value }]
    })
    const rest = turned.filter((one) => !back.some((act) => act.device === one.device && act.control === one.control))
    const { boilers } = this.things
    this.add('put-back', {
      acts: [...power, ...back],
      waitMs: 1000,
      byHand: [
        ...rest.map((control): HandCheck => ({ check: 'as-wanted', ...control })),
        ...(power.length > 0 ? boilers.map(({ device }): HandCheck => ({ check: 'lit', device })) : []),
      ],
    })
    this.add('told', { byHand: [{ check: 'told' }] })
  }

  /** Is it a value that this control can have? What was written down of another part's control may not be. */
  private takes(device: string, control: string, value: string): boolean {
    try {
      this.sim.fork().set(device, control, value)
      return true
    } catch (error) {
      if (error instanceof ActionError) return false
      throw error
    }
  }

  /** Open or shut says little of a valve that stands part way: there its lever tells. */
  private closer(see: WrittenLook): WrittenLook[] {
    if (see.at !== 'valve') return [see]
    const { circuit, sim } = this
    const isPartWay = circuit.actuators.some(({ device }, i) => {
      const position = sim.actuatorPosition(i)
      return nth(circuit.devices, device).device.id === see.device && position > 0.05 && position < 0.95
    })
    return isPartWay ? [see, { at: 'lever', device: see.device }] : [see]
  }

  /** What has not been felt to warm yet. */
  private felt(): Things['warmth'] {
    return this.things.warmth.filter(({ device }) => !this.warmed.has(device))
  }

  /** Everything at the plant that answers at once. */
  private get plant(): WrittenLook[] {
    const { boilers, valves, pumps } = this.things
    return [...boilers, ...valves, ...pumps]
  }

  private ids(demands: readonly Demand[]): string[] {
    return demands.map(({ id }) => id)
  }

  private add(kind: RowKind, { about, wanted = [], acts = [], waitMs = 0, looks = [], byHand = [] }: Wanted): void {
    for (const sim of [this.sim, ...this.others]) perform(sim, acts, waitMs)
    const seen = looks
      .flatMap((see) => this.closer(see))
      .flatMap((see): RowLook[] => {
        const look = expectedOf(this.sim, see)
        // What depends on what was asked for before the run cannot be expected.
        const isSure = this.others.every((sim) => same(expectedOf(sim, see)?.expect, look?.expect))
        return look && isSure ? [look] : []
      })
    const amiss = !onTheWay.has(kind) && doesOtherwise(this.sim)
    if (amiss) seen.splice(0, seen.length, ...callsByIntent(looks, wanted))
    // Nothing to be seen or done: no row.
    if (seen.length + byHand.length + acts.length === 0) return
    for (const { see, expect } of seen)
      if (see.at === 'warmth' && 'word' in expect && expect.word === 'warms') this.warmed.add(see.device)
    const row = {
      id: [kind, about?.id].filter(Boolean).join(' '),
      kind,
      ...(about && { demand: about.id }),
      wanted: this.ids(wanted),
      acts: [...acts],
      waitMs,
      looks: seen,
      byHand: [...byHand],
      ...(amiss && { amiss: true as const }),
    }
    this.made.push({ ...row, minutes: runMinutes(this.circuit, this.made.at(-1), row, this.options.helper) })
  }
}

/** Of some settings those that stand otherwise: nobody goes to a control that stands as it should. */
const changed = (sim: Simulation, acts: readonly Action[]): Action[] =>
  acts.filter((act) => act.do !== 'set' || String(sim.control(act.device, act.control)) !== act.value)

/** How long after some acts a boiler is called, ms; for ever where none is within a minute and a half. */
function callAfter(sim: Simulation, acts: readonly Action[]): number {
  const then = sim.fork()
  perform(then, acts)
  const isCalled = () => then.circuit.behaviours.some((_, i) => calledPhases.has(then.phase(i).phase))
  for (let ms = 0; ms <= 90_000; ms += 500) {
    if (isCalled()) return ms
    then.run(500)
  }
  return Infinity
}
