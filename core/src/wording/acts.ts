import { endText, terminalText } from '../catalogue'
import type { Circuit } from '../circuit'
import { controlsAfter, rewiringOf, settle, waitOf, type HuntEntry } from '../hunt'
import { formatAction, parseAction } from '../simulation'
import type { Operation } from '../trace'
import { conductorName, deviceName } from './names'

/** An act of a hunt as an instruction. `before`: the log it goes behind, which says whether a dial is turned up or down. */
export function actText(circuit: Circuit, act: string, before: readonly HuntEntry[] = []): string {
  if (act === settle) return 'Wait until everything has come to rest'
  const ms = waitOf(act)
  if (ms !== undefined) return `Wait ${waitText(ms)}`
  const rewiring = rewiringOf(act)
  if (rewiring) return rewiringText(circuit, rewiring)
  const action = parseAction(act)
  if (action.do !== 'set') return act
  return settingText(circuit, action, controlsAfter(circuit, before).get(`${action.device}.${action.control}`))
}

/** A control set, as an instruction: "House thermostat: up to 23 °C". `stands`: how it stands before. */
export function settingText(circuit: Circuit, action: Operation, stands?: string | number): string {
  const { device, control: id, value } = action
  const at = circuit.deviceIndex.get(device)
  const control = at === undefined ? undefined : circuit.devices[at].type.controls.find((c) => c.id === id)
  if (!control) return formatAction(action)
  const name = deviceName(circuit, device)
  if (control.kind === 'number')
    return `${name}: ${Number(value) < Number(stands ?? control.initial) ? 'down' : 'up'} to ${value} ${control.unit}`
  const chosen = control.values.find((v) => v.id === value)?.label ?? value
  return `${name}: ${control.label.toLowerCase()} ${chosen.toLowerCase()}`
}

/** How long something takes, to the second or the minute. */
export function waitText(ms: number): string {
  const seconds = Math.round(ms / 1000)
  return seconds < 100 ? `${seconds} s` : `${Math.round(seconds / 60)} min`
}

/** What is done to the wiring for a test, or put back after it. */
function rewiringText(circuit: Circuit, { what, of, back }: NonNullable<ReturnType<typeof rewiringOf>>): string {
  const doc = circuit.installation
  switch (what) {
    case 'link': {
      const between = of.split('+').map((ref) => terminalText(doc, ref))
      return back ? `Take the test link out: ${between.join(' to ')}` : `Link ${between.join(' to ')}, for this test`
    }
    case 'off-plate':
      return back ? `Put the ${nameOf(circuit, of)} back on its plate` : `Take the ${nameOf(circuit, of)} off its plate`
    case 'lift':
    case 'park': {
      const [cable = '', core = '', end = ''] = of.split('.')
      const found = doc.cables.find((c) => c.id === cable)?.cores.find((k) => k.id === core)
      if (!found) return of
      const where = endText(doc, found.ends[end === '1' ? 1 : 0])
      return back
        ? `Put ${conductorName(circuit, cable, core)} back: ${where}`
        : what === 'park'
          ? `Take ${conductorName(circuit, cable, core)} out and park it in a connector of its own: ${where}`
          : `Lift ${conductorName(circuit, cable, core)}: ${where}`
    }
  }
}

/** A device's name inside a sentence. */
export const nameOf = (circuit: Circuit, id: string): string =>
  circuit.deviceIndex.has(id) ? inSentence(deviceName(circuit, id)) : id

/** With a small letter, unless it begins with letters that stand for something. */
export const inSentence = (name: string): string =>
  /^[A-Z][a-z]/.test(name) ? name.slice(0, 1).toLowerCase() + name.slice(1) : name
