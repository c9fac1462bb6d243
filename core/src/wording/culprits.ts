import type { Culprit } from '../checks'
import type { Circuit } from '../circuit'
import type { Departed } from '../departures'
import { coreText, listed } from './findings'
import { terminalName } from './names'

/** A terminal with what is written beside it: "Wiring centre 29 (Boiler call)". */
function placeText(circuit: Circuit, ref: string): string {
  const [owner, id] = ref.split('.')
  const centre = circuit.installation.wiringCentres.find((c) => c.id === owner)
  const legend = centre?.terminals.find((t) => t.id === id)?.legend
  return `${terminalName(circuit, ref)}${legend ? ` (${legend})` : ''}`
}

/** What departs: "black of Boiler cable is in Wiring centre 5 (Line), planned in Wiring centre 29 (Boiler call)". */
export const culpritText = (circuit: Circuit, { what, by }: Culprit): string => departedText(circuit, what, by)

/** {@link culpritText}, of what departs from a plan, or by what was found by trying. */
export function departedText(circuit: Circuit, what: Departed, by: Culprit['by']): string {
  const name = (t: string) => placeText(circuit, t)
  switch (what.kind) {
    case 'core': {
      const is = what.at === '' ? 'on nothing' : `in ${name(what.at)}`
      const belongs =
        by === 'plan' ? `planned in ${name(what.belongs)}` : `it does what is needed in ${name(what.belongs)}`
      return `${coreText(circuit, what.core)} is ${is}, ${belongs}`
    }
    case 'core-gone':
      return `${what.colour} of ${what.label} is planned, and is not there`
    case 'core-extra':
      return `${what.colour} of ${what.label} is in no plan`
    case 'exchanged':
      return `${listed(what.cores.map((core) => coreText(circuit, core)))} are exchanged`
    case 'link':
      return `${what.made === 'factory' ? 'The factory link' : 'The link'} between ${listed(what.between.map(name))} is in, and should be out`
    case 'link-missing':
      return `A link between ${listed(what.between.map(name))} is missing`
    case 'factory-link-cut':
      return `The factory link between ${listed(what.between.map(name))} is cut, and should be in`
    case 'setting': {
      const { device, type } = circuit.devices[circuit.deviceIndex.get(what.device)!]
      const setting = type.settings.find((s) => s.id === what.setting)!
      const value = (v: number) => setting.choices?.find((c) => c.value === v)?.label ?? `${v} ${setting.unit}`
      return `${device.name}, ${setting.label.toLowerCase()}: stands at “${value(what.stands)}”, needed at “${value(what.belongs)}”`
    }
  }
}

/** What is known of every culprit that is named: it was put right on a copy, and everything looked at again. */
export const culpritBasis = 'Tried out: put right, this is gone and nothing worse follows.'
