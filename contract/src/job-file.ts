import { z } from 'zod'
import { clientIdSchema } from './basics'
import { documentProblems, grown } from './job-state'
import { logEntrySchema, type JobState, type LogEntry } from './log'
import { photoSchema } from './schemas'

/** A photo as a job's file has it: its picture lies beside, under its id. */
export const filedPhotoSchema = photoSchema.omit({ bytes: true })
export type FiledPhoto = z.infer<typeof filedPhotoSchema>

/**
 * A whole job as one file: an archive (ZIP) with this as `job.json`, the wiring as it stands as `wiring.json`, and each photo as
 * `photos/ID`, small as `photos/ID.small`. The log is all of it: brief, wiring, revisions, visits and what was found follow from it.
 */
export const jobFileSchema = z.object({
  format: z.literal('nobbet-job', { error: 'this is no file of a job' }),
  version: z.literal(1, { error: 'this file is of a newer version' }),
  job: clientIdSchema,
  entries: z.array(logEntrySchema).min(1, 'there is no log in it').max(50_000, 'its log is too long'),
  photos: z.array(filedPhotoSchema).max(2000, 'there are too many photos in it'),
})
export type JobFile = z.infer<typeof jobFileSchema>

/** What a file's log makes of a job. Throws an Error that says what is wrong where it makes none. */
export function jobOf({ job, entries }: Pick<JobFile, 'job' | 'entries'>): JobState {
  const state = entries.reduce<JobState | undefined>((at, entry) => grown(at, entry, job), undefined)!
  const [problem] = documentProblems(state.document)
  if (problem) throw new Error(`${problem.field}: ${problem.reason}`)
  return state
}

/** The same job under other ids, made by `renew`: a copy beside the job it was made of. */
export function copied(file: JobFile, job: string, renew: (id: string) => string): JobFile {
  return {
    ...file,
    job,
    entries: file.entries.map((one) => ({ ...one, id: renew(one.id), entry: renewed(one.entry, renew) })),
    photos: file.photos.map((photo) => ({
      ...photo,
      id: renew(photo.id),
      ...(photo.revision && { revision: renew(photo.revision) }),
    })),
  }
}

/** What speaks of an entry, a revision or a finding speaks of it by its other id. */
function renewed(entry: LogEntry['entry'], renew: (id: string) => string): LogEntry['entry'] {
  switch (entry.do) {
    case 'keep':
      return { ...entry, revision: renew(entry.revision) }
    case 'observe':
      return { ...entry, finding: { ...entry.finding, id: renew(entry.finding.id) } }
    case 'retract':
      return { ...entry, finding: renew(entry.finding) }
    case 'edit':
      return entry.undoes === undefined ? entry : { ...entry, undoes: renew(entry.undoes) }
    case 'aside':
      return { ...entry, of: renew(entry.of) }
    case 'measure':
      return entry.measure.revision === undefined
        ? entry
        : { ...entry, measure: { ...entry.measure, revision: renew(entry.measure.revision) } }
    default:
      return entry
  }
}
