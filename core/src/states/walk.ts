import type { Alike } from './alike'
import type { Happening } from './happenings'
import type { UntimedPlant } from './untimed-plant'

/** Puts the places of zones that are alike into one order, so that states which differ by an exchange become one. */
export type Sorter = (text: Uint8Array) => void

export function sortersOf(plant: UntimedPlant, alike: readonly Alike[]): Sorter[] {
  return alike.map(({ devices }) => {
    const columns = devices.map((list) =>
      list.flatMap((device) =>
        plant.slots
          .map((slot, at) => ({ slot, at }))
          .filter(({ slot }) => slot.device === device)
          .sort((x, y) => (x.slot.part < y.slot.part ? -1 : 1))
          .map(({ at }) => at),
      ),
    )
    const height = columns[0].length
    const rows = columns.map(() => new Uint8Array(height))
    const less = (a: Uint8Array, b: Uint8Array) => {
      for (let i = 0; i < height; i++) if (a[i] !== b[i]) return a[i] < b[i]
      return false
    }
    return (text) => {
      for (let c = 0; c < columns.length; c++) for (let i = 0; i < height; i++) rows[c][i] = text[columns[c][i]]
      for (let c = 1; c < rows.length; c++)
        for (let k = c; k > 0 && less(rows[k - 1], rows[k]); k--) [rows[k - 1], rows[k]] = [rows[k], rows[k - 1]]
      for (let c = 0; c < columns.length; c++) for (let i = 0; i < height; i++) text[columns[c][i]] = rows[c][i]
    }
  })
}

/**
 * The way from rest to a state, told in this very installation: where states stand for others that are alike, each step is
 * taken again and the one followed that comes to the state in the list.
 */
export class Walk {
  constructor(
    private readonly plant: UntimedPlant,
    private readonly sorts: readonly Sorter[],
    private readonly states: readonly string[],
    private readonly cameFrom: readonly number[],
    private readonly cameBy: readonly Happening[],
  ) {}

  /** To a state, and one step beyond where `last` is given. */
  to(state: number, last?: Happening): Happening[] {
    const steps: { from: number; by: Happening }[] = last ? [{ from: state, by: last }] : []
    let at = state
    for (; this.cameFrom[at] >= 0; at = this.cameFrom[at]) steps.push({ from: this.cameFrom[at], by: this.cameBy[at] })
    steps.sort((x, y) => x.from - y.from)
    if (this.sorts.length === 0) return steps.map(({ by }) => by)
    const path: Happening[] = []
    let here = this.states[at]
    for (const { from, by } of steps) {
      const wanted = this.sorted(this.after(this.states[from], by)!)
      for (const happening of this.fellows(by)) {
        const text = this.after(here, happening)
        if (text === undefined || this.sorted(text) !== wanted) continue
        path.push(happening)
        here = text
        break
      }
    }
    return path
  }

  /** Everything of the same kind that could have happened instead. */
  private fellows(of: Happening): Happening[] {
    const { circuit, inputs } = this.plant
    const numbers = (n: number) => Array.from({ length: n }, (_, i) => i)
    switch (of.what) {
      case 'input':
        return numbers(inputs.length).map((input) => ({ ...of, input }))
      case 'contact':
      case 'miss':
        return numbers(circuit.contacts.length).map((contact) => ({ what: of.what, contact }))
      case 'travel':
        return numbers(circuit.actuators.length).map((actuator) => ({ what: 'travel', actuator }))
      default:
        return [of]
    }
  }

  private after(state: string, h: Happening): string | undefined {
    const { plant } = this
    plant.load(state)
    if (h.what === 'input') {
      if (plant.asks(h.input) === h.asks) return undefined
      plant.change(h.input)
      plant.changed = h.midTravel
    } else if (h.what === 'contact') {
      if (!plant.dueContacts().includes(h.contact)) return undefined
      plant.switchContact(h.contact)
    } else if (h.what === 'miss') {
      if (!plant.dueContacts().includes(h.contact) || !plant.mayMiss(h.contact)) return undefined
      plant.missContact(h.contact)
    } else if (h.what === 'travel') {
      if (!plant.movers().includes(h.actuator)) return undefined
      plant.advance(h.actuator)
    } else if (h.what === 'message') plant.deliver(h.port)
    else plant.expire(h.behaviour)
    plant.follow(() => undefined)
    return String.fromCharCode.apply(null, plant.save() as unknown as number[])
  }

  private sorted(state: string): string {
    const text = Uint8Array.from(state, (c) => c.charCodeAt(0))
    for (const sort of this.sorts) sort(text)
    return String.fromCharCode.apply(null, text as unknown as number[])
  }
}
