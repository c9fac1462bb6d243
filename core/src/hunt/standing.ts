import type { Circuit } from '../circuit'
import { isSetByHand } from '../inputs'
import { nth } from '../lists'
import { passes, settle } from './acts'
import type { HuntEntry } from './case'
import { backText, disturbedAfter, isDisturbed, rewiringOf, type Disturbed } from './rewiring'

/** Where every control stands after a log, as `device.control`: what was set last, else where it stood to begin with. */
export function controlsAfter({ controls, devices }: Circuit, log: readonly HuntEntry[]): Map<string, string> {
  const stands = new Map(
    controls.map(({ device, id, initial }) => [`${nth(devices, device).device.id}.${id}`, String(initial)]),
  )
  for (const entry of log) {
    if (!('do' in entry)) continue
    const eq = entry.do.indexOf('=')
    if (stands.has(entry.do.slice(0, eq))) stands.set(entry.do.slice(0, eq), entry.do.slice(eq + 1))
  }
  return stands
}

/** Acts as a log has them. */
export const asEntries = (acts: readonly string[]): HuntEntry[] => acts.map((text) => ({ id: text, do: text }))

/** Does a control stand as this act, `device.control=value`, would set it? */
export const standsSo = (stands: ReadonlyMap<string, string>, act: string): boolean =>
  stands.get(act.slice(0, act.indexOf('='))) === act.slice(act.indexOf('=') + 1)

/** The services that the customer spoke of, by their demands. */
export const complainedOf = (log: readonly HuntEntry[]): ReadonlySet<string> =>
  new Set(log.flatMap((entry) => ('says' in entry && entry.says.demand !== undefined ? [entry.says.demand] : [])))

/** What is disturbed for tests after a log, and not yet put back. What does not follow from the log is left out: it is a misfit. */
export function disturbedIn(log: readonly HuntEntry[]): Disturbed {
  let disturbed: Disturbed = []
  for (const entry of log) {
    const rewiring = 'do' in entry ? rewiringOf(entry.do) : undefined
    if (rewiring && rewiring.back === isDisturbed(disturbed, rewiring)) disturbed = disturbedAfter(disturbed, rewiring)
  }
  return disturbed
}

/**
 * The state somebody looks in, as a name: how the controls stand, which parts are new, and what has passed since the last of that.
 * What went before is not in it: a valve that stays over may show otherwise in what has the same name.
 */
export function stateAfter(circuit: Circuit, log: readonly HuntEntry[]): string {
  const controls = [...controlsAfter(circuit, log)].map(([control, value]) => `${control}=${value}`)
  const disturbed = disturbedIn(log).map(({ what, of }) => `${what}=${of}`)
  const renewed = log.flatMap((entry) =>
    'renew' in entry ? [`new ${entry.renew} ${entry.part ?? ''}`] : 'mended' in entry ? [`mended ${entry.mended}`] : [],
  )
  const last = log.findLastIndex(
    (entry) => 'renew' in entry || 'mended' in entry || ('do' in entry && !passes(entry.do)),
  )
  const passed = log.slice(last + 1).flatMap((entry) => ('do' in entry ? [entry.do] : []))
  return [...controls, ...disturbed, ...renewed, ...(passed.includes(settle) ? [settle] : passed)].join(' ')
}

/**
 * What is left otherwise than the document has it, as the acts that put it back: what was done to the wiring for a test, then
 * switches and dials. How a thing came to stand by itself is none of that.
 */
export function toPutBack(circuit: Circuit, log: readonly HuntEntry[]): string[] {
  const own = new Set(
    circuit.controls.flatMap(({ device, id }) => {
      const { device: owner } = nth(circuit.devices, device)
      return isSetByHand(circuit, owner.id, id) ? [`${owner.id}.${id}`] : []
    }),
  )
  const stands = controlsAfter(circuit, log)
  const moved = [...controlsAfter(circuit, [])].filter(
    ([control, value]) => own.has(control) && stands.get(control) !== value,
  )
  return [...disturbedIn(log).map(backText), ...moved.map(([control, value]) => `${control}=${value}`)]
}
