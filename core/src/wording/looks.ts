import type { Circuit } from '../circuit'
import { nth } from '../lists'
import { thingLookedAt, type Found, type LookResult, type WrittenLook } from '../looks'
import { inSentence, nameOf } from './acts'
import { listed } from './findings'
import { deviceName, phaseText, terminalName } from './names'

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
    case 'clock':
      return `${deviceName(circuit, look.device)}: the time it shows`
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
    case 'eyes':
      return `${thingName(circuit, look.thing)}: what is seen, cover off`
    case 'wiring':
      return `${thingName(circuit, look.thing)}: the wiring beside the drawing`
  }
}

const thingName = (circuit: Circuit, id: string): string =>
  circuit.installation.wiringCentres.find((centre) => centre.id === id)?.name ?? deviceName(circuit, id)

/** The question a look answers. */
export function questionText(circuit: Circuit, look: WrittenLook): string {
  const name = look.at === 'points' ? '' : inSentence(thingName(circuit, thingLookedAt(look)))
  switch (look.at) {
    case 'points':
      return pointsQuestion(circuit, look)
    case 'pipe': {
      const [owner = '', connection = ''] = look.connection.split('.')
      return `How warm is the pipe at ${connection} of the ${nameOf(circuit, owner)}?`
    }
    case 'valve':
      return `Does the ${name} stand open or shut?`
    case 'lever':
      return `How does the lever of the ${name} answer?`
    case 'motor':
      return `What is heard of the motor of the ${name}?`
    case 'clicks':
      return `How often does the ${name} click?`
    case 'pump':
      return `Does the ${name} run?`
    case 'boiler':
      return `Does the ${name} show a call?`
    case 'display':
      return `What does the ${name} show?`
    case 'lamps':
      return `Are the lamps of the ${name} lit?`
    case 'clock':
      return `Is the time right on the ${name}, and the day?`
    case 'flow-temperature':
      return `What flow temperature does the ${name} show?`
    case 'warmth':
      return `Does it warm: ${name}?`
    case 'fuse':
      return `Is the fuse of the ${name} whole?`
    case 'trip':
      return `Has the ${name} tripped?`
    case 'spindle':
      return `Does the spindle of the ${name} turn, head off?`
    case 'eyes':
      return `What is seen in the ${name}, cover off?`
    case 'wiring':
      return `Is the ${name} wired as it is drawn?`
  }
}

type Points = Extract<WrittenLook, { at: 'points' }>

function pointsQuestion(circuit: Circuit, { with: instrument, red, black }: Points): string {
  const at = terminalName(circuit, red)
  const to = black === undefined ? '' : ` to ${terminalName(circuit, black)}`
  switch (instrument) {
    case 'tester':
      return `Is ${at} live${to && `,${to}`}?`
    case 'meter':
      return `How many volts at ${at}${to}?`
    case 'power':
      return `How many watts are drawn at ${at}?`
    case 'polarity':
      return `Which polarity is at ${at}?`
    case 'continuity':
      return `Is there continuity from ${at}${to}?`
    case 'resistance':
      return `How many ohms from ${at}${to}?`
    case 'insulation':
      return `How many megohms from ${at}${to}?`
    case 'earth':
      return `How many ohms from ${at} to earth?`
  }
}

/** How to look. */
export function methodText(look: WrittenLook): string {
  switch (look.at) {
    case 'points':
      return pointsMethod(look)
    case 'pipe':
      return 'By hand, once there has been heat for some minutes.'
    case 'valve':
      return 'By its indicator or its lever.'
    case 'lever':
      return 'Move the lever: slack means driven from rest, stiff means at rest. No cover comes off.'
    case 'motor':
      return 'Or by the fingers, on the head.'
    case 'clicks':
      return 'Listen while the last control is set. Two relays make two clicks.'
    case 'pump':
      return 'Hand on it: a vibration under the fingers. Hot and still is seized.'
    case 'boiler':
      return 'Self-check and firing count as called. Overrun does not.'
    case 'display':
      return 'The display shows what it believes: its pump sign proves no pump.'
    case 'lamps':
      return 'A lit lamp proves a lamp, no contact.'
    case 'clock':
      return 'Mind morning and evening, the day, and summer time.'
    case 'flow-temperature':
      return 'As its display has it.'
    case 'warmth':
      return 'By hand, some minutes after the call.'
    case 'fuse':
      return 'Isolated, by eye or by ohms. A blown fuse has a cause: it is not put back before that is found.'
    case 'trip':
      return `By the position of its switch. Leave it as it is.`
    case 'spindle':
      return 'Isolated, head off, by hand.'
    case 'eyes':
      return 'Isolated, cover off. Look at the terminals, and pull each conductor gently.'
    case 'wiring':
      return 'Isolated, cover off. Each terminal with its colours, the links, how it is set up; a sleeve is somebody’s opinion.'
  }
}

