import type { Move, MoveNote } from './move'

/** What is done in a move, without the conductor it is done to. */
export const moveVerbs: Record<Move['do'], string> = {
  'take-off': 'Take off',
  'cut-back': 'Cut back',
  move: 'Move',
  land: 'Land',
  park: 'Park',
  leave: 'Leave alone',
  unlink: 'Take the link out',
  'cut-link': 'Cut the factory link',
  link: 'Link',
  remove: 'Take away',
  fit: 'Fit',
  exchange: 'Exchange',
  lay: 'Run a cable',
  terminal: 'Fit a further terminal',
  label: 'Label',
  finish: 'Finish',
}

const notes: Record<MoveNote['is'], string> = {
  water: 'The pipework is opened: drain down first.',
  head: 'The head alone, where it is made for the body that is there; else the body too, drained down.',
  'no-cable': 'No cable runs there yet.',
  'too-few': 'The cable that is there has too few conductors.',
  'extra-low':
    'Extra-low voltage does not share a cable with mains. A way out is a wireless one; or a cable that is rated for it.',
  alive: 'It can be live from its other end: say so on the label.',
}

export const noteText = ({ is }: MoveNote): string => notes[is]

/** A move in a line: "black of Programmer cable: from Wiring centre 7 to Wiring centre 8". */
export function moveText({ do: kind, what, from, to, sleeve }: Move): string {
  const sleeved = sleeve ? `, sleeved ${sleeve}` : ''
  switch (kind) {
    case 'take-off':
      return `${what}: off ${from}`
    case 'cut-back':
      return from === undefined ? `${what}: cut back and sleeve` : `${what}: off ${from}, cut back and sleeve`
    case 'move':
      return `${what}: from ${from} to ${to}${sleeved}`
    case 'land':
      return `${what}: to ${to}${sleeved}`
    case 'park':
      return from === undefined ? `${what}: ${to}` : `${what}: from ${from}, ${to}`
    case 'leave':
      return `${what}: stays ${to}, joined with nothing`
    case 'exchange':
      return `${what}: ${to} in its place`
    case 'lay':
      return `${what}: ${to}`
    case 'label':
      return `${what}: “${to}” instead of “${from}”`
    case 'finish':
      return `Count the links, covers on, set the controls, then the run: ${what}`
    default:
      return what
  }
}

/** What takes a move back, read in the reverse order: the same line the other way round. */
export function backText(move: Move): string {
  const { do: kind, what, from, to } = move
  switch (kind) {
    case 'take-off':
    case 'cut-back':
      return from === undefined ? `${what}: loose again` : `${what}: back on ${from}`
    case 'land':
      return `${what}: off ${to}${from === undefined ? '' : `, back on ${from}`}`
    case 'move':
    case 'park':
      return from === undefined ? `${what}: off ${to}` : `${what}: back from ${to} to ${from}`
    case 'leave':
      return `${what}: in use again where it is`
    case 'unlink':
      return `Fit the link again: ${what}`
    case 'cut-link':
      return `Close the factory link again: ${what}`
    case 'link':
      return `Take the link out again: ${what}`
    case 'remove':
      return `Fit again: ${what}`
    case 'fit':
      return `Take away again: ${what}`
    case 'exchange':
      return `${what} back in the place of ${to}`
    case 'lay':
      return `Take out again: ${what}`
    case 'terminal':
      return `Take out again: ${what}`
    case 'label':
      return `${what}: “${from}” again`
    case 'finish':
      return 'Everything dead again before the first conductor is touched'
  }
}
