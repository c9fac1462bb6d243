import { z } from 'zod'
import { idSchema } from '../installation'
import { instruments } from '../instruments'
import { foundSchema, lookSchema } from '../looks'
import { planBriefSchema } from '../planning'
import { complaintSchema } from './complaints'

/** As on the command line: `programmer.heating=on`, `wait=20s`; or `settle`: until nothing moves any more. */
const actText = z.string().min(1).max(120)
const act = z.strictObject({ id: idSchema, do: actText })
const swap = z.strictObject({
  id: idSchema,
  /** A device that was changed for a new one, or only one part of it. */
  renew: idSchema,
  part: idSchema.optional(),
})
const finding = z
  .strictObject({
    id: idSchema,
    see: lookSchema,
    found: foundSchema.or(z.enum(['cannot-do', 'cannot-tell'])),
    /** Acts that this look would have come after, none of which was done: of one that could not be made. */
    after: z.array(actText).min(1).max(100).optional(),
  })
  .refine(({ found, after }) => after === undefined || found === 'cannot-do', {
    path: ['after'],
    message: 'only what could not be done has acts that were not done for it',
  })
const remedied = z.strictObject({
  id: idSchema,
  /** What was put right, by the id of its suspect: a part changed, a conductor moved to where it belongs, a setting set. */
  mended: z.string().min(1).max(200),
})
const complained = z.strictObject({ id: idSchema, says: complaintSchema })
const blamed = z.strictObject({
  id: idSchema,
  /** The device that somebody who was here before holds to be at fault. */
  blamed: idSchema,
})
/** One thing done, seen or heard of, in the order in which it was. */
export const huntEntrySchema = z.union([act, swap, remedied, finding, complained, blamed])
export type HuntEntry = z.infer<typeof huntEntrySchema>
export type HuntFinding = z.infer<typeof finding>

const share = z.number().min(0.001).max(0.5)

/** What is known beside the log, and what is wanted. */
export const huntOptionsSchema = z.strictObject({
  /** Devices at which somebody has worked lately: whatever is wrong with their wiring and settings is likelier. */
  workedOn: z.array(idSchema).max(60).default([]),
  /** Devices that are new: their failures are less likely. */
  fresh: z.array(idSchema).max(60).default([]),
  /** Devices that are wet, or stand where water comes: what fails there by water is likelier. */
  wet: z.array(idSchema).max(60).default([]),
  /** Devices that are old: their failures are likelier. */
  old: z.array(idSchema).max(60).default([]),
  /** Nothing has been asked for in months: whatever seizes at rest is likelier. */
  stoodStill: z.boolean().default(false),
  /** Weights set by hand, by the id of a suspect, relative to the others, in place of what would be worked out. */
  weights: z.record(z.string().min(1).max(200), z.number().min(1e-6).max(1e6)).default({}),
  /** How often a careful person answers wrongly, by kind of look, where it is not the usual rate; of what is heard, `told`. */
  errors: z.partialRecord(z.enum([...lookSchema.options.map((o) => o.shape.at.value), 'told']), share).default({}),
  /** Instruments at hand: no other is proposed. */
  instruments: z.array(z.enum(instruments)).default([...instruments]),
  /** Places nobody gets into today: nothing is proposed there. */
  outOfReach: z.array(idSchema).max(60).default([]),
  /** Somebody else is at the controls: setting them costs no walk. */
  helper: z.boolean().default(false),
  /** Nothing is proposed but where the engineer stands. */
  stay: z.boolean().default(false),
  /**
   * What is looked at first: what tells most for its time; or along the line of the service that was complained of, from the
   * source on, or from the middle of what is still open.
   */
  strategy: z.enum(['most-information', 'source-to-load', 'from-the-middle']).default('most-information'),
  /** No live work is wanted: no look that needs it is proposed. */
  deadOnly: z.boolean().default(false),
  /** The wiring stays as it is: no test is proposed for which something is lifted, linked, parked or taken off its plate. */
  asWired: z.boolean().default(false),
})
export type HuntOptions = z.infer<typeof huntOptionsSchema>
export const usualHuntOptions: HuntOptions = huntOptionsSchema.parse({})

/** A case as a file. The installation in it is read as an installation's own file is. */
const caseShape = z.strictObject({
  format: z.literal('nobbet-hunt'),
  version: z.literal(1),
  /** The installation; or a brief, from which a standard one is planned whose wiring is then assumed. */
  installation: z.record(z.string(), z.unknown()).optional(),
  brief: planBriefSchema.optional(),
  log: z
    .array(huntEntrySchema)
    .max(300)
    .refine((log) => new Set(log.map((e) => e.id)).size === log.length, 'two entries have the same id')
    .default([]),
  options: huntOptionsSchema.default(usualHuntOptions),
})
export const huntCaseSchema = caseShape.refine(
  ({ installation, brief }) => (installation === undefined) !== (brief === undefined),
  { path: ['installation'], message: 'give either an installation or a brief' },
)
export type HuntCase = z.infer<typeof huntCaseSchema>
