import type { DocumentProblem } from './document-problem'
import { plainText } from './plain-text'

/** Deeper than any installation or device type goes; what walks a document walks it by calling itself. */
export const deepest = 40
/** Fields of one object: devices have a few settings each, types a few dozen figures. */
const mostFields = 200
/** Entries of one list: the longest, changes of one step, has 5,000. */
const mostEntries = 5000
/** Values in all: a full installation, with every list at its end, is below a third of this. */
const mostValues = 400_000
/** Problems that are told at once: nobody mends more before trying again. */
export const mostProblems = 100

/** What is too deep, too broad or too much to be looked at at all; looked for without recursion, and before anything else. */
export function boundsProblem(value: unknown): DocumentProblem | undefined {
  const waiting: { value: unknown; depth: number; field: string }[] = [{ value, depth: 0, field: '' }]
  let values = 0
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    if (++values > mostValues) return { field: '', reason: `has more than ${mostValues} values in it` }
    if (typeof at.value !== 'object' || at.value === null) continue
    const { depth, field } = at
    if (depth >= deepest)
      return { field: plainText(field).slice(0, 200), reason: `is nested more than ${deepest} deep` }
    const list = Array.isArray(at.value)
    const keys = Object.keys(at.value)
    const most = list ? mostEntries : mostFields
    if (keys.length > most)
      return {
        field: plainText(field).slice(0, 200),
        reason: `has ${keys.length} ${list ? 'entries' : 'fields'}, at most ${most} are taken`,
      }
    for (const key of keys)
      waiting.push({
        value: (at.value as Record<string, unknown>)[key],
        depth: depth + 1,
        field: field ? `${field}.${key.slice(0, 60)}` : key.slice(0, 60),
      })
  }
  return undefined
}

/** The first problems, and how many more there are. */
export function firstProblems<T extends DocumentProblem>(problems: readonly T[]): (T | DocumentProblem)[] {
  if (problems.length <= mostProblems) return [...problems]
  const more = problems.length - mostProblems + 1
  return [...problems.slice(0, mostProblems - 1), { field: '', reason: `and ${more} more` }]
}