function pointsMethod({ with: instrument, black }: Points): string {
  switch (instrument) {
    case 'tester':
      return `${black === undefined ? 'To neutral. ' : ''}A core joined to nothing can show tens of volts on a high-impedance meter.`
    case 'meter':
      return `High impedance${black === undefined ? ', to neutral' : ''}. Tens of volts on an open core are induced.`
    case 'power':
      return 'Round the line conductor alone, or between plug and socket.'
    case 'polarity':
      return 'Line to neutral, line to earth, neutral to earth.'
    case 'continuity':
    case 'resistance':
      return 'Dead, isolated. Other paths lie in parallel: lift one end where in doubt.'
    case 'insulation':
      return 'Dead, isolated, 500 V. Electronics disconnected first.'
    case 'earth':
      return 'Dead, isolated, from the supply’s earth.'
  }
}

const answerWords: Partial<Record<WrittenLook['at'], Record<string, string>>> = {
  points: {
    live: 'Live',
    dead: 'Not live',
    between: 'Some volts, not live',
    correct: 'Right',
    reversed: 'Reversed',
    'no-neutral': 'No neutral',
    'no-earth': 'No earth',
    unclear: 'Unclear',
  },
  lever: {
    slack: 'Slack',
    stiff: 'Stiff',
    'half-way': 'Half way',
    latched: 'Latched open',
    fixed: 'Does not move',
  },
  motor: { buzzes: 'Buzzes to and fro' },
  clicks: { one: 'One click', more: 'Two or more', none: 'No click' },
  pump: { running: 'Runs', 'not-running': 'Still' },
  clock: { right: 'Right', wrong: 'Wrong', dark: 'Shows nothing' },
  trip: { in: 'Not tripped' },
  eyes: { sound: 'All sound', loose: 'A loose conductor', burnt: 'Something burnt', water: 'Water' },
  wiring: { 'as-drawn': 'All as drawn', otherwise: 'Something is otherwise' },
}

/**
 * An answer in the words in which it is given. A display's phases are those of its device; without a circuit, of something that may no
 * longer be there, they are called as they are written down.
 */
export function answerText(
  circuit: Circuit | undefined,
  look: WrittenLook,
  found: Found | 'cannot-do' | 'cannot-tell',
): string {
  if (found === 'cannot-do') return 'Can’t do that'
  if (found === 'cannot-tell') return 'Can’t tell'
  if ('unit' in found)
    return found.value === null ? `Over the range (${found.unit})` : numberOf(found.value, found.unit)
  const { word, at } = found
  if (at) return `Otherwise at ${listed(at.map((place) => placeText(circuit, place)).sort(inOrder.compare))}`
  if (look.at === 'display' && circuit) {
    const behaviour = circuit.behaviours.findIndex((b) => nth(circuit.devices, b.device).device.id === look.device)
    return capital(behaviour < 0 ? word : phaseText(circuit, behaviour, word))
  }
  return answerWords[look.at]?.[word] ?? capital(word.replace(/-/g, ' '))
}

const inOrder = new Intl.Collator('en', { numeric: true })

/** A terminal or a set-up choice, as whoever stands before its device or wiring centre calls it: "SL", "Jumper". */
export function placeText(circuit: Circuit | undefined, place: string): string {
  const [owner = '', own = place] = place.split('.')
  if (!circuit) return own
  const there = circuit.devices[circuit.deviceIndex.get(owner) ?? -1]
  const setting = there?.type.settings.find(({ id }) => id === own)
  if (setting && !there?.type.terminals.some(({ id }) => id === own)) return setting.label
  const centre = circuit.installation.wiringCentres.find(({ id }) => id === owner)
  return terminalName(circuit, place).replace(`${there?.device.name ?? centre?.name ?? ''} `, '')
}

/** What a suspect would have shown, in the words in which it is asked for. */
export const expectedText = (circuit: Circuit, look: WrittenLook, expected: LookResult | 'open'): string =>
  expected !== 'open' && 'word' in expected ? inSentence(answerText(circuit, look, expected)) : shownText(expected)

/** Of several words those that may well be found, the likeliest first. */
const likelyWords = (chances: Readonly<Record<string, number>>): string[] =>
  Object.entries(chances)
    .filter(([, chance]) => chance >= 0.05)
    .sort(([, x], [, y]) => y - x)
    .map(([word]) => word.replace(/-/g, ' '))

const capital = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1)
const numberOf = (value: number, unit: string): string =>
  unit === 'Ω' && Math.abs(value) >= 1000
    ? `${Math.round(value / 10) / 100} kΩ`
    : `${Math.round(value * (Math.abs(value) < 10 ? 100 : 10)) / (Math.abs(value) < 10 ? 100 : 10)} ${unit}`

/** What a look shows, or could show: a word, or a number with its unit. */
export function shownText(shown: LookResult | 'open'): string {
  if (shown === 'open' || 'unknown' in shown) return 'not known'
  if ('word' in shown) return shown.word.replace(/-/g, ' ')
  if ('chances' in shown) return likelyWords(shown.chances).join(' or ')
  return shown.value === null ? 'more than the instrument shows' : numberOf(shown.value, shown.unit)
}
