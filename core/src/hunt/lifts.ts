import { isEarthColour } from '../catalogue'
import { wiredNets, type Circuit } from '../circuit'
import type { End } from '../installation'
import { nth } from '../lists'
import type { WrittenLook } from '../looks'
import { deadLooksAt, isDeadTest } from './candidates'
import type { HuntEntry } from './case'
import { disturbedIn } from './standing'

/** An end of a conductor to be lifted, and the dead test that is then made again. */
export interface Lift {
  act: string
  see: WrittenLook
}

/** So many of the dead tests made last are worth making again with something lifted. */
const mostTests = 2

/**
 * What a dead test found of everything that is joined at its probe is told apart by lifting one conductor after the other there:
 * where the reading goes, what goes wrong lies on the conductor lifted. No earth is lifted for it, and nothing that is lifted already.
 */
export function liftsFor(circuit: Circuit, log: readonly HuntEntry[]): Lift[] {
  const tests = new Map<string, WrittenLook & { at: 'points' }>()
  for (const entry of [...log].reverse()) {
    if (!('see' in entry) || entry.see.at !== 'points' || !isDeadTest(entry.see)) continue
    if (typeof entry.found === 'string' || entry.see.with === 'earth') continue
    if (tests.size < mostTests) tests.set(JSON.stringify(entry.see), entry.see)
  }
  const lifted = liftedIn(log)
  return [...tests.values()].flatMap((see) =>
    endsJoinedTo(circuit, see.red)
      .filter((end) => !lifted.has(end))
      .map((end) => ({ act: `lift=${end}`, see })),
  )
}

/**
 * Where devices are joined side by side, none of them is read by itself: over each of their parts, with the conductor lifted by which
 * that device hangs on what is joined at the red probe. Not those of {@link liftsFor}, nor what is lifted already.
 *
 * @param devices ids, those that matter most first.
 */
export function liftsApart(circuit: Circuit, log: readonly HuntEntry[], devices: readonly string[]): Lift[] {
  const known = new Set(liftsFor(circuit, log).map((lift) => JSON.stringify(lift)))
  const lifted = liftedIn(log)
  const netOf = netsOf(circuit)
  return devices
    .flatMap((device) => {
      const own = new Set(terminalsOf(circuit, device).map(netOf))
      const isOwn = (ref: string | undefined) => ref !== undefined && own.has(netOf(ref))
      const isOver = (see: WrittenLook): see is WrittenLook & { at: 'points' } =>
        see.at === 'points' && see.with === 'resistance' && isOwn(see.red) && isOwn(see.black)
      return deadLooksAt(circuit).flatMap((see) => {
        if (!isOver(see)) return []
        const [end] = endsJoinedTo(circuit, see.red, device).filter((one) => !lifted.has(one))
        return end === undefined ? [] : [{ act: `lift=${end}`, see }]
      })
    })
    .filter((lift) => !known.has(JSON.stringify(lift)))
    .slice(0, mostApart)
}

/** More would keep waiting who is told it. */
const mostApart = 12

/** Ends that hang loose already. */
const liftedIn = (log: readonly HuntEntry[]): ReadonlySet<string> =>
  new Set(disturbedIn(log).flatMap(({ what, of }) => (what === 'lift' || what === 'park' ? [of] : [])))

/** The net that a terminal is on; undefined where there is no such terminal. */
function netsOf(circuit: Circuit): (ref: string) => number | undefined {
  const nets = wiredNets(circuit)
  return (ref) => {
    const atom = circuit.atomIndex.get(ref)
    return atom === undefined ? undefined : nth(nets, atom)
  }
}

/** Every end of a conductor on the same net that a screwdriver reaches, as `cable.core.end`; only of those that lead to some `device`. */
function endsJoinedTo(circuit: Circuit, ref: string, device?: string): string[] {
  const netOf = netsOf(circuit)
  const net = netOf(ref)
  const isReached = (end: End): boolean =>
    end.at === 'terminal' && netOf(end.terminal) === net && !isFixed(circuit, end.terminal)
  const leadsTo = (end: End): boolean =>
    device === undefined || (end.at === 'terminal' && end.terminal.startsWith(`${device}.`))
  return circuit.installation.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      isEarthColour(core.colour) || !core.ends.some(leadsTo)
        ? []
        : core.ends.flatMap((end, i) => (isReached(end) ? [`${cable.id}.${core.id}.${i}`] : [])),
    ),
  )
}

const terminalsOf = (circuit: Circuit, device: string): string[] => {
  const index = circuit.deviceIndex.get(device)
  return index === undefined ? [] : nth(circuit.devices, index).type.terminals.map(({ id }) => `${device}.${id}`)
}

/** The end of a fixed lead at its own device. */
function isFixed(circuit: Circuit, ref: string): boolean {
  const [owner = '', terminal] = ref.split('.')
  const device = circuit.deviceIndex.get(owner)
  if (device === undefined) return false
  return nth(circuit.devices, device).type.terminals.find(({ id }) => id === terminal)?.lead !== undefined
}
