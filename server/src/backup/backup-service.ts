import { createReadStream, createWriteStream, existsSync, renameSync, rmSync, statSync } from 'node:fs'
import type { IncomingMessage } from 'node:http'
import { pipeline } from 'node:stream/promises'
import type { Content } from './file-work'
import type { BackupList, Restored } from '@nobbet/contract'
import type { Context } from 'koa'
import type { Data } from '../data/data'
import { backupFolder, backupsIn, databaseFile, makeFolder } from '../data/folder'
import { InTurn } from '../data/in-turn'
import { notFound } from '../http/problem'
import { backUp, BackupError, backUpDaily, backupFile, putBack, soundContent } from './backups'
import { checkDatabase } from './file-work'

/** Backups of the data that are being served. Long work is done one at a time. */
export class BackupService {
  private problem: string | undefined
  private readonly turn = new InTurn()

  constructor(
    private readonly data: Data,
    private readonly now: () => Date,
  ) {}

  list(): BackupList {
    const backups = backupsIn(this.data.folder).map(({ name, at, bytes }) => ({ name, at: at.toISOString(), bytes }))
    return { backups, ...(this.problem && { problem: this.problem }) }
  }

  make(name: string): Promise<Content> {
    return this.turn.run(async () => {
      makeFolder(backupFolder(this.data.folder))
      return told(await backUp(this.data.folder, this.file(name)))
    })
  }

  /** Reads everything there is. What is found wrong is remembered: nothing is written any more. */
  async check(): Promise<{ sound: boolean; detail: string }> {
    const looked = await checkDatabase(databaseFile(this.data.folder)).catch((error: Error) => ({
      wrong: error.message,
    }))
    if ('wrong' in looked) {
      this.data.noteDamage()
      return { sound: false, detail: looked.wrong }
    }
    if ('foreign' in looked) return { sound: false, detail: 'This is no database of Nobbet’s' }
    return { sound: true, detail: `${looked.jobs} jobs, ${looked.findings} findings, ${looked.photos} photos` }
  }

  async answer(ctx: Context, name: string): Promise<void> {
    const file = this.file(name)
    if (!existsSync(file)) throw notFound('backup')
    ctx.type = 'application/vnd.sqlite3'
    ctx.length = statSync(file).size
    ctx.attachment(`nobbet-${name}.sqlite`)
    ctx.set('Cache-Control', 'private, no-store')
    ctx.compress = false
    ctx.body = createReadStream(file)
  }

  /** Takes a backup from elsewhere; one that is not sound leaves no trace. */
  takeIn(name: string, from: IncomingMessage): Promise<Content> {
    return this.turn.run(async () => {
      makeFolder(backupFolder(this.data.folder))
      const file = this.file(name)
      if (existsSync(file)) throw new BackupError('There is a backup of that name already: choose another')
      const half = `${file}.half`
      try {
        await pipeline(from, createWriteStream(half, { mode: 0o600 }))
        const content = told(await soundContent(half))
        renameSync(half, file)
        return content
      } finally {
        rmSync(half, { force: true })
      }
    })
  }

  /** Puts a backup in the place of everything. It is read from end to end first; what was there is kept. */
  restore(name: string, now: Date): Promise<Restored> {
    return this.turn.run(async () => {
      const file = this.file(name)
      if (!existsSync(file)) throw notFound('backup')
      const content = told(await soundContent(file))
      let kept: string | undefined
      await this.data.exchanged(() => {
        const put = putBack(this.data.folder, file, now)
        kept = put.kept
        return put.takeBack
      })
      return { ...content, ...(kept && { kept }) }
    })
  }

  /** Today's, where there is none yet. That it could not be made is told with the list. */
  async daily(): Promise<void> {
    await this.turn.run(async () => {
      try {
        await backUpDaily(this.data.folder, this.now())
        this.problem = undefined
      } catch (error) {
        this.data.note(error)
        this.problem = error instanceof BackupError ? error.message : 'Today’s backup could not be made'
      }
    })
  }

  private file(name: string): string {
    return backupFile(this.data.folder, name)
  }
}

const told = ({ jobs, findings, photos, entries }: Content) => ({ jobs, findings, photos, entries }) as Content
