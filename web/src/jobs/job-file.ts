import {
  copied,
  filedPhotoSchema,
  jobFileSchema,
  jobOf,
  type FiledPhoto,
  type JobFile,
  type LogEntry,
  type NumberedEntry,
} from '@nobbet/contract'
import { problemsOf } from '@nobbet/core'
import JSZip from 'jszip'
import { v5 as idFrom } from 'uuid'
import { addressOf, ApiError, call } from '../api/client'

/** A file that is larger than this, bytes, is not opened: no job's photos come to that. */
const largest = 400_000_000
/** Sent at once: entries, and their characters; below what the server takes. */
const [mostEntries, mostCharacters] = [60, 900_000]
/** Photos that are small enough to be told as their own thumbnails. */
const mostThumbnail = 60_000

/** A job as one archive, with its log and photos as the server has them. Throws where something cannot be read. */
export async function fileOf(job: string): Promise<{ site: string; bytes: Uint8Array<ArrayBuffer> }> {
  const [{ entries }, { photos }] = await Promise.all([
    call('readLog', { params: { job } }),
    call('listPhotos', { params: { job } }),
  ])
  const file: JobFile = {
    format: 'nobbet-job',
    version: 1,
    job,
    entries: entries.map(bare),
    photos: photos.map((photo) => filedPhotoSchema.parse(photo)),
  }
  const { document } = jobOf(file)
  const zip = new JSZip()
  zip.file('job.json', JSON.stringify(file))
  zip.file('wiring.json', JSON.stringify(document.wiring, null, 2))
  for (const { id } of file.photos) {
    zip.file(`photos/${id}`, await bytesAt(addressOf('readImage', { job, photo: id })))
    zip.file(`photos/${id}.small`, await bytesAt(addressOf('readThumbnail', { job, photo: id })))
  }
  const bytes = await zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' })
  return { site: document.brief.site, bytes: new Uint8Array(bytes) }
}

const bare = ({ id, author, visit, at, entry }: NumberedEntry): LogEntry => ({ id, author, visit, at, entry })

async function bytesAt(address: string): Promise<ArrayBuffer> {
  const answer = await fetch(address)
  if (!answer.ok) throw new Error('a photo could not be read, so the file was not made')
  return answer.arrayBuffer()
}

/** A job's file that was opened and makes sense. */
export interface OpenedJob {
  file: JobFile
  site: string
  pictureOf: (photo: string, small: boolean) => Promise<Blob | undefined>
}

/** Opens a job's file. Throws an Error that says what is wrong with it; nothing has been sent then. */
export async function opened(picked: File): Promise<OpenedJob> {
  if (picked.size > largest) throw new Error('it is larger than 400 MB')
  const zip = await JSZip.loadAsync(picked).catch(() => {
    throw new Error('it is no archive of a job')
  })
  const text = await zip.file('job.json')?.async('string')
  if (text === undefined) throw new Error('there is no job.json in it')
  const read = jobFileSchema.safeParse(parsed(text))
  if (!read.success) {
    const [{ field, reason }] = problemsOf(read.error)
    throw new Error(field ? `job.json, ${field}: ${reason}` : `job.json: ${reason}`)
  }
  const file = read.data
  for (const { id } of file.photos) if (!zip.file(`photos/${id}`)) throw new Error(`the photo ${id} is missing in it`)
  return {
    file,
    site: jobOf(file).document.brief.site,
    pictureOf: async (photo, small) => zip.file(`photos/${photo}${small ? '.small' : ''}`)?.async('blob'),
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw new Error('its job.json is no JSON')
  }
}

/** How a file stands to what the server has: nothing of it, all of it, some of it (an import that was broken off), or another job. */
export type Held = 'new' | 'here' | 'begun' | 'other' | 'deleted'

export async function heldOf({ file }: OpenedJob): Promise<Held> {
  try {
    const { entries } = await call('readLog', { params: { job: file.job } })
    const mine = file.entries.map(({ id }) => id)
    const theirs = entries.map(({ id }) => id)
    if (theirs.length < mine.length && theirs.every((id, i) => id === mine[i])) return 'begun'
    return theirs.length === mine.length && theirs.every((id, i) => id === mine[i]) ? 'here' : 'other'
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    if (error.status === 404) return 'new'
    if (error.status === 410) return 'deleted'
    throw error
  }
}

/** The same as a copy: a job of its own, whose ids follow from its own. */
export const asCopy = (one: OpenedJob, job: string): OpenedJob => {
  const renew = (id: string) => idFrom(`${job} ${id}`, idFrom.URL)
  const before = new Map(one.file.photos.map(({ id }) => [renew(id), id]))
  return {
    ...one,
    file: copied(one.file, job, renew),
    pictureOf: (photo, small) => one.pictureOf(before.get(photo) ?? photo, small),
  }
}

/** Sends a job in order; whatever arrived stays, and the same again goes on from there. */
export async function sent({ file, pictureOf }: OpenedJob, tell: (share: number) => void): Promise<void> {
  const { job, entries, photos } = file
  const all = entries.length + photos.length
  let after = 0
  let done = 0
  for (const batch of batches(entries)) {
    after = (await call('writeLog', { params: { job }, body: { after, entries: batch } })).number
    done += batch.length
    tell(done / all)
  }
  for (const photo of photos) {
    await call('writePhoto', { params: { job, photo: photo.id }, body: await written(photo, pictureOf) })
    tell(++done / all)
  }
}

async function written(photo: FiledPhoto, pictureOf: OpenedJob['pictureOf']) {
  const { id, type, createdAt, ...pins } = photo
  const image = await pictureOf(id, false)
  if (!image) throw new Error(`the photo ${id} is missing in it`)
  const small = await pictureOf(id, true)
  const thumbnail = small && small.size < mostThumbnail && small.size !== image.size ? small : undefined
  return {
    ...pins,
    at: createdAt,
    image: await dataAddress(image, type),
    ...(thumbnail && { thumbnail: await dataAddress(thumbnail, 'image/jpeg') }),
  }
}

const dataAddress = (blob: Blob, type: string): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.onload = () => resolve((reader.result as string).replace(/^data:[^;]*/, `data:${type}`))
    reader.onerror = () => reject(new Error('a photo in it could not be read'))
    reader.readAsDataURL(blob)
  })

function* batches(entries: readonly LogEntry[]): Generator<LogEntry[]> {
  let batch: LogEntry[] = []
  let size = 0
  for (const entry of entries) {
    const own = JSON.stringify(entry).length
    if (batch.length === mostEntries || (batch.length > 0 && size + own > mostCharacters)) {
      yield batch
      batch = []
      size = 0
    }
    batch.push(entry)
    size += own
  }
  if (batch.length > 0) yield batch
}
