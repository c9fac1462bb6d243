import { z } from 'zod'
import { deviceTypeSchema, idSchema, installationSchema, observationSchema, planBriefSchema } from '@nobbet/core'
import { clientIdSchema, line, stamp, text, textLine } from './basics'
import { standingSchema, type JobStanding } from './standing'

export const kindsOfWork = ['new-system', 'change-of-controls', 'fault'] as const

export const jobBriefSchema = z.strictObject({
  /** Where it is, as the engineer would say it. */
  site: line('the site'),
  kind: z.enum(kindsOfWork, { error: 'choose the kind of work' }),
  /** What the customer reports, in the customer's words. */
  symptom: text(2000),
  /** What an earlier visit concluded: evidence, not truth. */
  earlier: text(2000),
  /** Who attends. */
  engineer: textLine(120),
  /** What is fitted, or is to be. */
  fitted: planBriefSchema,
})
export type JobBrief = z.infer<typeof jobBriefSchema>
export type JobBriefInput = z.input<typeof jobBriefSchema>

/** All that is said of a job and may be said otherwise tomorrow: what was asked, and how it is wired. */
export const jobDocumentSchema = z.strictObject({
  brief: jobBriefSchema,
  status: z.enum(['open', 'closed']).default('open'),
  wiring: installationSchema,
})
export type JobDocument = z.infer<typeof jobDocumentSchema>

/** What a list of jobs says of one: enough to find it and to go on. */
export const jobHeadingSchema = z.object({
  site: z.string(),
  kind: z.enum(kindsOfWork),
  symptom: z.string(),
  /** The scheme’s id, and what its circuits are called. */
  scheme: z.string(),
  circuits: z.array(z.string()),
  status: jobDocumentSchema.shape.status,
  ...standingSchema.shape,
})
export type JobHeading = z.infer<typeof jobHeadingSchema>

export const headingOf = (
  { brief, status }: Pick<JobDocument, 'brief' | 'status'>,
  standing: JobStanding,
): JobHeading => ({
  site: brief.site,
  kind: brief.kind,
  symptom: brief.symptom,
  scheme: brief.fitted.scheme,
  circuits: brief.fitted.circuits.map((c) => c.name),
  status,
  ...standing,
})

export const jobSummarySchema = jobHeadingSchema.extend({
  id: clientIdSchema,
  /** Number of its last log entry. */
  number: z.number().int().min(0),
  createdAt: stamp,
  updatedAt: stamp,
  /** In the bin since then. */
  deletedAt: stamp.optional(),
  /** Where the words that were looked for stand: a stretch of text, with each of them between these: ⟦ and ⟧. */
  match: z.string().optional(),
})
export type JobSummary = z.infer<typeof jobSummarySchema>

/** Days that a job stays in the bin before it is gone. */
export const daysInBin = 30

export const jobListQuerySchema = z.strictObject({
  status: z.enum(['open', 'closed', 'all', 'deleted'], { error: 'is open, closed, all or deleted' }).default('all'),
  /** Only jobs that have each of these words, or words that begin so, in anything that is written of them. */
  find: z.string().trim().max(120).default(''),
  /** Only jobs at this site, as it is written in their briefs. */
  site: z.string().trim().max(120).default(''),
  kind: z.enum([...kindsOfWork, 'all'], { error: 'is new-system, change-of-controls, fault or all' }).default('all'),
  /** At most so many at once. */
  most: z.coerce.number({ error: 'is no number' }).int().min(1).max(200).default(50),
  /** `next` of the page before. */
  after: z.string().max(200).default(''),
})
export type JobListQuery = z.infer<typeof jobListQuerySchema>

/** One page of the jobs: what is due first, then the newest change. */
export const jobListSchema = z.object({
  jobs: z.array(jobSummarySchema),
  /** Where the next page begins; left out on the last. */
  next: z.string().optional(),
  counts: z.object({ open: z.number().int(), closed: z.number().int(), deleted: z.number().int() }),
})
export type JobList = z.infer<typeof jobListSchema>

export const revisionKindSchema = z.enum(['planned', 'as-found', 'altered', 'as-left'])
/** A named state of the installation that never changes again. */
export const revisionSchema = z.object({
  id: clientIdSchema,
  kind: revisionKindSchema,
  name: line('the name'),
  installation: installationSchema,
  createdAt: stamp,
})
export type Revision = z.infer<typeof revisionSchema>

const dataAddress = (most: number, told: string) =>
  z
    .string()
    .max(most, told)
    .regex(/^data:image\/(jpeg|png|webp);base64,[A-Za-z0-9+/]+=*$/, 'a photo is a JPEG, PNG or WebP as a data address')

/** A spot on a photo, as shares of its width and height. */
const spotSchema = z.strictObject({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) })

/** A photo of a job: what the engineer saw, with the state of the wiring, the visit and the finding it belongs to, where there are. */
export const photoWriteSchema = z.strictObject({
  revision: clientIdSchema.optional(),
  visit: z.string().max(64).optional(),
  item: clientIdSchema.optional(),
  /** What is meant on it. */
  spot: spotSchema.optional(),
  /** When it was taken; left out, now. */
  at: stamp.optional(),
  caption: textLine(200),
  image: dataAddress(1_500_000, 'the photo is larger than 1.5 MB: make it smaller'),
  /** The same, small enough for a row of them. */
  thumbnail: dataAddress(80_000, 'the small picture is larger than 80 kB').optional(),
})
/** What is told of a photo; its image and its thumbnail are files of their own. */
export const photoSchema = z.object({
  id: clientIdSchema,
  revision: clientIdSchema.optional(),
  visit: z.string().optional(),
  item: clientIdSchema.optional(),
  spot: spotSchema.optional(),
  caption: z.string(),
  type: z.string(),
  bytes: z.number().int().min(0),
  createdAt: stamp,
})
export const photoListSchema = z.object({
  photos: z.array(photoSchema),
  /** Bytes that all jobs’ photos take, and may take. */
  room: z.object({ used: z.number().int().min(0), most: z.number().int().min(0) }),
})
export type PhotoWrite = z.infer<typeof photoWriteSchema>
export type Photo = z.infer<typeof photoSchema>
export type PhotoList = z.infer<typeof photoListSchema>

/** A finding from site as it is kept with the job. */
export const findingSchema = observationSchema.safeExtend({ id: clientIdSchema, note: textLine(500), at: stamp })
export type Finding = z.infer<typeof findingSchema>

/** The id of a device type that a user has made. */
export const typeIdSchema = idSchema

/** A device type of one's own. Its version is the server's to count. */
export const ownTypeWriteSchema = z.object({ definition: deviceTypeSchema })
export const ownTypeSchema = z.object({
  id: z.string(),
  version: z.number().int().positive(),
  updatedAt: stamp,
  definition: deviceTypeSchema,
})
export type OwnTypeWrite = z.infer<typeof ownTypeWriteSchema>
export type OwnType = z.infer<typeof ownTypeSchema>

export const troubleSchema = z.enum(['damaged', 'full', 'read-only'])

export const healthSchema = z.object({
  status: z.union([z.literal('ok'), troubleSchema]),
  /** What that means and what to do; empty where all is well. */
  detail: z.string(),
  version: z.string(),
})
export type Health = z.infer<typeof healthSchema>

/** RFC 9457, with the fields that are wrong. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string().optional(),
  errors: z.array(z.object({ field: z.string(), reason: z.string() })).optional(),
})
export type Problem = z.infer<typeof problemSchema>
