import { z } from 'zod'
import { idSchema } from '../installation'
import { foundSchema, lookSchema } from '../looks'

const act = z.strictObject({
  id: idSchema,
  /** As on the command line: `programmer.heating=on`, `wait=20s`; or `settle`: until nothing moves any more. */
  do: z.string().min(1).max(120),
})
const swap = z.strictObject({
  id: idSchema,
  /** A device that was changed for a new one, or only one part of it. */
  renew: idSchema,
  part: idSchema.optional(),
})
const finding = z.strictObject({
  id: idSchema,
  see: lookSchema,
  found: foundSchema.or(z.enum(['cannot-do', 'cannot-tell'])),
})
/** One thing done or seen, in the order in which it was. */
export const huntEntrySchema = z.union([act, swap, finding])
export type HuntEntry = z.infer<typeof huntEntrySchema>
export type HuntFinding = z.infer<typeof finding>

const share = z.number().min(0.001).max(0.5)

/** What is known beside the log, and what is wanted. */
export const huntOptionsSchema = z.strictObject({
  /** Devices at which somebody has worked lately: whatever is wrong with their wiring and settings is likelier. */
  workedOn: z.array(idSchema).max(60).default([]),
  /** Devices that are new: their failures are less likely. */
  fresh: z.array(idSchema).max(60).default([]),
  /** How often a careful person answers wrongly, by kind of look, where it is not the usual rate. */
  errors: z.partialRecord(z.enum(lookSchema.options.map((o) => o.shape.at.value)), share).default({}),
  /** No live work is wanted: no look that needs it is proposed. */
  deadOnly: z.boolean().default(false),
})
export type HuntOptions = z.infer<typeof huntOptionsSchema>
export const usualHuntOptions: HuntOptions = huntOptionsSchema.parse({})

/** A case as a file. The installation in it is read as an installation's own file is. */
export const huntCaseSchema = z.strictObject({
  format: z.literal('nobbet-hunt'),
  version: z.literal(1),
  installation: z.record(z.string(), z.unknown()),
  log: z
    .array(huntEntrySchema)
    .max(300)
    .refine((log) => new Set(log.map((e) => e.id)).size === log.length, 'two entries have the same id')
    .default([]),
  options: huntOptionsSchema.default(usualHuntOptions),
})
export type HuntCase = z.infer<typeof huntCaseSchema>
