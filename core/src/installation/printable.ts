import type { z } from 'zod'

/**
 * Names, labels, legends and notes go into netlists, schedules, drawings and messages, where a line break or another control
 * character would be read as something else than text. Half a surrogate pair is no character and cannot be stored.
 */
export const printable = (text: z.ZodString): z.ZodString =>
  text.regex(/^[^\p{Cc}\p{Cs}\u2028\u2029]*$/u, 'has a line break or another control character in it: take it out')

/** Text in lines: line feeds may stand in it, and no other control character. */
export const printableLines = (text: z.ZodString): z.ZodString =>
  text.regex(
    /^(?:[^\p{Cc}\p{Cs}\u2028\u2029]|\n)*$/u,
    'has a control character in it other than a line break: take it out',
  )
