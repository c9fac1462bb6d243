import type { Circuit } from '../circuit'
import type { Claim } from '../trace'
import { departedText } from './culprits'
import {
  actuatorOf,
  behaviourOf,
  conductorName,
  deviceName,
  deviceOf,
  motionText,
  partName,
  phaseText,
  terminalName,
  travelText,
} from './names'
import { numberText } from './water'

/** One link of a chain of causes as a sentence without its full stop. */
export function claimText(circuit: Circuit, claim: Claim, failed: boolean): string {
  switch (claim.is) {
    case 'terminal':
      if (claim.pole === 'neutral')
        return `${terminalName(circuit, claim.ref)} has ${claim.reached ? 'its' : 'no'} neutral`
      return `${terminalName(circuit, claim.ref)} is ${claim.reached ? 'live' : 'not live'}`
    case 'contact': {
      const name = partName(circuit, claim.device, claim.part)
      const stands = claim.closed ? 'made' : 'open'
      return failed ? `${name} ${claim.closed ? 'is stuck made' : 'does not make'}` : `${name} is ${stands}`
    }
    case 'conductor':
      return `${conductorName(circuit, claim.cable, claim.core)} is open`
    case 'departure':
      return departedText(circuit, claim.what, 'plan')
    case 'short': {
      if (claim.poles === 'secondary') return `both sides of ${deviceName(circuit, claim.device)} are joined`
      const [one, other] = claim.poles.split('-')
      return `${one} is joined to ${other}`
    }
    case 'insulation':
      return `${partName(circuit, claim.device, claim.part)} lets current through to earth`
    case 'port':
      return `${deviceName(circuit, claim.device)} lets water by while it is shut`
    case 'thrown': {
      const { device, type } = deviceOf(circuit, claim.device)
      const control = type.controls.find((c) => c.id === claim.control)!
      return `${device.name}: ${control.label.toLowerCase()} has gone to ${claim.value} by itself`
    }
    case 'fuse':
      return `${partName(circuit, claim.device, claim.part)} has blown`
    case 'travel': {
      const name = deviceName(circuit, claim.device)
      if (failed && claim.turned) return `${name} has its head on the wrong way round`
      if (failed) return claim.driven ? `${name} is driven and does not open` : `${name} stays open with its motor off`
      const actuator = actuatorOf(circuit, claim.device, claim.part)
      const moving = claim.motion === 'opening' || claim.motion === 'closing'
      const where = moving ? `, ${travelText(circuit, actuator, claim.position)}` : ''
      return `${name} is ${motionText(circuit, actuator, claim.motion)}${where}`
    }
    case 'load': {
      const name = partName(circuit, claim.device, claim.part)
      if (claim.jammed && failed) return `${name} has its supply and does not turn`
      if (failed) return claim.open ? `${name} is open inside` : `${name} is stuck: it acts with no supply`
      return `${name} ${claim.energised ? 'has its supply' : 'has no supply'}`
    }
    case 'through':
      return `it is fed through ${partName(circuit, claim.device, claim.part)}, which has no way back of its own`
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
