import { evidenceOf, foundSchema, lookSchema, runOptionsSchema, type Found } from '@nobbet/core'
import { z } from 'zod'
import { clientIdSchema, line, stamp, textLine } from './basics'
import type { HuntLine } from './hunt-record'

/** Before anything is touched, or once the work is done. */
export const runPurposes = ['arrival', 'leaving'] as const
export type RunPurpose = (typeof runPurposes)[number]

/** A run of an installation, as it was begun. */
export const runSchema = z.strictObject({
  id: clientIdSchema,
  purpose: z.enum(runPurposes),
  options: runOptionsSchema,
  at: stamp,
  visit: z.string().max(64),
})
export type RunWrite = z.infer<typeof runSchema>

const what = (field: string) => line(field, 300)

/** A look of a row: what was expected there, and what was found, where it was looked at. The words are those of then. */
export const lookDoneSchema = z.strictObject({
  at: what('where it was looked'),
  see: lookSchema,
  expect: foundSchema,
  /** Full volts there, V, where volts were looked at. */
  full: z.number().min(0).max(1e4).optional(),
  found: foundSchema.or(z.literal('as-expected')).optional(),
})
export type LookDone = z.infer<typeof lookDoneSchema>

export const rowOutcomes = ['as-expected', 'otherwise', 'another-way', 'deferred', 'left-out'] as const
export type RowOutcome = (typeof rowOutcomes)[number]
/** Outcomes that need a reason. */
const reasoned: ReadonlySet<RowOutcome> = new Set(['another-way', 'deferred', 'left-out'])

/** What came of a row: once more for each time it was done. */
export const rowDoneSchema = z
  .strictObject({
    /** The row of the run, by its id, and what it is in words. */
    row: line('the row', 200),
    title: what('the title'),
    how: z.enum(rowOutcomes, { error: 'choose as expected, otherwise, shown another way, deferred or left out' }),
    /** What was set, as a hunt writes it; a wait between settings too. */
    acts: z.array(z.string().min(1).max(120)).max(200),
    waitMs: z.number().min(0).max(86_400_000),
    looks: z.array(lookDoneSchema).max(300),
    byHand: z
      .array(z.strictObject({ what: line('what was seen to', 2000), right: z.boolean(), note: textLine(300) }))
      .max(200),
    /** Why it was not done, or not so. */
    reason: textLine(500),
    /** The day on which it will be done. */
    until: z.iso.date('a date is written year-month-day').optional(),
    note: textLine(500),
    at: stamp,
    visit: z.string().max(64),
  })
  .superRefine(({ how, reason, until }, ctx) => {
    if (reasoned.has(how) && reason === '')
      ctx.addIssue({ code: 'custom', path: ['reason'], message: 'say why this step is not done as it stands' })
    if (how === 'deferred' && until === undefined)
      ctx.addIssue({ code: 'custom', path: ['until'], message: 'say on which day it will be done' })
    if (how !== 'deferred' && until !== undefined)
      ctx.addIssue({ code: 'custom', path: ['until'], message: 'only a deferred step has a day' })
  })
export type RowDone = z.infer<typeof rowDoneSchema>
export type KeptRow = RowDone & { id: string }

/** A row that nothing came of before the run was ended. */
const openRowSchema = z.strictObject({ row: line('the row', 200), title: what('the title') })
export type OpenRow = z.infer<typeof openRowSchema>

export const keptRunSchema = runSchema.extend({
  done: z.array(rowDoneSchema.and(z.object({ id: clientIdSchema }))).default([]),
  ended: z.strictObject({ at: stamp, open: z.array(openRowSchema).max(400) }).optional(),
})
export type KeptRun = z.infer<typeof keptRunSchema>

/** At most so many rows of one run, each done again counted. */
export const mostRowsDone = 200

const id = clientIdSchema
/** The lines of a hunt that a row becomes are named after it. */
const rowId = clientIdSchema.max(36, 'an id of a row has at most 36 characters')
/** What can be recorded of runs. */
export const runDeeds = [
  /** A run is begun; of one that is there, it is wanted otherwise. */
  z.strictObject({ do: z.literal('run'), run: runSchema }),
  /** Something came of a row; null takes that back. */
  z.strictObject({ do: z.literal('run-row'), run: id, id: rowId, row: rowDoneSchema.nullable() }),
  z.strictObject({ do: z.literal('run-ends'), run: id, open: z.array(openRowSchema).max(400) }),
  z.strictObject({ do: z.literal('run-goes-on'), run: id }),
] as const
export type RunDeed = z.infer<(typeof runDeeds)[number]>

const deeds: ReadonlySet<string> = new Set(runDeeds.map((deed) => deed.shape.do.value))
export const isRunDeed = (entry: { do: string }): entry is RunDeed => deeds.has(entry.do)

