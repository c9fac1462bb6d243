import { createHash } from 'node:crypto'
import type { EntityManager } from '@mikro-orm/libsql'
import type { Photo, PhotoList, PhotoWrite } from '@nobbet/contract'
import { JobEntity, PhotoEntity, RevisionEntity, type PhotoRow } from '../data/entities'
import { ApiProblem, inBin, notFound } from '../http/problem'
import { JobIndex } from '../jobs/job-index'

/** Bytes of a photo, and what a browser has to know of them. */
export interface Picture {
  type: string
  digest: string
  bytes: Buffer
}

/** Photos of a job: of a state of its wiring, of a finding, or only of a visit. Like a revision, a photo never changes; it can be taken down. */
export class PhotoService {
  constructor(
    private readonly em: EntityManager,
    private readonly now: () => Date,
    /** Bytes that the photos of all jobs may take together. */
    private readonly most: number,
  ) {}

  async list(job: string): Promise<PhotoList> {
    await this.jobThere(job)
    const rows = await this.em.find(PhotoEntity, { job }, { orderBy: { createdAt: 'asc', id: 'asc' } })
    return { photos: rows.map(photoOf), room: { used: await this.used(), most: this.most } }
  }

  write(
    job: string,
    id: string,
    { image, thumbnail, revision, visit, item, spot, at, caption }: PhotoWrite,
  ): Promise<Photo> {
    const picture = pictureOf(image, 'image')
    const small = thumbnail === undefined ? null : pictureOf(thumbnail, 'thumbnail').bytes
    return this.em.transactional(async (em) => {
      const service = new PhotoService(em, this.now, this.most)
      await service.jobThere(job)
      if (revision !== undefined && !(await em.findOne(RevisionEntity, { id: revision, job })))
        throw new ApiProblem(422, 'This photo cannot be pinned', [
          { field: 'revision', reason: `the job has no revision "${revision}"` },
        ])
      const found = await em.findOne(PhotoEntity, { id })
      if (found) {
        const same =
          found.digest === picture.digest && (found.revision ?? undefined) === revision && found.caption === caption
        if (found.job === job && same) return photoOf(found)
        throw new ApiProblem(409, 'A photo never changes', [
          { field: 'photo', reason: 'this id is taken: use a new one' },
        ])
      }
      const used = await service.used()
      if (used + picture.bytes.length > this.most)
        throw new ApiProblem(
          507,
          'There is no room for more photos',
          [{ field: 'image', reason: `photos take ${megabytes(used)} of ${megabytes(this.most)}` }],
          'Take down photos that are not needed any more, or give them more room with NOBBET_PHOTO_MB.',
        )
      const { type, digest, bytes } = picture
      const pins = { revision: revision ?? null, visit: visit ?? null, item: item ?? null, spot: spot ?? null }
      const row = {
        id,
        job,
        ...pins,
        caption,
        type,
        digest,
        bytes: bytes.length,
        createdAt: at === undefined ? this.now() : new Date(at),
      }
      em.persist(em.create(PhotoEntity, row))
      await em.flush()
      await em.execute('insert into picture (photo, image, thumbnail) values (?, ?, ?)', [id, bytes, small])
      await new JobIndex(em).bringUp(job, 'as it was')
      return photoOf(row)
    })
  }

  /** The bytes of a photo, or of its small picture where there is one. */
  async picture(job: string, id: string, which: 'image' | 'thumbnail'): Promise<Picture> {
    const row = await this.em.findOne(PhotoEntity, { id, job })
    if (!row) throw notFound('photo')
    await this.jobThere(job)
    const column = which === 'thumbnail' ? 'coalesce(thumbnail, image)' : 'image'
    const [found] = (await this.em.execute(`select ${column} as bytes from picture where photo = ?`, [
      id,
    ])) as unknown as { bytes: Uint8Array }[]
    if (!found) throw notFound('photo')
    const bytes = Buffer.from(found.bytes)
    const { type } = row
    // A small picture is always what the browser has made: a JPEG.
    return {
      type: which === 'thumbnail' && bytes.length !== row.bytes ? 'image/jpeg' : type,
      digest: row.digest,
      bytes,
    }
  }

  async remove(job: string, id: string): Promise<void> {
    const taken = await this.em.nativeDelete(PhotoEntity, { id, job })
    if (taken > 0) await this.em.transactional((em) => new JobIndex(em).bringUp(job, 'as it was'))
  }

  private async jobThere(id: string): Promise<void> {
    const job = await this.em.findOne(JobEntity, { id })
    if (!job) throw notFound('job')
    if (job.deletedAt) throw inBin()
  }

  private async used(): Promise<number> {
    const [row] = (await this.em.execute('select coalesce(sum(bytes), 0) as used from photo')) as unknown as {
      used: number
    }[]
    return Number(row.used)
  }
}

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`

/** What the first bytes of each kind of picture are; a browser is told no other kind than the one it is. */
const heads: Record<string, (bytes: Buffer) => boolean> = {
  'image/jpeg': (b) => b[0] === 0xff && b[1] === 0xd8,
  'image/png': (b) => b.subarray(0, 8).equals(Buffer.from('89504e470d0a1a0a', 'hex')),
  'image/webp': (b) => b.toString('latin1', 0, 4) === 'RIFF' && b.toString('latin1', 8, 12) === 'WEBP',
}

function pictureOf(address: string, field: string): Picture {
  const [, type, base64] = /^data:([\w/+.-]+);base64,(.*)$/s.exec(address)!
  const bytes = Buffer.from(base64, 'base64')
  if (!heads[type]?.(bytes))
    throw new ApiProblem(422, 'This photo cannot be pinned', [
      { field, reason: `is not the ${type} that it says it is` },
    ])
  return { type, bytes, digest: createHash('sha256').update(bytes).digest('hex') }
}

const photoOf = ({ id, revision, visit, item, spot, caption, type, bytes, createdAt }: PhotoRow): Photo => ({
  id,
  ...(revision !== null && { revision }),
  ...(visit !== null && { visit }),
  ...(item !== null && { item }),
  ...(spot && { spot }),
  caption,
  type,
  bytes,
  createdAt: createdAt.toISOString(),
})
