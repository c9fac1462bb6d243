import type { Circuit } from '../circuit'
import type { Scenario } from '../heat'
import { Rig } from '../hypotheses'
import type { Action } from '../simulation'
import { demandStates, signsOf, warmUnasked } from '../trace'

export interface WeekPlan {
  scenario: Scenario
  /** Where knobs are set before it begins. */
  actions: readonly Action[]
  /** 1 to 7, from Monday's midnight. */
  days: number
}

/** From one minute of the week to another. */
export interface Span {
  from: number
  to: number
}
/** One line of the chart: a temperature by sample. */
export interface TemperatureCourse {
  /** `place`, `device`: whose it is. */
  of: string
  celsius: number[]
}
export interface DemandWeek {
  demand: string
  /** Wanted: its channel on and its thermostat asking. */
  wanted: Span[]
  /** Its circuit warm. */
  warm: Span[]
}
/** Something a person would want to know of, with the minute it first happened. */
export type WeekNote =
  | { note: 'lockout'; device: string; minute: number }
  | { note: 'limit' | 'fuse' | 'burnt'; device: string; part: string; minute: number }
  | { note: 'unasked'; demand: string; minute: number; minutes: number }
  | { note: 'dead-head'; device: string; minute: number; minutes: number }
  | { note: 'hunting'; minute: number }

export interface WeekResult {
  /** Minutes of the week at which temperatures were taken. */
  minutes: number[]
  outdoors: number[]
  rooms: TemperatureCourse[]
  cylinders: TemperatureCourse[]
  water: TemperatureCourse[]
  demands: DemandWeek[]
  /** Of every boiler, while it fires. */
  fires: { device: string; spans: Span[] }[]
  /** kWh. */
  energy: {
    brought: { device: string; kWh: number }[]
    gains: number
    lost: { place: string; kWh: number }[]
    cylinders: number
    drawn: number
    stored: number
  }
  notes: WeekNote[]
  /** Minute at which it was left, since the installation hunts and would do so without end; left out, it was lived to its end. */
  leftAt?: number
}

const minuteMs = 60_000
/** Temperatures are taken, and demands looked at, this often, minutes. */
export const sampleMinutes = 5
/** What stays this long is told, minutes: a valve that warms another circuit in passing is not. */
const toldFrom = 10

/**
 * A week as it is lived, yielding how much of it is done (0 to 1) every simulated hour, so that whoever waits can show it or
 * stop. Throws ActionError where an action does not fit.
 */
