import { isDeepStrictEqual } from 'node:util'
import type { EntityManager } from '@mikro-orm/libsql'
import type { Photo, PhotoWrite } from '@nobbet/contract'
import { JobEntity, PhotoEntity, RevisionEntity, type PhotoRow } from './entities'
import { ApiProblem, notFound } from './problem'

/** Photos pinned to a job's revisions. Like a revision, a photo never changes; it can be taken down. */
export class PhotoService {
  constructor(
    private readonly em: EntityManager,
    private readonly now: () => Date,
  ) {}

  async list(job: string): Promise<Photo[]> {
    if (!(await this.em.findOne(JobEntity, { id: job }))) throw notFound('job')
    const rows = await this.em.find(PhotoEntity, { job }, { orderBy: { createdAt: 'asc', id: 'asc' } })
    return rows.map(photoOf)
  }

  write(job: string, id: string, write: PhotoWrite): Promise<Photo> {
    return this.em.transactional(async (em) => {
      if (!(await em.findOne(RevisionEntity, { id: write.revision, job })))
        throw new ApiProblem(422, 'This photo cannot be pinned', [
          { field: 'revision', reason: `the job has no revision "${write.revision}"` },
        ])
      const found = await em.findOne(PhotoEntity, { id })
      if (found) {
        const { revision, caption, image } = found
        if (found.job === job && isDeepStrictEqual({ revision, caption, image }, write)) return photoOf(found)
        throw new ApiProblem(409, 'A photo never changes', [
          { field: 'photo', reason: 'this id is taken: use a new one' },
        ])
      }
      const row = em.create(PhotoEntity, { id, job, ...write, createdAt: this.now() })
      em.persist(row)
      return photoOf(row)
    })
  }

  async remove(job: string, id: string): Promise<void> {
    await this.em.nativeDelete(PhotoEntity, { id, job })
  }
}

const photoOf = ({ id, revision, caption, image, createdAt }: PhotoRow): Photo => ({
  id,
  revision,
  caption,
  image,
  createdAt: createdAt.toISOString(),
})
