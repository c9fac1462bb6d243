import type { JobSummary } from '@nobbet/contract'
import { noSteps, type Keeper, type Keeping, type KeptJob, type Sitting } from './kept'

/** Keeps things as long as the page lives: for a browser that has no store or forbids it. */
export class MemoryKeeper implements Keeper {
  private readonly keeping = new Map<string, KeptJob>()
  private readonly pictures = new Map<string, string>()
  private readonly sittings = new Map<string, Sitting>()
  private listed: { jobs: JobSummary[]; readAt: number } | undefined
  private next = 1

  private of = (job: string): KeptJob => this.keeping.get(job) ?? { pending: [], clashes: [], steps: noSteps }

  async read(job: string) {
    return this.of(job)
  }
  async keep(job: string, { add = [], pictures = {}, steps, settled = [] }: Keeping) {
    for (const [photo, picture] of Object.entries(pictures)) this.pictures.set(photo, picture)
    const kept = this.of(job)
    this.keeping.set(job, {
      ...kept,
      pending: [...kept.pending, ...add.map((one) => ({ ...one, job, key: this.next++ }))],
      clashes: kept.clashes.filter((c) => !settled.includes(c.id)),
      steps: steps ?? kept.steps,
    })
  }
  async rework(job: string, work: (kept: KeptJob) => KeptJob) {
    const after = work(this.of(job))
    this.keeping.set(job, after)
    return after
  }
  async picture(photo: string) {
    return this.pictures.get(photo)
  }
  async jobs() {
    return [...this.keeping.keys()]
  }
  async unsent() {
    return [...this.keeping].flatMap(([job, { pending }]) => (pending.length > 0 ? [job] : []))
  }
  async list() {
    return this.listed
  }
  async keepList(jobs: JobSummary[], readAt: number) {
    this.listed = { jobs, readAt }
  }
  async sitting(job: string) {
    return this.sittings.get(job)
  }
  async keepSitting(job: string, sitting: Sitting) {
    this.sittings.set(job, sitting)
  }
}
