import { endText, terminalText } from '../catalogue'
import type { ConductorDifference, LinkDifference, RecordedEnd } from '../bench'
import type { Core, Installation } from '../installation'

/** "black of Boiler cable". */
export const differingName = ({ cable, was, is }: ConductorDifference): string =>
  `${(is ?? was)!.colour} of ${cable.label}`

/** What a conductor was before, and is after: its two ends, or where those stay, how it looks; undefined where it is not there. */
export function differenceTexts(
  { change, was, is }: ConductorDifference,
  before: Installation,
  after: Installation,
): { before?: string; after?: string } {
  const text = (doc: Installation, core: Core | undefined) =>
    core && (change === 'looks' ? looksText(core) : core.ends.map((end) => endText(doc, end)).join(' to '))
  return { before: text(before, was), after: text(after, is) }
}

const looksText = ({ colour, sleeve, areaMm2 }: Core): string =>
  `${colour}${sleeve ? ` sleeved ${sleeve}` : ''}, ${areaMm2} mm²`

export const linkDifferenceText = (doc: Installation, { between }: LinkDifference): string =>
  between.map((t) => terminalText(doc, t)).join(' to ')

/** "black of Boiler cable, end 2". */
export const recordedEndText = ({ cable, core, end }: RecordedEnd): string =>
  `${core.colour} of ${cable.label}, end ${end + 1}`