/** The runs after a deed more, done at `at`. What speaks of a run that is not there changes nothing. */
export function runsAfter(before: readonly KeptRun[], deed: RunDeed, at: string): KeptRun[] {
  if (deed.do === 'run') {
    const known = before.some((run) => run.id === deed.run.id)
    return known
      ? before.map((run) => (run.id === deed.run.id ? { ...run, ...deed.run } : run))
      : [...before, { ...deed.run, done: [] }]
  }
  return before.map((run) => (run.id === deed.run ? runAfter(run, deed, at) : run))
}

function runAfter(run: KeptRun, deed: Exclude<RunDeed, { do: 'run' }>, at: string): KeptRun {
  switch (deed.do) {
    case 'run-row': {
      const others = run.done.filter((row) => row.id !== deed.id)
      if (!deed.row) return { ...run, done: others }
      const now: KeptRow = { ...deed.row, id: deed.id }
      // Told otherwise, it stays where it was: a row that is done again is another one.
      const told = run.done.map((row) => (row.id === deed.id ? now : row))
      return { ...run, done: others.length < run.done.length ? told : [...run.done, now] }
    }
    case 'run-ends':
      return { ...run, ended: run.ended ?? { at, open: deed.open } }
    case 'run-goes-on': {
      const open = { ...run }
      delete open.ended
      return open
    }
  }
}

/** The run that is under way; of several, the one that began last. */
export const openRun = (runs: readonly KeptRun[]): KeptRun | undefined => runs.findLast(({ ended }) => !ended)

/** The last run of a purpose. */
export const lastRun = (runs: readonly KeptRun[], purpose: RunPurpose): KeptRun | undefined =>
  runs.findLast((run) => run.purpose === purpose)

/** What came of each row at last, by the row's id. */
export const outcomes = (run: Pick<KeptRun, 'done'> | undefined): Map<string, KeptRow> =>
  new Map(run?.done.map((row) => [row.row, row]))

/** Rows that were put off, and that nothing else came of since, in whichever run. */
export const deferredRows = (runs: readonly KeptRun[]): KeptRow[] => {
  const all = runs.flatMap(({ done }) => done).sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
  return [...new Map(all.map((row) => [row.row, row])).values()].filter(({ how }) => how === 'deferred')
}

/** A row as the baseline and the last run have it. */
export interface RowBeside {
  row: string
  title: string
  arrival?: KeptRow
  leaving?: KeptRow
}

/** Two runs beside each other: rows in the order of the one on leaving, and those that only the other has behind what they followed there. */
export function besideEachOther(arrival: KeptRun | undefined, leaving: KeptRun | undefined): RowBeside[] {
  const [one, other] = [outcomes(arrival), outcomes(leaving)]
  const rows = [...(leaving ? namesOf(leaving) : [])]
  let at = -1
  for (const row of arrival ? namesOf(arrival) : []) {
    const known = rows.findIndex((each) => each.row === row.row)
    if (known >= 0) at = known
    else rows.splice(++at, 0, row)
  }
  return rows.map(({ row, title }) => {
    const [before, after] = [one.get(row), other.get(row)]
    return { row, title, ...(before && { arrival: before }), ...(after && { leaving: after }) }
  })
}

/** Every row of a run that something or nothing came of. */
const namesOf = ({ done, ended }: KeptRun): OpenRow[] => [
  ...new Map([...done, ...(ended?.open ?? [])].map(({ row, title }) => [row, { row, title }])).values(),
]

/** Outcomes of which the row was done. */
const carriedOut: ReadonlySet<RowOutcome> = new Set(['as-expected', 'otherwise', 'another-way'])
export const isCarriedOut = ({ how }: Pick<RowDone, 'how'>): boolean => carriedOut.has(how)

/** What was found at a look, as it is written down; undefined where nobody looked. */
export const foundAt = ({ found, expect }: LookDone): Found | undefined => (found === 'as-expected' ? expect : found)

/** What a run has shown that a hunt does not have yet, as lines of its log. */
export function runLines(run: KeptRun, known: readonly HuntLine[]): HuntLine[] {
  const have = new Set(known.map(({ entry }) => entry.id))
  const rows = run.done.filter((row) => isCarriedOut(row) && ![...have].some((line) => line.startsWith(`${row.id}+`)))
  const at = new Map(rows.map((row) => [row.id, row.at]))
  const entries = evidenceOf(
    rows.map(({ id: row, acts, waitMs, looks }) => ({
      id: row,
      acts,
      waitMs,
      looks: looks.flatMap((look) => {
        const found = foundAt(look)
        return found ? [{ see: look.see, found }] : []
      }),
    })),
  )
  return entries.map((entry) => ({ entry, at: at.get(entry.id.split('+')[0])!, note: '' }))
}

/** Text that may have to be looked for. */
export const runTexts = (runs: readonly KeptRun[]): string[] =>
  runs.flatMap(({ done }) =>
    done.flatMap(({ how, title, reason, note, byHand }) => [
      ...(how === 'as-expected' ? [] : [title]),
      reason,
      note,
      ...byHand.map((check) => check.note),
    ]),
  )
