import { severityOf } from '../checks'
import { compile, wiredNets, type Circuit } from '../circuit'
import type { ContactRef, Demand } from '../installation'
import { nth } from '../lists'
import { breachKey, explored } from '../states'
import { gatesOf, runsOf, wayOf } from '../trace'
import { probesOf } from './candidates'
import { withRewiring } from './rewiring'

/** A link across contacts of a demand, for a test: as if they had closed. */
export interface LinkOut {
  between: readonly [string, string]
  demand: Demand
  past: readonly ('channel' | 'thermostat')[]
}

/** A system with more states than this is not gone through for a link: it is not offered then. */
const mostGoneThrough = 4000
/** Per circuit and bound what was found of it: dangers as it is, and whether a link is harmless, by its ends. */
interface Judged {
  before?: ReadonlySet<string> | 'too-many'
  links: Map<string, boolean>
}
const judgedOf = new WeakMap<Circuit, Map<number, Judged>>()

/**
 * Links past a channel or a thermostat, each for one of these demands, of which all states with the link in have been looked at and
 * none is dangerous that was not before. A limit or a cut-out belongs to no demand: nothing is ever linked past it.
 */
export function linkOutsOf(circuit: Circuit, demands: ReadonlySet<string>, mostStates = mostGoneThrough): LinkOut[] {
  const byBound = judgedOf.get(circuit) ?? new Map<number, Judged>()
  judgedOf.set(circuit, byBound)
  const judged = byBound.get(mostStates) ?? { links: new Map<string, boolean>() }
  byBound.set(mostStates, judged)
  const { links } = judged
  return candidates(circuit).filter((link) => {
    if (!demands.has(link.demand.id)) return false
    const key = `${link.demand.id} ${link.between.join('+')}`
    const is = links.get(key) ?? isHarmless(circuit, link, judged, mostStates)
    links.set(key, is)
    return is
  })
}

function candidates(circuit: Circuit): LinkOut[] {
  const probe = probesOf(circuit)
  const across = (demand: Demand, ends: readonly (string | undefined)[], past: LinkOut['past']): LinkOut[] => {
    const [a, b] = ends
    return a === undefined || b === undefined || a === b ? [] : [{ between: [a, b], demand, past }]
  }
  return circuit.installation.intent.demands.flatMap((demand) => [
    ...(['channel', 'thermostat'] as const).flatMap((past) =>
      across(demand, endsOf(circuit, demand[past])?.map((ref) => probe(ref)) ?? [], [past]),
    ),
    ...across(demand, callEnds(circuit, demand), ['channel', 'thermostat']),
  ])
}

/** At the boiler itself, its call input and what feeds the contacts that call it. */
function callEnds(circuit: Circuit, { call }: Demand): string[] {
  const { type, loadIndex } = nth(circuit.devices, circuit.deviceIndex.get(call.boiler)!)
  const input = type.inputs.find(({ id }) => id === call.input)
  const run = input && runsOf(circuit).find(({ load }) => load === loadIndex.get(input.load))
  const first = run?.way.find(({ kind }) => kind !== 'leg')
  if (!input || !first) return []
  const nets = wiredNets(circuit)
  const fed = circuit.atoms.findIndex(
    ({ owner, kind }, i) => owner === call.boiler && kind === 'device' && nets[i] === nets[first.from],
  )
  return fed < 0 ? [] : [nth(circuit.atoms, fed).ref, `${call.boiler}.${input.terminal}`]
}

/** The terminals a contact lies between. */
function endsOf(circuit: Circuit, at: ContactRef | null): string[] | undefined {
  if (!at) return undefined
  const { type } = nth(circuit.devices, circuit.deviceIndex.get(at.device)!)
  const part = type.primitives.find(({ id }) => id === at.contact)
  if (part?.kind === 'contact') return [part.a, part.b].map((terminal) => `${at.device}.${terminal}`)
  if (part?.kind === 'changeover') return [part.common, part.no].map((terminal) => `${at.device}.${terminal}`)
  return undefined
}

function isHarmless(circuit: Circuit, link: LinkOut, judged: Judged, mostStates: number): boolean {
  const { between } = link
  if (passesLimit(circuit, link.between)) return false
  judged.before ??= dangersOf(circuit, mostStates)
  const { before } = judged
  if (before === 'too-many') return false
  const doc = withRewiring(circuit.installation, [{ what: 'link', of: between.join('+') }])
  const demands = withLinkOut(doc.intent.demands, link)
  const after = dangersOf(compile({ ...doc, intent: { ...doc.intent, demands } }), mostStates)
  return after !== 'too-many' && [...after].every((key) => before.has(key))
}

/** With a link in, the contacts it goes past no longer say whether its demand is wanted. */
const withLinkOut = (demands: readonly Demand[], { demand, past }: LinkOut): Demand[] =>
  demands.map((one) =>
    one.id === demand.id ? { ...one, ...Object.fromEntries(past.map((contact) => [contact, null])) } : one,
  )

/** Demands as they are asked with two terminals linked, written `wc.3+wc.7`. */
export const linkedOut = (circuit: Circuit, of: string, demands: readonly Demand[]): Demand[] =>
  candidates(circuit)
    .filter(({ between: [a, b] }) => of === `${a}+${b}` || of === `${b}+${a}`)
    .reduce(withLinkOut, [...demands])

/** Does a limit or cut-out, which only a hand sets back, stand in what the link would bridge? */
export function passesLimit(circuit: Circuit, [a, b]: readonly [string, string]): boolean {
  const at = (ref: string) => circuit.atomIndex.get(ref)!
  return gatesOf(wayOf(circuit, at(a), at(b)) ?? []).some((gate) => {
    const edge = nth(circuit.edges, gate)
    if (edge.kind !== 'contact') return false
    const { device } = nth(circuit.contacts, edge.contact)
    return circuit.sensors.some((sensor) => sensor.device === device && sensor.throws)
  })
}

/** Everything dangerous that any state shows. */
function dangersOf(circuit: Circuit, mostStates: number): ReadonlySet<string> | 'too-many' {
  const { complete, breaches } = explored(circuit, { mostStates })
  if (!complete) return 'too-many'
  return new Set(breaches.filter((b) => severityOf(b.breach) === 'danger').map((b) => breachKey(b.breach)))
}
