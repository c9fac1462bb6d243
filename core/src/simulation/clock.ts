import type { Programme, Timed } from '../catalogue'
import type { Circuit } from '../circuit'

const minuteMs = 60_000
const dayMinutes = 24 * 60
const weekMinutes = 7 * dayMinutes

/** A control that a clock works, with its week in minutes from Monday's midnight. */
interface TimedControl {
  control: number
  device: number
  id: string
  timed: Timed
  steps: { at: number; value: string | number }[]
}
/** A control that goes back by itself. */
interface Returning {
  control: number
  from: string
  ms: number
  to: string
}

/** The weeks of every timed control; the same for every simulation of a circuit. */
interface Weeks {
  timed: TimedControl[]
  byControl: Map<number, TimedControl>
  returning: Returning[]
}
const weeksByDevices = new WeakMap<Circuit['devices'], Weeks>()

/** Steps in order, in minutes of the week. */
const stepsOf = (programme: Programme) =>
  programme.map(({ day, minute, value }) => ({ at: day * dayMinutes + minute, value })).sort((x, y) => x.at - y.at)

function weeks(circuit: Circuit): Weeks {
  const before = weeksByDevices.get(circuit.devices)
  if (before) return before
  const timed: TimedControl[] = []
  const returning: Returning[] = []
  circuit.devices.forEach(({ device, type, controlIndex }, index) => {
    for (const c of type.controls) {
      const control = controlIndex.get(c.id)!
      if (c.timed)
        timed.push({
          control,
          device: index,
          id: c.id,
          timed: c.timed,
          steps: stepsOf(device.programme?.[c.id] ?? c.timed.usual),
        })
      if (c.kind === 'choice' && c.returns)
        returning.push({ control, from: c.returns.from, ms: c.returns.minutes * minuteMs, to: c.returns.to })
    }
  })
  const made = { timed, byControl: new Map(timed.map((t) => [t.control, t])), returning }
  weeksByDevices.set(circuit.devices, made)
  return made
}

/** The time of the week, and what every device's own clock makes of it. Until it is set, nothing is timed. */
export class Clock {
  private readonly weeks: Weeks
  /** Of controls that go back by themselves, when, in ms; Infinity where nothing is due. */
  private readonly back: Float64Array
  /** Minutes after Monday's midnight at time 0; undefined while the clock is not set. */
  private offset?: number
  /** By device, how many minutes more its clock shows than it is. */
  private readonly wrongBy: Map<number, number>

  constructor(circuit: Circuit, from?: Clock) {
    this.wrongBy = new Map(from?.wrongBy)
    this.weeks = weeks(circuit)
    this.back = from ? from.back.slice() : new Float64Array(this.weeks.returning.length).fill(Infinity)
    this.offset = from?.offset
  }

  get isSet(): boolean {
    return this.offset !== undefined
  }
  /** Sets it: `time` (ms) is this many minutes after Monday's midnight. */
  set(time: number, minuteOfWeek: number): void {
    this.offset = minuteOfWeek - time / minuteMs
  }
  /** Minutes after Monday's midnight, 0 to 10079 and fractions; undefined while it is not set. */
  minuteOfWeek(time: number): number | undefined {
    if (this.offset === undefined) return undefined
    const minute = (this.offset + time / minuteMs) % weekMinutes
    return minute < 0 ? minute + weekMinutes : minute
  }

  /** How many minutes more the clock of a device shows than it is. */
  wrong(device: number): number {
    return this.wrongBy.get(device) ?? 0
  }
  setWrong(device: number, minutes: number): void {
    if (minutes === 0) this.wrongBy.delete(device)
    else this.wrongBy.set(device, minutes)
  }
  /** What the clock of a device shows, as a minute of the week. */
  private shownBy(device: number, time: number): number | undefined {
    const minute = this.minuteOfWeek(time)
    const wrong = this.wrong(device)
    if (minute === undefined || wrong === 0) return minute
    return (((minute + wrong) % weekMinutes) + weekMinutes) % weekMinutes
  }

  /** When the next step of any week comes, or a control goes back, in ms. */
  nextAt(time: number): number {
    let next = Infinity
    for (const due of this.back) if (due < next) next = due
    for (const { device, steps } of this.weeks.timed) {
      const now = this.shownBy(device, time)
      if (now === undefined || steps.length < 2) continue
      // A hundredth of a millisecond: a step that is reached is not reached again.
      const coming = steps.find((s) => s.at > now + 1e-7)
      const minutes = coming ? coming.at - now : weekMinutes - now + steps[0].at
      const at = Math.ceil(time + minutes * minuteMs - 1e-4)
      if (at > time && at < next) next = at
    }
    return next
  }

  /** What the programme of a control says at this time. */
  says(control: number, time: number): string | number | undefined {
    const week = this.weeks.byControl.get(control)
    const now = week && this.shownBy(week.device, time)
    if (!week || now === undefined || week.steps.length === 0) return undefined
    return (week.steps.findLast((s) => s.at <= now + 1e-7) ?? week.steps[week.steps.length - 1]).value
  }

  /** Is a channel on by its programme? Run once a day, it stays on from the day's first on to its last off. */
  timed(control: number, mode: string | number, time: number): boolean {
    const says = this.says(control, time) === 'on'
    if (mode !== 'once' || says) return says
    const week = this.weeks.byControl.get(control)
    const now = week && this.shownBy(week.device, time)
    if (!week || now === undefined) return false
    const today = Math.floor(now / dayMinutes) * dayMinutes
    const steps = week.steps.filter((s) => s.at >= today && s.at < today + dayMinutes)
    return steps.some((s) => s.value === 'on' && s.at <= now) && steps.some((s) => s.value === 'on' && s.at > now)
  }

  /** Controls that their week, or time, turns at this moment. */
  turns(time: number, controls: readonly (string | number)[], index: (device: number, control: string) => number) {
    const turned: { control: number; value: string | number }[] = []
    this.weeks.returning.forEach(({ control, to, from }, i) => {
      if (this.back[i] > time) return
      this.back[i] = Infinity
      if (controls[control] === from) turned.push({ control, value: to })
    })
    for (const { control, device, timed, steps } of this.weeks.timed) {
      const now = this.shownBy(device, time)
      if (now === undefined || !timed.turns || timed.leaves?.includes(String(controls[control]))) continue
      if (timed.while && !timed.while.is.includes(String(controls[index(device, timed.while.control)]))) continue
      const step = steps.find((s) => Math.abs(s.at - now) < 1e-4)
      if (step && step.value !== controls[control]) turned.push({ control, value: step.value })
    }
    return turned
  }

  /** A control has been set by hand: one that goes back by itself begins to count. */
  touched(control: number, value: string | number, time: number): void {
    this.weeks.returning.forEach((r, i) => {
      if (r.control === control) this.back[i] = value === r.from ? time + r.ms : Infinity
    })
  }
}
