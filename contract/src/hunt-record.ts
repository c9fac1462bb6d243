import { huntEntrySchema, huntOptionsSchema, usualHuntOptions } from '@nobbet/core'
import { z } from 'zod'
import { line, stamp, textLine } from './basics'

/** A line of a hunt's log: one thing done, seen or heard of, when, and what there is to remark. */
export const huntLineSchema = z.strictObject({ entry: huntEntrySchema, at: stamp, note: textLine(500) })
export type HuntLine = z.infer<typeof huntLineSchema>

export const mostHuntLines = 300

/** What a hunt came to, as it was known when it was written. */
export const huntFindingSchema = z.strictObject({
  id: z.string().min(6).max(40),
  at: stamp,
  /** What was wrong, in words; several where no look tells them apart. */
  causes: z
    .array(z.strictObject({ id: z.string().min(1).max(200), label: line('what was wrong', 300) }))
    .min(1)
    .max(12),
  /** How sure that was, of 1. */
  share: z.number().min(0).max(1),
  remedy: textLine(300),
  /** The log lines that speak for it, in words. */
  evidence: z.array(line('what speaks for it', 300)).max(60),
  /** After the remedy the same demands were asked for again, and met. */
  proved: z.boolean(),
})
export type HuntFindingRecord = z.infer<typeof huntFindingSchema>

/** Everything recorded of a job's hunt. */
export const huntRecordSchema = z.object({
  lines: z.array(huntLineSchema).default([]),
  options: huntOptionsSchema.default(usualHuntOptions),
  /** What it came to; left out while it goes on. */
  finding: huntFindingSchema.optional(),
})
export type HuntRecord = z.infer<typeof huntRecordSchema>
export const noHunt: HuntRecord = huntRecordSchema.parse({})

/** What can be recorded of a hunt. */
export const huntDeeds = [
  /** Lines go to the end of the hunt's log, or before one that is there; of a line that is there already, it is otherwise than was written. */
  z.strictObject({
    do: z.literal('hunt'),
    lines: z.array(huntLineSchema).min(1).max(mostHuntLines),
    before: z.string().min(1).max(40).optional(),
  }),
  /** Lines are taken back; that they were written stays in the job's log. */
  z.strictObject({ do: z.literal('unhunt'), lines: z.array(z.string().min(1).max(40)).min(1).max(mostHuntLines) }),
  z.strictObject({ do: z.literal('hunt-with'), options: huntOptionsSchema }),
  /** The hunt is at its end; or, without a finding, goes on after all. */
  z.strictObject({ do: z.literal('conclude'), finding: huntFindingSchema.optional() }),
] as const
export type HuntDeed = z.infer<(typeof huntDeeds)[number]>

const deeds: ReadonlySet<string> = new Set(huntDeeds.map((deed) => deed.shape.do.value))
export const isHuntDeed = (entry: { do: string }): entry is HuntDeed => deeds.has(entry.do)

/** A hunt after one deed more. */
export function huntAfter(before: HuntRecord, deed: HuntDeed): HuntRecord {
  switch (deed.do) {
    case 'hunt':
      return { ...before, lines: linesWith(before.lines, deed.lines, deed.before) }
    case 'unhunt':
      return { ...before, lines: before.lines.filter(({ entry }) => !deed.lines.includes(entry.id)) }
    case 'hunt-with':
      return { ...before, options: deed.options }
    case 'conclude': {
      const after = { ...before, finding: deed.finding }
      if (!deed.finding) delete after.finding
      return after
    }
  }
}

function linesWith(lines: readonly HuntLine[], written: readonly HuntLine[], before: string | undefined): HuntLine[] {
  const ids = new Set(written.map(({ entry }) => entry.id))
  const at = before === undefined ? -1 : lines.findIndex(({ entry }) => entry.id === before)
  // Edited in its place.
  if (before === undefined) {
    const known = new Set(lines.map(({ entry }) => entry.id))
    const anew = (line: HuntLine) => written.find(({ entry }) => entry.id === line.entry.id) ?? line
    return [...lines.map(anew), ...written.filter(({ entry }) => !known.has(entry.id))]
  }
  const rest = (part: readonly HuntLine[]) => part.filter(({ entry }) => !ids.has(entry.id))
  const split = at < 0 ? lines.length : at
  return [...rest(lines.slice(0, split)), ...written, ...rest(lines.slice(split))]
}
