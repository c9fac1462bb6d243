import { z } from 'zod'
import { printable, printableLines } from '@nobbet/core'

/** Ids are made by the client, so that a write can be repeated without harm. */
export const clientIdSchema = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9-]{5,63}$/, 'an id is 6 to 64 letters, digits or hyphens')

/** One line of text that has to be there. */
export const line = (what: string, max = 120) =>
  printable(
    z
      .string({ error: `${what} is missing` })
      .trim()
      .min(1, `${what} is missing`)
      .max(max, `${what} is longer than ${max} characters`),
  )
/** One line of text that may be left out. */
export const textLine = (max: number) => printable(z.string().trim().max(max, `at most ${max} characters`)).default('')
/** One line of text that need not be said; then it is not there. */
export const lineIfAny = (max: number) => printable(z.string().trim().max(max, `at most ${max} characters`)).optional()
/** Text in lines that has to be there. */
export const lines = (what: string, max: number) =>
  printableLines(
    z
      .string({ error: `${what} is missing` })
      .trim()
      .min(1, `${what} is missing`)
      .max(max, `${what} is longer than ${max} characters`),
  )
/** Text in lines. */
export const text = (max: number) => printableLines(z.string().trim().max(max, `at most ${max} characters`)).default('')

/** A moment, as ISO 8601 has it. */
export const stamp = z.iso.datetime()
