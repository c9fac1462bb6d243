import { z } from 'zod'
import { fieldChangeSchema, installationSchema } from '@nobbet/core'
import { clientIdSchema, line, lines, stamp, textLine } from './basics'
import { huntDeeds, huntRecordSchema, noHunt } from './hunt-record'
import { keptScenarioSchema, scenarioSchema } from './scenario'
import { noRecord, siteDeeds, siteRecordSchema } from './site-record'
import { findingSchema, jobDocumentSchema, revisionKindSchema, revisionSchema } from './schemas'

/** What can be recorded of a job. */
export const entrySchema = z.discriminatedUnion('do', [
  /** The job is begun: its first entry, and only that. */
  jobDocumentSchema.extend({ do: z.literal('open') }),
  /** Something of brief or wiring is otherwise; taking it back is an entry too, and says what it takes back. */
  z.strictObject({
    do: z.literal('edit'),
    label: line('what was done', 200),
    changes: z.array(fieldChangeSchema).min(1).max(5000),
    undoes: clientIdSchema.optional(),
  }),
  /** A named state of the wiring is kept: as it stands here in the log, or one from before there was a log. */
  z.strictObject({
    do: z.literal('keep'),
    revision: clientIdSchema,
    kind: revisionKindSchema,
    name: line('the name'),
    installation: installationSchema.optional(),
  }),
  ...huntDeeds,
  ...siteDeeds,
  /** A finding as hunts had them before they had lines. */
  z.strictObject({ do: z.literal('observe'), finding: findingSchema }),
  /** Such a finding is taken back; that it was made stays in the log. */
  z.strictObject({ do: z.literal('retract'), finding: clientIdSchema }),
  /** Something done on site that alters neither wiring nor brief. */
  z.strictObject({ do: z.literal('act'), text: line('what was done', 500) }),
  /** A step of the order of termination is done, or is not after all. */
  z.strictObject({ do: z.literal('tick'), step: line('the step', 200), done: z.boolean() }),
  /** A scenario of Trace is kept under a name, another one in the place of one of that id; or is no longer kept. */
  z.strictObject({ do: z.literal('scenario'), id: clientIdSchema, scenario: scenarioSchema.nullable() }),
  z.strictObject({ do: z.literal('note'), text: lines('the note', 2000) }),
  /** Of two who had changed one thing, what was not chosen, so that it is not lost. */
  z.strictObject({
    do: z.literal('aside'),
    label: line('what was done', 200),
    changes: z.array(fieldChangeSchema).min(1).max(5000),
    of: clientIdSchema,
  }),
])
export type Entry = z.infer<typeof entrySchema>
export type EditEntry = Extract<Entry, { do: 'edit' }>

/** One line of a job's log. Its id is the client's, so that it can be sent again without harm. */
export const logEntrySchema = z.strictObject({
  id: clientIdSchema,
  /** Who did it, as they call themselves; empty where nobody has said. */
  author: textLine(120),
  /** The visit it was done on; where none was open, one device on one day. */
  visit: clientIdSchema,
  /** When it was done, by that device's clock. */
  at: stamp,
  entry: entrySchema,
})
export type LogEntry = z.infer<typeof logEntrySchema>

/** An entry with its place in the order in which the server took them in; numbers rise and may leave gaps. */
export const numberedEntrySchema = logEntrySchema.extend({
  number: z.number().int().positive(),
  /** The paired device from which it came; left out for the server’s own machine. */
  device: z.string().optional(),
})
export type NumberedEntry = z.infer<typeof numberedEntrySchema>

export const logWriteSchema = z.strictObject({
  /** The last number the writer knows; 0 where none. */
  after: z.number().int().min(0),
  entries: z.array(logEntrySchema).min(1, 'there is nothing to record').max(100, 'at most 100 entries at once'),
})
export type LogWrite = z.infer<typeof logWriteSchema>

/** Everything recorded after a number. */
export const logTailSchema = z.object({
  entries: z.array(numberedEntrySchema),
  /** The last number of the job's log. */
  number: z.number().int().positive(),
  /** Numbers of one lineage can be compared; data that were brought back from a backup are another one. */
  lineage: z.string(),
})
export type LogTail = z.infer<typeof logTailSchema>

/** A job as its log makes it, up to an entry. */
export const jobStateSchema = z.object({
  id: clientIdSchema,
  /** Number of the last entry in it. */
  number: z.number().int().min(0),
  /** As in the log’s tail; left out where the server has not told yet. */
  lineage: z.string().optional(),
  document: jobDocumentSchema,
  findings: z.array(findingSchema),
  revisions: z.array(revisionSchema),
  /** Steps of the order of termination that are done. */
  ticks: z.array(z.string()).default([]),
  /** Scenarios of Trace, the one kept last behind the others. */
  scenarios: z.array(keptScenarioSchema).default([]),
  hunt: huntRecordSchema.default(noHunt),
  record: siteRecordSchema.default(noRecord),
})
export type JobState = z.infer<typeof jobStateSchema>
