import { z } from 'zod'
import { quoted } from './plain-text'

/** What was found, in a word or two: "nothing", "a number, 12", "the text "abc"". */
function foundText(input: unknown): string {
  if (input === undefined) return 'nothing'
  if (input === null) return 'null'
  if (typeof input === 'string') return input === '' ? 'an empty text' : `the text ${quoted(input)}`
  if (typeof input === 'number') return Number.isNaN(input) ? 'no number' : `the number ${input}`
  if (typeof input === 'boolean') return `${input}`
  return Array.isArray(input) ? `a list of ${input.length}` : typeof input === 'object' ? 'an object' : typeof input
}

const kinds: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
  tuple: 'a list',
  null: 'null',
  date: 'a date',
}

function listed(values: readonly unknown[]): string {
  const words = values.map((v) => (typeof v === 'string' ? quoted(v) : String(v)))
  return words.length < 2 ? words.join() : `${words.slice(0, -1).join(', ')} or ${words[words.length - 1]}`
}

const sizes: Record<string, (n: unknown) => string> = {
  string: (n) => `${String(n)} character${n === 1 ? '' : 's'}`,
  array: (n) => `${String(n)} entr${n === 1 ? 'y' : 'ies'}`,
}

/**
 * What is wrong with a value that a schema refuses, where the schema has no words of its own: what was expected, and what was
 * found. Undefined for what only the schema itself can say.
 */
export function plainIssue(issue: z.core.$ZodRawIssue): string | undefined {
  const { input } = issue
  switch (issue.code) {
    case 'invalid_type': {
      const expected = kinds[issue.expected] ?? issue.expected
      return input === undefined
        ? `is missing: ${expected} is expected`
        : `${expected} is expected, not ${foundText(input)}`
    }
    case 'invalid_value':
      return `${listed(issue.values)} is expected, not ${foundText(input)}`
    case 'too_small':
    case 'too_big': {
      const small = issue.code === 'too_small'
      const bound = small ? issue.minimum : issue.maximum
      const size = sizes[issue.origin]
      if (small && size && bound === 1) return `is empty: at least ${size(1)}`
      if (size) return `at ${small ? 'least' : 'most'} ${size(bound)}`
      const words = issue.inclusive === false ? (small ? 'more than' : 'less than') : small ? 'at least' : 'at most'
      return `${words} ${String(bound)} is expected, not ${foundText(input)}`
    }
    case 'invalid_format':
      return `is not written as it should be: ${foundText(input)}`
    case 'unrecognized_keys':
      return `nothing is known here of ${listed(issue.keys)}`
    case 'invalid_union':
      return input === undefined ? 'is missing' : `has none of the forms it may have: ${foundText(input)}`
    default:
      return undefined
  }
}

// Every schema of the program reads its errors in these words: there is one place for them, and no other wording gets out.
z.config({ customError: plainIssue })
