import {
  nothingSeen,
  seenCableSchema,
  seenLinkSchema,
  seenTerminalSchema,
  surveyFactSchema,
  surveySchema,
} from '@nobbet/core'
import { z } from 'zod'
import { clientIdSchema, stamp } from './basics'

/** Everything a survey has written down, and whether the wiring as found was made of it. */
export const surveyRecordSchema = z.object({
  seen: surveySchema.default(nothingSeen),
  /** The job's wiring was made of it: that is one revision, and what it was before another. A survey is held against that one. */
  taken: z.strictObject({ before: clientIdSchema, revision: clientIdSchema, at: stamp }).optional(),
})
export type SurveyRecord = z.infer<typeof surveyRecordSchema>
export const noSurvey: SurveyRecord = surveyRecordSchema.parse({})

const id = z.string().min(1).max(40)

/** What can be recorded of a survey. A later entry of the same id stands in the place of an earlier one; null takes it away. */
export const surveyDeeds = [
  /** The terminals of the box in their order, all of them. */
  z.strictObject({ do: z.literal('survey-terminals'), terminals: z.array(seenTerminalSchema).max(240) }),
  z.strictObject({ do: z.literal('survey-link'), id, link: seenLinkSchema.nullable() }),
  z.strictObject({ do: z.literal('survey-cable'), id, cable: seenCableSchema.nullable() }),
  z.strictObject({ do: z.literal('survey-fact'), id, fact: surveyFactSchema.nullable() }),
  /** Every cable that comes in is written down; or not after all. */
  z.strictObject({ do: z.literal('survey-complete'), complete: z.boolean() }),
  /** The wiring as found was made of it. */
  z.strictObject({ do: z.literal('survey-taken'), before: clientIdSchema, revision: clientIdSchema }),
] as const
export type SurveyDeed = z.infer<(typeof surveyDeeds)[number]>

const deeds: ReadonlySet<string> = new Set(surveyDeeds.map((deed) => deed.shape.do.value))
export const isSurveyDeed = (entry: { do: string }): entry is SurveyDeed => deeds.has(entry.do)

/** The survey after a deed more, done at `at`. */
export function surveyAfter(before: SurveyRecord, deed: SurveyDeed, at: string): SurveyRecord {
  const { seen } = before
  switch (deed.do) {
    case 'survey-terminals':
      return { ...before, seen: { ...seen, terminals: deed.terminals } }
    case 'survey-link':
      return { ...before, seen: { ...seen, links: replaced(seen.links, deed.id, deed.link) } }
    case 'survey-cable':
      return { ...before, seen: { ...seen, cables: replaced(seen.cables, deed.id, deed.cable) } }
    case 'survey-fact':
      return { ...before, seen: { ...seen, facts: replaced(seen.facts, deed.id, deed.fact) } }
    case 'survey-complete':
      return { ...before, seen: { ...seen, complete: deed.complete } }
    case 'survey-taken':
      return { ...before, taken: { before: deed.before, revision: deed.revision, at } }
  }
}

function replaced<T extends { id: string }>(list: readonly T[], of: string, one: T | null): T[] {
  if (!one) return list.filter((each) => each.id !== of)
  const now = { ...one, id: of }
  return list.some((each) => each.id === of) ? list.map((each) => (each.id === of ? now : each)) : [...list, now]
}

/** Why a survey cannot be kept as large as that; undefined where it can. */
export function surveyProblem({ seen }: SurveyRecord): string | undefined {
  const read = surveySchema.safeParse(seen)
  return read.success ? undefined : read.error.issues[0].message
}

/** Text that may have to be looked for. */
export const surveyTexts = ({ seen }: SurveyRecord): string[] => [
  ...seen.cables.map(({ label }) => label),
  ...seen.terminals.map(({ legend }) => legend),
  ...seen.facts.flatMap(({ note }) => note ?? []),
]
