import { coreName, terminalText } from '../catalogue'
import type { Circuit, Potential, StateWord } from '../circuit'
import type { Motion } from '../simulation'
import type { DemandWord, OpenPoint, Via } from '../trace'

/** All sentences Nobbet makes from references stand in this folder. English only for now. */

export const stateWords: Record<StateWord, string> = {
  live: 'Live',
  partial: 'Partial',
  dead: 'Dead',
  neutral: 'Neutral',
  earth: 'Earth',
  floating: 'Floating',
  unknown: 'Unknown',
}

/** What a word means here; behind a transformer live and neutral are its fed side and its return. */
export const meaningText = ({ state, against }: Pick<Potential, 'state' | 'against'>): string =>
  against !== undefined && state === 'live'
    ? 'joined to the fed side of its transformer'
    : against !== undefined && state === 'neutral'
      ? 'joined to the return of its transformer'
      : stateMeanings[state]

const stateMeanings: Record<StateWord, string> = {
  live: 'joined to line',
  partial: 'line reaches it only through a load',
  dead: 'held at next to 0 V through a load',
  neutral: 'joined to neutral',
  earth: 'joined to earth',
  floating: 'nothing holds it: what a meter shows here is induced',
  unknown: 'a conductor here has an end nobody has found',
}

export const demandWords: Record<DemandWord, string> = {
  satisfied: 'Satisfied',
  calling: 'Calling',
  'held-up': 'Held up',
  'not-asked': 'Not asked',
}

const phaseWords: Record<string, string> = {
  off: 'no supply',
  idle: 'idle',
  'self-check': 'self-check',
  'waits-off': 'called, waits its least time off',
  'no-flow': 'waits for flow',
  firing: 'firing',
  overrun: 'overrun',
  circulating: 'circulating',
  lockout: 'locked out',
}

export const deviceOf = (circuit: Circuit, id: string) => circuit.devices[circuit.deviceIndex.get(id)!]

export const deviceName = (circuit: Circuit, id: string): string => deviceOf(circuit, id).device.name

/** A phase in the words of the device whose it is: a heat pump runs where a boiler fires. */
export function phaseText(circuit: Circuit, behaviour: number, phase: string): string {
  return circuit.behaviours[behaviour].part.words?.[phase] ?? phaseWords[phase] ?? phase
}

/** A part behind its device's name: "Hot water valve end switch". */
export function partName(circuit: Circuit, device: string, part: string): string {
  const { device: d, type } = deviceOf(circuit, device)
  return `${d.name} ${type.primitives.find((p) => p.id === part)?.label ?? part}`
}

export function terminalName(circuit: Circuit, ref: string): string {
  const atom = circuit.atoms[circuit.atomIndex.get(ref) ?? -1]
  // A conductor's free end has no terminal: it is called by its colour, its cable and what became of it.
  return atom?.kind === 'free-end' ? atom.legend : terminalText(circuit.installation, ref)
}

export function conductorName(circuit: Circuit, cable: string, core: string): string {
  const c = circuit.installation.cables.find((x) => x.id === cable)!
  const k = c.cores.find((x) => x.id === core)!
  return coreName(c, k)
}

/** What carries a signal: "brown of Programmer", "link", "Programmer heating channel". */
export function viaText(circuit: Circuit, via: Via): string {
  switch (via.kind) {
    case 'core':
      return conductorName(circuit, via.cable, via.core)
    case 'link':
      return 'link'
    default:
      return partName(circuit, via.device, via.part)
  }
}

/** Where a demand is held up: "House valve end switch", "brown of House thermostat". */
export function openPointText(circuit: Circuit, point: OpenPoint): string {
  if (point.at === 'edge') return viaText(circuit, point.via)
  if (point.at === 'priority') {
    const name = circuit.installation.intent.demands.find((d) => d.id === point.demand)!.name
    return `${name}, which goes first`
  }
  const name = partName(circuit, point.device, point.part)
  const reason = { open: 'open inside', 'no-neutral': 'has no neutral', 'no-way-in': 'has no conductor to it' }
  return `${name}, ${reason[point.reason]}`
}

/** How an actuator stands, in a word or two: "open", "at B", "held half way", "closing". */
export function motionText(circuit: Circuit, actuator: number, motion: Motion): string {
  const { ends } = circuit.actuators[actuator].part
  if (motion === 'open' || motion === 'shut') return ends?.[motion] ?? motion
  if (motion === 'held') return 'held half way'
  if (motion === 'latched') return 'latched part open'
  return ends && motion !== 'stopped'
    ? `moving to ${motion === 'opening' ? ends.open : ends.shut}`.replace('at ', '')
    : motion
}

/** Where its travel is, in per cent: open, or of the way from one named end to the other. */
export function travelText(circuit: Circuit, actuator: number, position: number): string {
  const { ends } = circuit.actuators[actuator].part
  return `${Math.round(position * 100)}\u00a0% ${ends ? 'of travel' : 'open'}`
}

export const behaviourOf = (circuit: Circuit, device: string, part: string) =>
  deviceOf(circuit, device).behaviourIndex.get(part)!

export const actuatorOf = (circuit: Circuit, device: string, part: string) =>
  deviceOf(circuit, device).actuatorIndex.get(part)!
