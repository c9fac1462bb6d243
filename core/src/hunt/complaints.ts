import { z } from 'zod'
import type { Circuit } from '../circuit'
import { demandActions } from '../inputs'
import { idSchema } from '../installation'
import { calledPhases, type Simulation } from '../simulation'
import { signsOf } from '../trace'

/**
 * What a customer says of a service, or of the whole. It speaks of what was before anybody came, and is not always right.
 */
export const complaints = [
  'does-not-come-on',
  'is-fine',
  'only-with-another',
  'goes-off-when-another-is-done',
  'never-goes-off',
  'comes-on-by-itself',
  'comes-on-at-wrong-times',
  'warms-with-another',
  'gets-too-hot',
  'makes-a-noise',
  'blows-the-fuse',
] as const
export type Complaint = (typeof complaints)[number]

export const complaintSchema = z.strictObject({
  what: z.enum(complaints),
  /** Of which service: the id of a demand. Noise and fuses may be of none. */
  demand: idSchema.optional(),
})
export type Complained = z.infer<typeof complaintSchema>

/** What would be noticed of an installation once everything has come to rest. */
interface Noticed {
  /** Demands whose circuits warm. */
  warm: readonly string[]
  calls: boolean
  noise: boolean
  blown: boolean
}

/** What would be noticed of one installation, found at rest, whatever is then asked of it. */
export class Noticing {
  private readonly met = new Map<string, Noticed>()
  private readonly otherTimes = new Map<string, boolean>()

  constructor(private readonly rest: Simulation) {}

  /** Is it so, as the customer says? */
  holds({ what, demand }: Complained): boolean {
    const { circuit } = this.rest
    const { demands } = circuit.installation.intent
    const all = demands.map((d) => d.id)
    const ids = demand === undefined ? all : [demand]
    const rest = () => this.after([])
    const warmsIn = (id: string, ...asked: string[][]) => this.after(...asked).warm.includes(id)
    const others = (id: string) => all.filter((other) => other !== id)
    switch (what) {
      case 'does-not-come-on':
        return ids.every((id) => !warmsIn(id, [id]))
      case 'is-fine':
        return ids.every((id) => warmsIn(id, [id]) && !warmsIn(id, [id], []))
      case 'only-with-another':
        return ids.some((id) => !warmsIn(id, [id]) && others(id).some((other) => warmsIn(id, [id, other])))
      case 'goes-off-when-another-is-done':
        return ids.some((id) => others(id).some((other) => warmsIn(id, [id, other]) && !warmsIn(id, [id, other], [id])))
      case 'never-goes-off':
        return ids.some((id) => warmsIn(id, [id], []) || this.after([id], []).calls)
      case 'comes-on-by-itself':
        return demand === undefined ? rest().calls || rest().warm.length > 0 : rest().warm.includes(demand)
      case 'comes-on-at-wrong-times':
        return ids.some((id) => this.keepsOtherTimes(id))
      case 'warms-with-another':
        return ids.some((id) => others(id).some((other) => warmsIn(id, [other])))
      case 'gets-too-hot':
        return ids.some((id) => this.after([id], ['satisfied', id]).warm.includes(id))
      case 'makes-a-noise':
        return this.after(all).noise || ids.some((id) => this.after([id]).noise)
      case 'blows-the-fuse':
        return rest().blown || this.after(all).blown || ids.some((id) => this.after([id]).blown)
    }
  }

  /** Left to its clocks, does the boiler work at other times of the day than it would with all of them right? */
  private keepsOtherTimes(demand: string): boolean {
    const known = this.otherTimes.get(demand) ?? otherTimesOf(this.rest, demand)
    this.otherTimes.set(demand, known)
    return known
  }

  /** After these demands were asked, one set after the other, each until nothing moved; `satisfied` first: warm enough, channel on. */
  private after(...asked: string[][]): Noticed {
    const key = JSON.stringify(asked)
    let noticed = this.met.get(key)
    if (!noticed) {
      const sim = this.rest.fork()
      for (const ids of asked) {
        ask(sim, ids)
        sim.settle()
      }
      noticed = noticedOf(sim)
      this.met.set(key, noticed)
    }
    return noticed
  }
}

function otherTimesOf(rest: Simulation, demand: string): boolean {
  const { circuit } = rest
  const wrong = circuit.devices.flatMap(({ device }, i) => (rest.lostTime(i) ? [device.id] : []))
  if (wrong.length === 0) return false
  const [as, right] = [rest.fork(), rest.fork()]
  for (const id of wrong) right.setLostTime(id, 0)
  for (const sim of [as, right]) {
    ask(sim, [demand])
    for (const action of demandActions(circuit, [demand]))
      if (action.do === 'set' && hasTimes(circuit, action)) sim.set(action.device, action.control, 'timed')
    sim.setClock(0)
  }
  const calls = (sim: Simulation) => circuit.behaviours.map((_, i) => calledPhases.has(sim.phase(i).phase)).join()
  for (let looked = 0; looked < looksADay; looked++) {
    for (const sim of [as, right]) sim.run((24 * 3_600_000) / looksADay)
    if (calls(as) !== calls(right)) return true
  }
  return false
}
const looksADay = 48

function hasTimes(
  { devices, deviceIndex }: Circuit,
  { device, control }: { device: string; control: string },
): boolean {
  const kind = devices[deviceIndex.get(device) ?? -1]?.type.controls.find(({ id }) => id === control)
  return kind?.kind === 'choice' && kind.values.some(({ id }) => id === 'timed')
}

function ask(sim: Simulation, ids: readonly string[]): void {
  const { circuit } = sim
  const satisfied = ids[0] === 'satisfied'
  for (const action of satisfied ? satisfying(circuit, ids.slice(1)) : demandActions(circuit, ids))
    if (action.do === 'set' && String(sim.control(action.device, action.control)) !== action.value)
      sim.set(action.device, action.control, action.value)
}

/** The channels of some demands on, their thermostats warm enough. */
function satisfying(circuit: Circuit, ids: readonly string[]) {
  const thermostats = new Set(
    circuit.installation.intent.demands.flatMap(({ id, thermostat }) =>
      ids.includes(id) && thermostat ? [thermostat.device] : [],
    ),
  )
  const rest = demandActions(circuit, [])
  return [
    ...demandActions(circuit, ids).filter((a) => a.do === 'set' && !thermostats.has(a.device)),
    ...rest.filter((a) => a.do === 'set' && thermostats.has(a.device)),
  ]
}

function noticedOf(sim: Simulation): Noticed {
  const { circuit } = sim
  const { warm, blown } = signsOf(sim)
  return {
    warm,
    calls: circuit.behaviours.some((_, i) => calledPhases.has(sim.phase(i).phase)),
    noise: sim.hunting,
    blown: blown.length > 0,
  }
}
