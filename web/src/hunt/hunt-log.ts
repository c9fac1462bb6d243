import type { HuntLine, LogLine } from '@nobbet/contract'
import type { HuntEntry } from '@nobbet/core'
import { v4 as newId } from 'uuid'
import type { JobStore } from '../store/job-store'

type Without<T> = T extends unknown ? Omit<T, 'id'> : never
/** An entry that is still to be named. */
export type NewEntry = Without<HuntEntry>

/** What is done to a hunt's log; everything goes into the job's own log, and nothing there is lost. */
export class HuntWriter {
  constructor(
    private readonly store: JobStore,
    private readonly lines: readonly LogLine[],
  ) {}

  /** Writes entries down at the end, one after the other. Resolves once they are kept. */
  async add(entries: readonly NewEntry[]): Promise<void> {
    const at = new Date().toISOString()
    const lines = entries.map((entry): HuntLine => ({ entry: { ...entry, id: newId() }, at, note: '' }))
    if (lines.length > 0) await this.store.record({ do: 'hunt', lines })
  }

  /** Writes a line otherwise than it was, in its place. */
  edit(line: HuntLine): void {
    void this.store.record({ do: 'hunt', lines: [bare(line)] })
  }

  takeBack(lines: readonly LogLine[]): void {
    const older = new Set(lines.flatMap((line) => (line.older ? [line.older] : [])))
    for (const finding of older) void this.store.record({ do: 'retract', finding })
    const ids = lines.flatMap((line) => (line.older ? [] : [line.entry.id]))
    if (ids.length > 0) void this.store.record({ do: 'unhunt', lines: ids })
  }

  /** Puts lines that were taken back where they stood, before a line that is still there. */
  putBack(lines: readonly LogLine[], before: string | undefined): void {
    const own = lines.map(bare)
    void this.store.record({ do: 'hunt', lines: own, ...(before !== undefined && { before }) })
  }

  /** Moves a line by one place; lines of the older kind stay at the head. */
  move(id: string, by: -1 | 1): void {
    const own = this.lines.filter((line) => !line.older)
    const at = own.findIndex(({ entry }) => entry.id === id)
    const line = own[at]
    if (!line || at + by < 0 || at + by >= own.length) return
    const before = by < 0 ? own[at - 1] : own[at + 2]
    if (before) void this.store.record({ do: 'hunt', lines: [bare(line)], before: before.entry.id })
    else void this.store.record({ do: 'hunt', lines: [bare(own[at + 1])], before: line.entry.id })
  }
}

const bare = ({ entry, at, note }: LogLine): HuntLine => ({ entry, at, note })
