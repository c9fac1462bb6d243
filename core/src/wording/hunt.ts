import type { Circuit } from '../circuit'
import type { ControlState, FindingResult, Observable, Suspect } from '../diagnosis'
import type { LookResult } from '../looks'
import { shownText } from './looks'
import { deviceName, partName, terminalName } from './names'

export const resultWords: Record<FindingResult, string> = {
  live: 'Live',
  dead: 'Not live',
  // On a three-port valve slack says that it is driven from rest, not to which end.
  open: 'Slack: driven',
  shut: 'Stiff: at rest',
  called: 'Called',
  'not-called': 'Not called',
  running: 'Running',
  'not-running': 'Not running',
  'cannot-do': "Can't do that",
  'cannot-tell': "Can't tell",
}

const nothingWrong = 'Nothing wrong: that is how it works'

export const suspectText = ({ id, label }: Pick<Suspect, 'id' | 'label'>): string =>
  id === 'nothing-wrong' ? nothingWrong : label.slice(0, 1).toUpperCase() + label.slice(1)

/** What a suspect would have shown, in the words in which it is asked for. */
export const expectedText = (expected: LookResult | 'open'): string =>
  expected !== 'open' && 'word' in expected && expected.word in resultWords
    ? resultWords[expected.word as FindingResult].toLowerCase()
    : shownText(expected)

/** What is looked at, in a few words: "Wiring centre 21 (House valve)". */
export function observableText(circuit: Circuit, observable: Observable): string {
  switch (observable.kind) {
    case 'terminal': {
      const atom = circuit.atoms[circuit.atomIndex.get(observable.terminal)!]
      const name = terminalName(circuit, observable.terminal)
      return name.includes(atom.legend) ? name : `${name} (${atom.legend})`
    }
    case 'valve':
      return `${deviceName(circuit, observable.device)} lever`
    case 'boiler':
      return `${deviceName(circuit, observable.device)} display`
    case 'pump':
      return deviceName(circuit, observable.device)
  }
}

/** The question a look answers. */
export function questionText(circuit: Circuit, observable: Observable): string {
  switch (observable.kind) {
    case 'terminal':
      return `Is ${observableText(circuit, observable)} live?`
    case 'valve':
      return `Is the lever of the ${deviceName(circuit, observable.device)} slack or stiff?`
    case 'boiler':
      return `Does the ${deviceName(circuit, observable.device).toLowerCase()} show a call?`
    case 'pump':
      return `Is the ${deviceName(circuit, observable.device).toLowerCase()} running?`
  }
}

/** How to look. */
export function methodText(circuit: Circuit, observable: Observable): string {
  switch (observable.kind) {
    case 'terminal':
      return 'Low-impedance tester, terminal to neutral. A core that is joined to nothing can show tens of volts on a high-impedance meter.'
    case 'valve':
      return 'Move the lever: slack means that the motor has driven the valve, stiff that it is at rest. No cover comes off.'
    case 'boiler':
      return 'Read the display: call, self-check or firing count as called. Overrun does not.'
    case 'pump':
      return `Hand on the ${deviceName(circuit, observable.device).toLowerCase()}: does it turn?`
  }
}

/** The state of the controls: "Programmer heating channel, House thermostat contact asking", "everything off". */
export function controlStateText(circuit: Circuit, asking: ControlState): string {
  if (asking.length === 0) return 'Everything off, thermostats down'
  return asking
    .map((key) => {
      const [device, contact] = key.split('.')
      const at = circuit.installation.intent.demands.some((d) => d.channel?.device === device)
      return at
        ? `${partName(circuit, device, contact).replace(/ channel$/, '')} on`
        : `${deviceName(circuit, device)} calling`
    })
    .join(' · ')
}
