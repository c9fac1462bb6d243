import { isEarthColour } from '../catalogue'
import { wiredNets, type Circuit } from '../circuit'
import type { End } from '../installation'
import { nth } from '../lists'
import type { WrittenLook } from '../looks'
import { isDeadTest } from './candidates'
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
  const lifted = new Set(disturbedIn(log).flatMap(({ what, of }) => (what === 'lift' || what === 'park' ? [of] : [])))
  return [...tests.values()].flatMap((see) =>
    endsJoinedTo(circuit, see.red)
      .filter((end) => !lifted.has(end))
      .map((end) => ({ act: `lift=${end}`, see })),
  )
}

/** Every end of a conductor on the same net that a screwdriver reaches, as `cable.core.end`. */
function endsJoinedTo(circuit: Circuit, ref: string): string[] {
  const nets = wiredNets(circuit)
  const netOf = (at: string) => {
    const atom = circuit.atomIndex.get(at)
    return atom === undefined ? undefined : nth(nets, atom)
  }
  const net = netOf(ref)
  const isReached = (end: End): boolean =>
    end.at === 'terminal' && netOf(end.terminal) === net && !isFixed(circuit, end.terminal)
  return circuit.installation.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      isEarthColour(core.colour)
        ? []
        : core.ends.flatMap((end, i) => (isReached(end) ? [`${cable.id}.${core.id}.${i}`] : [])),
    ),
  )
}

/** The end of a fixed lead at its own device. */
function isFixed(circuit: Circuit, ref: string): boolean {
  const [owner = '', terminal] = ref.split('.')
  const device = circuit.deviceIndex.get(owner)
  if (device === undefined) return false
  return nth(circuit.devices, device).type.terminals.find(({ id }) => id === terminal)?.lead !== undefined
}
