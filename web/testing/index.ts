import {
  documentProblems,
  firstWiring,
  grown,
  type JobDocument,
  type JobState,
  type LogTail,
  type LogWrite,
  type NumberedEntry,
} from '@nobbet/contract'
import { ChangeError, planBriefSchema } from '@nobbet/core'
import { ApiError, UnreadableAnswer } from '../src/api/client'
import type { Server } from '../src/store/sending'
import type { Tabs } from '../src/store/tabs'

export const fitted = planBriefSchema.parse({
  scheme: 'two-port',
  circuits: [
    { kind: 'heating', name: 'House' },
    { kind: 'hot-water', name: 'Hot water' },
  ],
})
export function documentOf(site = 'Mill House'): JobDocument {
  const brief = { site, kind: 'fault' as const, symptom: 'cold', earlier: '', engineer: 'A. Engineer', fitted }
  return { brief, status: 'open', wiring: firstWiring(brief, 'mill-house') }
}

const refusal = (status: number, title: string) => new ApiError({ type: 'about:blank', title, status })

/** What the network does with a question: brings it and its answer, loses one of them, brings nonsense, or never answers. */
export type Weather = 'fair' | 'away' | 'answer-lost' | 'nonsense' | 'stalls' | 'broken'

/** The server's log in memory, behind a network that can be told how to fail. It takes and refuses as the real one does. */
export class FakeServer implements Server {
  log: NumberedEntry[] = []
  photos = new Set<string>()
  weather: () => Weather = () => 'fair'
  /** Questions that reached it. */
  asked = 0
  /** Another one where the data were brought back from a backup. */
  lineage = 'first'
  private number = 0

  constructor(
    readonly job: string,
    document?: JobDocument,
  ) {
    if (document) this.begin(document)
  }

  get state(): JobState | undefined {
    const state = this.log.reduce<JobState | undefined>((s, e) => grown(s, e, this.job), undefined)
    return state && { ...state, lineage: this.lineage }
  }

  readJob = () => this.through(() => this.state ?? this.none())
  readLog = (_job: string, after: number) => this.through(() => this.tail(after))
  writeLog = (_job: string, { after, entries }: LogWrite) =>
    this.through(() => {
      this.take(entries, after)
      return this.tail(after)
    })
  writePhoto = (_job: string, id: string) => this.through(() => this.photos.add(id))
  deletePhoto = (_job: string, id: string) => this.through(() => this.photos.delete(id))

  /** The numbers go on from what is there; an empty log begins with this document. */
  renumber(document: JobDocument): void {
    this.number = this.log.at(-1)?.number ?? 0
    if (this.log.length === 0) this.begin(document)
  }
  private begin(document: JobDocument): void {
    const at = '2026-11-26T08:00:00.000Z'
    this.take([
      {
        id: 'the-beginning',
        author: '',
        visit: 'visit-0',
        at,
        entry: { do: 'open', ...document },
      },
    ])
  }

  private none(): never {
    throw refusal(404, 'There is no such job')
  }
  private tail(after: number): LogTail {
    if (this.log.length === 0) this.none()
    return { entries: this.log.filter((e) => e.number > after), number: this.number, lineage: this.lineage }
  }

  private take(entries: LogWrite['entries'], after = 0): void {
    const log = [...this.log]
    let state = this.state
    let number = this.number
    for (const entry of entries) {
      if (log.some((e) => e.id === entry.id)) continue
      if (!state && entry.entry.do !== 'open') this.none()
      const numbered = { ...structuredClone(entry), number: ++number }
      try {
        state = grown(state, numbered, this.job)
      } catch (error) {
        throw error instanceof ChangeError
          ? refusal(412, 'Somebody has changed this meanwhile')
          : refusal(409, 'Not here')
      }
      log.push(numbered)
    }
    const mine = new Set(entries.map((e) => e.id))
    if (state && documentProblems(state.document).length > 0)
      throw refusal(log.some((e) => e.number > after && !mine.has(e.id)) ? 412 : 422, 'This job cannot be so')
    this.log = log
    this.number = number
  }

  private async through<T>(answer: () => T): Promise<T> {
    const weather = this.weather()
    await Promise.resolve()
    if (weather === 'away') throw new TypeError('failed to fetch')
    if (weather === 'stalls') return new Promise(() => undefined)
    this.asked++
    if (weather === 'broken') throw refusal(503, 'The server is busy')
    if (weather === 'nonsense') throw new UnreadableAnswer()
    const said = structuredClone(answer())
    if (weather === 'answer-lost') throw new TypeError('connection reset')
    return said
  }
}

/** Tabs of one browser: each hears what the others say, and one at a time is alone with a name. */
export class FakeTabs {
  private readonly listeners = new Map<Tabs, (job: string) => void>()
  private held = new Set<string>()

  tab(): Tabs {
    const tab: Tabs = {
      say: (job) => this.listeners.forEach((heard, other) => other !== tab && queueMicrotask(() => heard(job))),
      listen: (heard) => {
        this.listeners.set(tab, heard)
        return () => void this.listeners.delete(tab)
      },
      alone: async (name, work) => {
        if (this.held.has(name)) return false
        this.held.add(name)
        try {
          await work()
        } finally {
          this.held.delete(name)
        }
        return true
      },
    }
    return tab
  }
  /** A tab that was closed says and hears nothing more, and lets go of what it held. */
  close(tab: Tabs, name: string): void {
    this.listeners.delete(tab)
    this.held.delete(name)
  }
}
