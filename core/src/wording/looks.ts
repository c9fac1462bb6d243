import type { Circuit } from '../circuit'
import type { LookResult, WrittenLook } from '../looks'
import { deviceName, terminalName } from './names'

const instrumentWords: Record<Extract<WrittenLook, { at: 'points' }>['with'], string> = {
  tester: 'volts, tester',
  meter: 'volts, meter',
  continuity: 'continuity',
  resistance: 'ohms',
  insulation: 'insulation',
  earth: 'earth continuity',
  polarity: 'polarity',
  power: 'watts',
}

/** What is looked at, in a few words: "Wiring centre 21 (House valve): volts, tester". */
export function lookText(circuit: Circuit, look: WrittenLook): string {
  switch (look.at) {
    case 'points': {
      const black = look.black === undefined ? '' : ` to ${terminalName(circuit, look.black)}`
      return `${terminalName(circuit, look.red)}${black}: ${instrumentWords[look.with]}`
    }
    case 'pipe': {
      const [owner = '', connection = ''] = look.connection.split('.')
      return `${deviceName(circuit, owner)}: the pipe at ${connection}`
    }
    case 'valve':
      return `${deviceName(circuit, look.device)}: open or shut`
    case 'lever':
      return `${deviceName(circuit, look.device)}: the lever`
    case 'motor':
      return `${deviceName(circuit, look.device)}: what is heard of the motor`
    case 'clicks':
      return `${deviceName(circuit, look.device)}: clicks`
    case 'pump':
      return `${deviceName(circuit, look.device)}: does it run`
    case 'boiler':
      return `${deviceName(circuit, look.device)}: does it show a call`
    case 'display':
      return `${deviceName(circuit, look.device)}: the display`
    case 'lamps':
      return `${deviceName(circuit, look.device)}: the lamps`
    case 'flow-temperature':
      return `${deviceName(circuit, look.device)}: flow temperature`
    case 'warmth':
      return `${deviceName(circuit, look.device)}: does it warm`
    case 'fuse':
      return `${deviceName(circuit, look.device)}: the fuse`
    case 'trip':
      return `${deviceName(circuit, look.device)}: has it tripped`
    case 'spindle':
      return `${deviceName(circuit, look.device)}: the spindle, head off`
  }
}

/** What a look shows, or could show: a word, or a number with its unit. */
export function shownText(shown: LookResult | 'open'): string {
  if (shown === 'open' || 'unknown' in shown) return 'not known'
  if ('word' in shown) return shown.word.replace(/-/g, ' ')
  return shown.value === null ? `more than the instrument shows` : `${Math.round(shown.value * 10) / 10} ${shown.unit}`
}
