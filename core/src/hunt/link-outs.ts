import { wiredNets, type Circuit } from '../circuit'
import { ownerOf, type ContactRef, type Demand } from '../installation'
import { nth } from '../lists'
import { gatesOf, runsOf, wayOf } from '../trace'
import { probesOf } from './candidates'
import { isHarmless } from './harmless'
import type { Disturbed } from './rewiring'

/** A link across contacts of a demand, for a test: as if they had closed. */
export interface LinkOut {
  between: readonly [string, string]
  demand: Demand
  past: readonly ('channel' | 'thermostat')[]
  /** Ends of conductors to be parked meanwhile, as `cable.core.end`: what the other throw of the contact feeds would feed back. */
  parked: readonly string[]
}

/** What is done to the wiring for it. */
export const disturbedBy = ({ between, parked }: LinkOut): Disturbed => [
  ...parked.map((of) => ({ what: 'park', of }) as const),
  { what: 'link', of: between.join('+') },
]

/** A link, and whether it may be offered: gone through when it is first asked for, and remembered. */
export interface LinkThoughtOf extends LinkOut {
  isOffered: () => boolean
}

/**
 * Links past a channel or a thermostat, each for one of these demands. One is offered where all states with it in have been looked at
 * and none is dangerous that was not before; with something parked, where it would not be without. A limit or a cut-out belongs to no
 * demand: nothing is ever linked past it.
 */
export function linksThoughtOf(circuit: Circuit, demands: ReadonlySet<string>, mostStates?: number): LinkThoughtOf[] {
  const isSafe = (link: LinkOut): boolean =>
    isHarmless(circuit, disturbedBy(link), (demands) => withLinkOut(demands, link), mostStates)
  return candidates(circuit).flatMap((link) =>
    !demands.has(link.demand.id) || passesLimit(circuit, link.between)
      ? []
      : [
          { ...link, isOffered: () => isSafe(link) },
          ...withParked(circuit, link).map((parked) => ({
            ...parked,
            isOffered: () => !isSafe(link) && isSafe(parked),
          })),
        ],
  )
}

/** The same link, with what hangs on the other throw of the contact it goes past parked: of every contact that has one. */
function withParked(circuit: Circuit, link: LinkOut): LinkOut[] {
  const parked = link.past.flatMap((past) => otherThrowOf(circuit, link.demand[past]))
  return parked.length > 0 ? [{ ...link, parked }] : []
}

/** The conductors on the throw of a contact that is not the demand's own, each where it comes into a wiring centre, else at the contact. */
function otherThrowOf(circuit: Circuit, at: ContactRef | null): string[] {
  const part = at && partOf(circuit, at)
  if (!part || part.kind !== 'changeover' || part.nc === undefined) return []
  const terminal = `${at.device}.${part.nc}`
  const centres = new Set(circuit.installation.wiringCentres.map((centre) => centre.id))
  return circuit.installation.cables.flatMap(({ id, cores }) =>
    cores.flatMap((core) =>
      core.ends.flatMap((end, i) => {
        if (end.at !== 'terminal' || end.terminal !== terminal) return []
        const far = core.ends[1 - i]
        const isInCentre = far?.at === 'terminal' && centres.has(ownerOf(far.terminal))
        return [`${id}.${core.id}.${isInCentre ? 1 - i : i}`]
      }),
    ),
  )
}

function candidates(circuit: Circuit): LinkOut[] {
  const probe = probesOf(circuit)
  const across = (demand: Demand, ends: readonly (string | undefined)[], past: LinkOut['past']): LinkOut[] => {
    const [a, b] = ends
    return a === undefined || b === undefined || a === b ? [] : [{ between: [a, b], demand, past, parked: [] }]
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
  const part = partOf(circuit, at)
  if (part?.kind === 'contact') return [part.a, part.b].map((terminal) => `${at.device}.${terminal}`)
  if (part?.kind === 'changeover') return [part.common, part.no].map((terminal) => `${at.device}.${terminal}`)
  return undefined
}

function partOf(circuit: Circuit, at: ContactRef) {
  const { type } = nth(circuit.devices, circuit.deviceIndex.get(at.device)!)
  return type.primitives.find(({ id }) => id === at.contact)
}

/** With a link in, the contacts it goes past no longer say whether a demand is wanted, whosever they are. */
const withLinkOut = (demands: readonly Demand[], { demand, past }: LinkOut): Demand[] =>
  demands.map((one) => {
    const isPassed = (contact: LinkOut['past'][number]) => {
      const [own, passed] = [one[contact], demand[contact]]
      return past.includes(contact) && own?.device === passed?.device && own?.contact === passed?.contact
    }
    return {
      ...one,
      channel: isPassed('channel') ? null : one.channel,
      thermostat: isPassed('thermostat') ? null : one.thermostat,
    }
  })

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
