import { coreName, terminalText } from '../catalogue'
import type { Circuit, Potential, StateWord } from '../circuit'
import type { Motion } from '../simulation'
import type { Claim, DemandWord, OpenPoint, Via } from '../trace'
import { numberText } from './water'

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
  'no-flow': 'waits for flow',
  firing: 'firing',
  overrun: 'overrun',
  circulating: 'circulating',
  lockout: 'locked out',
}

const deviceOf = (circuit: Circuit, id: string) => circuit.devices[circuit.deviceIndex.get(id)!]

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

/** One link of a chain of causes as a sentence without its full stop. */
export function claimText(circuit: Circuit, claim: Claim, failed: boolean): string {
  switch (claim.is) {
    case 'terminal':
      return `${terminalName(circuit, claim.ref)} is ${claim.live ? 'live' : 'not live'}`
    case 'contact': {
      const name = partName(circuit, claim.device, claim.part)
      const stands = claim.closed ? 'made' : 'open'
      return failed ? `${name} ${claim.closed ? 'is stuck made' : 'does not make'}` : `${name} is ${stands}`
    }
    case 'conductor':
      return `${conductorName(circuit, claim.cable, claim.core)} is open`
    case 'fuse':
      return `${partName(circuit, claim.device, claim.part)} has blown`
    case 'travel': {
      const name = deviceName(circuit, claim.device)
      if (failed) return claim.driven ? `${name} is driven and does not open` : `${name} stays open with its motor off`
      const actuator = actuatorOf(circuit, claim.device, claim.part)
      const moving = claim.motion === 'opening' || claim.motion === 'closing'
      const where = moving ? `, ${travelText(circuit, actuator, claim.position)}` : ''
      return `${name} is ${motionText(circuit, actuator, claim.motion)}${where}`
    }
    case 'load': {
      const name = partName(circuit, claim.device, claim.part)
      if (failed) return claim.open ? `${name} is open inside` : `${name} is stuck: it acts with no supply`
      return `${name} ${claim.energised ? 'has its supply' : 'has no supply'}`
    }
    case 'sensor': {
      const name = deviceName(circuit, claim.device)
      const felt = numberText(claim.temperature)
      if (failed) return `${name} never asks: ${felt} °C, set to ${claim.set} °C`
      return `${name} is ${claim.asks ? 'asking' : 'satisfied'}: ${felt} °C, set to ${claim.set} °C`
    }
    case 'control': {
      const { device, type } = deviceOf(circuit, claim.device)
      const control = type.controls.find((c) => c.id === claim.control)!
      return `${device.name}: ${control.label.toLowerCase()} is ${claim.value}`
    }
    case 'setting': {
      const { device, type } = deviceOf(circuit, claim.device)
      const setting = type.settings.find((s) => s.id === claim.setting)!
      const value = setting.choices?.find((c) => c.value === claim.value)?.label ?? `${claim.value} ${setting.unit}`
      return `${device.name}: ${setting.label.toLowerCase()} is ${value}`
    }
    case 'bus': {
      const name = partName(circuit, claim.device, claim.part)
      if (failed) return `${name} is silent`
      if (!claim.joined) return `${name} has nobody at the other end of its two wires`
      if (claim.what === 'link') return `${name} ${claim.heard ? 'is answered' : 'has no answer'}`
      const what = claim.what === 'heating' ? 'heating' : 'hot water'
      return `${name} ${claim.heard ? 'hears' : 'hears no'} call for ${what}`.replace('hears call', 'hears a call')
    }
    case 'flow':
      return `${claim.flows ? 'water goes' : 'no water goes'} through ${deviceName(circuit, claim.device)}`
    case 'phase':
      return `${deviceName(circuit, claim.device)}: ${phaseText(circuit, behaviourOf(circuit, claim.device, claim.part), claim.phase)}`
    case 'transformer': {
      const name = deviceName(circuit, claim.device)
      if (claim.open) return `${name} has an open winding`
      return `${name} ${claim.supplied ? 'has its supply' : 'has no supply'}`
    }
    case 'induced': {
      const beside = claim.cables.map((id) => circuit.installation.cables.find((c) => c.id === id)!.label)
      return `${terminalName(circuit, claim.ref)} picks up ${Math.round(claim.volts)} V from live conductors beside it in ${beside.join(', ')}, and acts from ${Math.round(claim.actsFrom)} V`
    }
    case 'unconnected':
      return `nothing brings ${claim.pole} to ${terminalName(circuit, claim.ref)}`
  }
}
