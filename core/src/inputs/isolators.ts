import { across, edgesAt, type AtomId, type Circuit, type CompiledSource } from '../circuit'
import type { Condition } from '../catalogue'
import { nth } from '../lists'
import type { Action } from '../simulation'

/** A control of a supply's own device by which it is parted from all it feeds: its value for that, and the one that feeds again. */
export interface Isolator {
  device: string
  control: string
  off: string
  on: string
}

/** Per supply what parts it. */
const known = new WeakMap<Circuit, readonly (readonly Isolator[])[]>()

/**
 * What isolates an installation: of every supply the controls that part both its poles from all it feeds, found by going over the
 * contacts of its own device. One control where one will do, a switch rather than what trips by itself. None at all where a supply
 * has nothing of its own that parts it: such an installation is isolated elsewhere, and nothing here may be called isolated.
 */
export function isolatorsOf(circuit: Circuit): readonly Isolator[] {
  const each = isolatorsOfEach(circuit)
  return each.some((own) => own.length === 0) ? [] : each.flat()
}

/** The devices, by their ids, of supplies that have nothing of their own by which line and neutral are parted from all they feed. */
export const unpartedSupplies = (circuit: Circuit): string[] =>
  circuit.sources.flatMap((source, i) =>
    nth(isolatorsOfEach(circuit), i).length === 0 ? [nth(circuit.devices, source.device).device.id] : [],
  )

function isolatorsOfEach(circuit: Circuit): readonly (readonly Isolator[])[] {
  let found = known.get(circuit)
  if (!found) known.set(circuit, (found = circuit.sources.map((source) => isolatorsOfSource(circuit, source))))
  return found
}

/** What opens every isolator, or closes it again; nothing where there is none. */
export const supplyActions = (circuit: Circuit, on: boolean): Action[] =>
  isolatorsOf(circuit).map((one) => ({
    do: 'set',
    device: one.device,
    control: one.control,
    value: on ? one.on : one.off,
  }))

/** Does a hand set this control? Not how a thing has come to stand by itself, nor the world around it; a supply's switch always. */
export function isSetByHand(circuit: Circuit, device: string, control: string): boolean {
  const owner = circuit.devices[circuit.deviceIndex.get(device) ?? -1]
  const own = owner?.type.controls.find(({ id }) => id === control)
  if (own === undefined) return false
  return !own.ambient || isolatorsOf(circuit).some((one) => one.device === device && one.control === control)
}

function isolatorsOfSource(circuit: Circuit, source: CompiledSource): Isolator[] {
  const { device: owner, type } = nth(circuit.devices, source.device)
  const thrown = new Set(
    type.primitives.flatMap((part) => ('throws' in part && part.throws !== undefined ? [part.throws.control] : [])),
  )
  const ways = type.controls.flatMap((control): Isolator[] => {
    if (control.kind !== 'choice') return []
    const opening = control.values.filter(({ id }) => isOpenedBy(circuit, source.device, new Map([[control.id, id]])))
    const feeds = (value: { id: string }) => !opening.some(({ id }) => id === value.id)
    const on = feeds({ id: control.initial }) ? control.initial : control.values.find(feeds)?.id
    return on === undefined ? [] : opening.map(({ id: off }) => ({ device: owner.id, control: control.id, off, on }))
  })
  const parts = (some: readonly Isolator[]) =>
    !feedsOut(circuit, source, new Map(some.map(({ control, off }) => [control, off])))
  const single = ways.filter((one) => parts([one]))
  const one = single.find(({ control }) => !thrown.has(control)) ?? single[0]
  if (one) return [one]
  const together = ways.filter(({ control }, i) => ways.findIndex((other) => other.control === control) === i)
  return parts(together) ? together : []
}

const isOpenedBy = (circuit: Circuit, device: number, set: ReadonlyMap<string, string>): boolean =>
  circuit.contacts.some((contact) => contact.device === device && isOpen(contact, set))

/** Does line or neutral still come to a terminal of the supply's own device, with some of its controls set so and anything else as may be? */
function feedsOut(circuit: Circuit, source: CompiledSource, set: ReadonlyMap<string, string>): boolean {
  const { id } = nth(circuit.devices, source.device).device
  const own = (atom: AtomId) => nth(circuit.atoms, atom).owner === id
  const seen = new Set<AtomId>([source.line, source.neutral])
  for (const atom of seen) {
    if (nth(circuit.atoms, atom).kind !== 'internal') return true
    for (const index of edgesAt(circuit, atom)) {
      const edge = nth(circuit.edges, index)
      if (edge.kind === 'contact' && isOpen(nth(circuit.contacts, edge.contact), set)) continue
      const next = across(edge, atom)
      if (own(next)) seen.add(next)
    }
    for (const { a, b, of } of circuit.branches)
      if (of.kind === 'load' && (a === atom || b === atom) && own(a) && own(b)) seen.add(a === atom ? b : a)
  }
  return false
}

const isOpen = (
  { closedWhen, inverted }: { closedWhen: Condition; inverted: boolean },
  set: ReadonlyMap<string, string>,
): boolean => holds(closedWhen, set) === inverted

/** Does a condition hold whatever all else does? Undefined where that is open. */
function holds(condition: Condition, set: ReadonlyMap<string, string>): boolean | undefined {
  if ('control' in condition) {
    const value = set.get(condition.control)
    return value === undefined ? undefined : condition.is.includes(value)
  }
  if ('not' in condition) {
    const inner = holds(condition.not, set)
    return inner === undefined ? undefined : !inner
  }
  if ('all' in condition) return allHold(condition.all.map((one) => holds(one, set)))
  if ('any' in condition) {
    const none = allHold(condition.any.map((one) => negated(holds(one, set))))
    return negated(none)
  }
  return undefined
}

const negated = (value: boolean | undefined) => (value === undefined ? undefined : !value)

function allHold(values: readonly (boolean | undefined)[]): boolean | undefined {
  if (values.includes(false)) return false
  return values.includes(undefined) ? undefined : true
}
