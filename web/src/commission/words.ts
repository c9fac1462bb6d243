import { foundAt, type LookDone, type RowDone, type RowOutcome, type RunPurpose } from '@nobbet/contract'
import { answerText, inSentence, meets, rowExpectText } from '@nobbet/core'
import { dayText } from '../drawing/dates'

export const purposeWords: Record<RunPurpose, string> = { arrival: 'On arrival', leaving: 'On leaving' }

export type RowState = RowOutcome | 'open'
/** Of five shapes, so that none is told by its ink alone. */
export const outcomeMarks: Record<RowState, string> = {
  'as-expected': '✓',
  otherwise: '✕',
  'another-way': '≈',
  deferred: '◷',
  'left-out': '–',
  open: '○',
}
export const outcomeWords: Record<RowState, string> = {
  'as-expected': 'As expected',
  otherwise: 'Not as expected',
  'another-way': 'Shown another way',
  deferred: 'Deferred',
  'left-out': 'Left out',
  open: 'Not done',
}

/** What came of a row, in one line: "Deferred to 3 Dec 2026: thermostat not fitted yet". */
export function outcomeText(row: RowDone): string {
  const isSeen = row.looks.length > 0 || row.how !== 'as-expected'
  const words = isSeen ? outcomeWords[row.how] : 'Done'
  const to = row.until === undefined ? '' : ` to ${dayText(new Date(row.until))}`
  const found = foundTexts(row)
  return [`${words}${to}`, [...(row.reason ? [row.reason] : []), ...found].join('; ')].filter(Boolean).join(': ')
}

/** Was that look as expected? Undefined where nobody looked. */
export function isAsExpected(look: LookDone): boolean | undefined {
  if (look.found === undefined) return undefined
  return look.found === 'as-expected' || meets(look, look.found)
}

/** What was found that the outcome does not say already: what was otherwise, and every reading that was written down. */
function foundTexts({ how, looks, byHand, note }: RowDone): string[] {
  return [
    ...looks.flatMap((look) => {
      const { at, found } = look
      if (found === undefined) return []
      const was = foundAt(look)!
      const reading = found !== 'as-expected' && 'value' in found
      if (isAsExpected(look) && !reading && how !== 'another-way') return []
      const [place] = at.split(': ')
      const expected = isAsExpected(look) ? '' : `, expected ${inSentence(rowExpectText(undefined, look))}`
      return [`${place}: ${inSentence(answerText(undefined, look.see, was))}${expected}`]
    }),
    ...byHand.flatMap(({ what, right, note: said }) => (right ? [] : [`Not so: ${what}${said ? ` (${said})` : ''}`])),
    ...(note ? [note] : []),
  ]
}