export function* liveThrough(circuit: Circuit, { scenario, actions, days }: WeekPlan): Generator<number, WeekResult> {
  const rig = Rig.after(circuit, [...actions, { do: 'clock', minuteOfWeek: 0 }, { do: 'heat', scenario }])
  const sim = rig.simulation
  const start = sim.time
  const { lumps } = sim.heat!
  const { sources } = circuit.water
  const idOf = (device: number) => circuit.devices[device].device.id
  const { demands } = circuit.installation.intent
  const week = {
    minutes: [] as number[],
    outdoors: [] as number[],
    rooms: lumps.rooms.map((r) => ({ of: r.place, celsius: [] as number[] })),
    cylinders: circuit.water.stores.map((s) => ({ of: idOf(s.device), celsius: [] as number[] })),
    water: sources.flatMap((s, i) =>
      lumps.sourceLump[i] === undefined ? [] : [{ of: idOf(s.device), celsius: [] as number[] }],
    ),
    demands: demands.map((d) => ({ demand: d.id, wanted: [] as Span[], warm: [] as Span[] })),
  }
  const unasked = new Map<string, Span[]>()
  const deadHeads = new Map<string, Span[]>()
  const note = (spans: Span[], minute: number) => extend(spans, minute)
  const spansOf = (map: Map<string, Span[]>, key: string) => {
    if (!map.has(key)) map.set(key, [])
    return map.get(key)!
  }
  let total = days * 24 * 60
  let leftAt: number | undefined
  for (let minute = 0; minute <= total; minute += sampleMinutes) {
    const heat = sim.heat!
    week.minutes.push(minute)
    week.outdoors.push(heat.outdoorsAt(sim.time))
    week.rooms.forEach((r, i) => r.celsius.push(heat.celsius[lumps.rooms[i].lump]))
    week.cylinders.forEach((c, i) => c.celsius.push(heat.celsius[lumps.stores[i].lump]))
    const watered = lumps.sourceLump.filter((l) => l !== undefined)
    week.water.forEach((w, i) => w.celsius.push(heat.celsius[watered[i]]))
    const signs = signsOf(sim)
    demandStates(sim).forEach(({ word }, i) => {
      if (word === 'calling' || word === 'held-up') note(week.demands[i].wanted, minute)
      if (signs.warm.includes(demands[i].id)) note(week.demands[i].warm, minute)
    })
    if (sim.nextEventAt() === Infinity) for (const { id } of warmUnasked(sim)) note(spansOf(unasked, id), minute)
    for (const load of signs.deadHeads) note(spansOf(deadHeads, idOf(circuit.loads[load].device)), minute)
    if (minute === total) break
    if (sim.run(sampleMinutes * minuteMs) !== 'passed') {
      leftAt = total = minute
      break
    }
    if ((minute + sampleMinutes) % 60 === 0) yield (minute + sampleMinutes) / total
  }
  const at = (time: number) => (time - start) / minuteMs
  const lasting = (map: Map<string, Span[]>) =>
    [...map].flatMap(([key, spans]) => {
      const minutes = spans.reduce((sum, s) => sum + s.to - s.from, 0)
      return minutes >= toldFrom ? [{ key, minute: spans[0].from, minutes }] : []
    })
  const notes: WeekNote[] = sim.history.flatMap((e): WeekNote[] => {
    if (e.time < start) return []
    if (e.kind === 'phase' && e.phase === 'lockout') return [{ note: 'lockout', device: e.device, minute: at(e.time) }]
    if (e.kind === 'limit' || e.kind === 'fuse' || e.kind === 'burnt')
      return [{ note: e.kind, device: e.device, part: e.part, minute: at(e.time) }]
    return e.kind === 'hunting' ? [{ note: 'hunting', minute: at(e.time) }] : []
  })
  notes.push(
    ...lasting(unasked).map(({ key, ...rest }): WeekNote => ({ note: 'unasked', demand: key, ...rest })),
    ...lasting(deadHeads).map(({ key, ...rest }): WeekNote => ({ note: 'dead-head', device: key, ...rest })),
  )
  const ledger = sim.heat!.ledger
  return {
    ...week,
    fires: circuit.behaviours.map(({ device }) => ({
      device: idOf(device),
      spans: firing(sim.history, idOf(device), at, total),
    })),
    energy: {
      brought: sources.map((s, i) => ({ device: idOf(s.device), kWh: ledger.brought[i] / 1000 })),
      gains: ledger.gains / 1000,
      lost: lumps.rooms.map((r, i) => ({ place: r.place, kWh: ledger.lost[i] / 1000 })),
      cylinders: ledger.storeLost.reduce((a, b) => a + b, 0) / 1000,
      drawn: ledger.drawn / 1000,
      stored: ledger.stored / 1000,
    },
    notes: notes.sort((x, y) => x.minute - y.minute),
    ...(leftAt !== undefined && { leftAt }),
  }
}

/** Adds a sample to spans: the last one goes on, or a new one begins. */
function extend(spans: Span[], minute: number): void {
  const last = spans[spans.length - 1]
  if (last && last.to === minute) last.to = minute + sampleMinutes
  else spans.push({ from: minute, to: minute + sampleMinutes })
}

/** While a boiler fires or its circulator runs, to the millisecond. */
function firing(history: Rig['simulation']['history'], device: string, at: (time: number) => number, total: number) {
  const spans: Span[] = []
  let since: number | undefined
  for (const e of history) {
    if (e.kind !== 'phase' || e.device !== device) continue
    const fires = e.phase === 'firing' || e.phase === 'circulating'
    if (fires && since === undefined) since = Math.max(0, at(e.time))
    if (!fires && since !== undefined) {
      if (at(e.time) > 0) spans.push({ from: since, to: at(e.time) })
      since = undefined
    }
  }
  if (since !== undefined) spans.push({ from: since, to: total })
  return spans
}
