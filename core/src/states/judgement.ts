import type { Outcome, Settled } from './exploration'
import type { Happening } from './happenings'
import { circuitKnown, circuitOpen, wanted } from '../trace'
import {
  breachKey,
  isolationBreaches,
  settledBreaches,
  transientBreaches,
  type Breach,
  type PropertyId,
} from './properties'
import type { UntimedPlant } from './untimed-plant'

export const unsettled: Breach = { property: 'settles', demands: [], devices: [], terminals: [] }

/** What the states of a plant come to: each breach where it showed first, and a row for each set of demands. */
export class Judgement {
  /** By {@link breachKey}: in which state, and after which step beyond it. */
  readonly first = new Map<string, { breach: Breach; state: number; by?: Happening }>()
  /** How often each property had something to judge by. */
  readonly looked = new Map<PropertyId, number>()
  /** A breach was found at which the exploration was to be left. */
  enough = false
  private readonly rows = new Map<string, Omit<Settled, 'outcomes'> & { outcomes: Map<string, Outcome> }>()
  private readonly isolations = new Map<string, Breach[]>()

  constructor(
    private readonly plant: UntimedPlant,
    private readonly until?: (breach: Breach) => boolean,
  ) {}

  note(state: number, breaches: readonly Breach[], by?: Happening): void {
    for (const breach of breaches) {
      const key = breachKey(breach)
      if (this.first.has(key)) continue
      this.first.set(key, { breach, state, by })
      if (this.until?.(breach)) this.enough = true
    }
  }

  /** What is wrong in whatever state the plant is in, at rest or not. */
  transient(): Breach[] {
    return transientBreaches(this.plant, this.count)
  }

  /** What is wrong in the settled state that the plant is in; its row of the table is kept. */
  settled(): Breach[] {
    const { plant } = this
    const others = plant.inputs.filter(({ ofNoDemand }, i) => ofNoDemand && plant.asks(i) !== ofNoDemand.asks)
    const breaches = settledBreaches(plant, others.length === 0, this.count)
    const row = outcomeOf(plant)
    const disturbed = others.map((input) => input.device)
    const key = `${row.wanted.join(' ')}|${disturbed.join(' ')}`
    let rows = this.rows.get(key)
    if (!rows) this.rows.set(key, (rows = { wanted: row.wanted, disturbed, outcomes: new Map(), right: true }))
    if (breaches.length > 0) rows.right = false
    rows.outcomes.set(JSON.stringify(row.outcome), row.outcome)
    return [...breaches, ...this.isolation()]
  }

  table(): Settled[] {
    return [...this.rows.values()].map((row) => ({ ...row, outcomes: [...row.outcomes.values()] }))
  }

  /** What is live in spite of its isolator depends on the contacts alone. */
  private isolation(): readonly Breach[] {
    const { plant } = this
    const contacts = plant.contactsText
    let found = this.isolations.get(contacts)
    if (!found) this.isolations.set(contacts, (found = isolationBreaches(plant.circuit, plant.joins, this.count)))
    return found
  }

  private readonly count = (property: PropertyId): void =>
    void this.looked.set(property, (this.looked.get(property) ?? 0) + 1)
}

function outcomeOf(plant: UntimedPlant): { wanted: string[]; outcome: Outcome } {
  const { circuit } = plant
  const { demands } = circuit.installation.intent
  const calls = circuit.devices.flatMap(({ device, type, loadIndex }) =>
    type.inputs
      .filter((input) => plant.loadEnergised(loadIndex.get(input.load)!))
      .map((input) => `${device.id}.${input.id}`),
  )
  const open = demands
    .filter((d) => d.circuit.valves.length > 0 && circuitKnown(circuit, d) && circuitOpen(plant, d))
    .map((d) => d.id)
  const runs = circuit.loads.flatMap((l, i) =>
    l.part.work && plant.loadWorking(i) ? [circuit.devices[l.device].device.id] : [],
  )
  return { wanted: demands.filter((d) => wanted(plant, d)).map((d) => d.id), outcome: { calls, open, runs } }
}
