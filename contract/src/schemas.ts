import { z } from 'zod'
import { deviceTypeSchema, idSchema, installationSchema, observationSchema, planBriefSchema } from '@nobbet/core'

/** Ids are made by the client, so that a write can be repeated without harm. */
export const clientIdSchema = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9-]{5,63}$/, 'an id is 6 to 64 letters, digits or hyphens')

export const line = (what: string, max = 120) =>
  z
    .string({ error: `${what} is missing` })
    .trim()
    .min(1, `${what} is missing`)
    .max(max, `${what} is longer than ${max} characters`)
export const text = (max: number) => z.string().trim().max(max, `at most ${max} characters`).default('')

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
  engineer: text(120),
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

export const stamp = z.iso.datetime()

export const jobSummarySchema = z.object({
  id: clientIdSchema,
  brief: jobBriefSchema,
  status: jobDocumentSchema.shape.status,
  createdAt: stamp,
  updatedAt: stamp,
  /** Findings logged so far. */
  findings: z.number().int().min(0),
})
export type JobSummary = z.infer<typeof jobSummarySchema>

export const revisionKindSchema = z.enum(['planned', 'as-found', 'altered'])
/** A named state of the installation that never changes again. */
export const revisionSchema = z.object({
  id: clientIdSchema,
  kind: revisionKindSchema,
  name: line('the name'),
  installation: installationSchema,
  createdAt: stamp,
})
export type Revision = z.infer<typeof revisionSchema>

/** A photo pinned to a revision: what the engineer saw when it stood so. Under 1.5 MB as a data address. */
export const photoWriteSchema = z.object({
  revision: clientIdSchema,
  caption: text(200),
  image: z
    .string()
    .regex(/^data:image\/(jpeg|png|webp);base64,[A-Za-z0-9+/]+=*$/, 'a photo is a JPEG, PNG or WebP as a data address')
    .max(1_500_000, 'the photo is larger than 1.5 MB: make it smaller'),
})
export const photoSchema = photoWriteSchema.extend({ id: clientIdSchema, createdAt: stamp })
export type PhotoWrite = z.infer<typeof photoWriteSchema>
export type Photo = z.infer<typeof photoSchema>

/** A finding from site as it is kept with the job. */
export const findingSchema = observationSchema.safeExtend({ id: clientIdSchema, note: text(500), at: stamp })
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

export const healthSchema = z.object({
  status: z.enum(['ok', 'damaged']),
  /** What SQLite's own integrity check answers: "ok", or what is wrong. */
  integrity: z.string(),
  version: z.string(),
})

/** RFC 9457, with the fields that are wrong. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string().optional(),
  errors: z.array(z.object({ field: z.string(), reason: z.string() })).optional(),
})
export type Problem = z.infer<typeof problemSchema>
