import type { EntityManager, MikroORM } from '@mikro-orm/libsql'
import { closeDatabase, lineageOf, openDatabase } from './database'
import { troubleOf, type DataTrouble } from './failures'

export type LastingTrouble = Exclude<DataTrouble, 'busy'>

/** The data of a folder while they are served: the one way to them, and what is known to be wrong with them. */
export class Data {
  private orm: MikroORM
  private found: LastingTrouble | undefined
  private line: string
  private exchanging = false

  private constructor(
    readonly folder: string,
    orm: MikroORM,
    lineage: string,
  ) {
    this.orm = orm
    this.line = lineage
  }

  /** Throws StartError as {@link openDatabase}. */
  static async open(folder: string): Promise<Data> {
    const orm = await openDatabase(folder)
    return new Data(folder, orm, await lineageOf(orm.em.fork()))
  }

  em(): EntityManager {
    if (this.exchanging) throw Object.assign(new Error('the data are being exchanged'), { code: 'SQLITE_BUSY' })
    return this.orm.em.fork()
  }
  get lineage(): string {
    return this.line
  }
  get trouble(): LastingTrouble | undefined {
    return this.found
  }

  /** Remembers what an error says of the data. Damage stays; a disk that was full may have room again. */
  note(error: unknown): DataTrouble | undefined {
    const trouble = troubleOf(error)
    if (trouble && trouble !== 'busy' && this.found !== 'damaged') this.found = trouble
    return trouble
  }
  noteDamage(): void {
    this.found = 'damaged'
  }
  noteWritten(): void {
    if (this.found !== 'damaged') this.found = undefined
  }

  /**
   * Closes the data, lets their files be exchanged, and opens what is there then. Where that cannot be opened, the exchange is taken
   * back by what it has returned, and the reason thrown.
   */
  async exchanged(exchange: () => (() => void) | undefined): Promise<void> {
    this.exchanging = true
    try {
      // What is being read goes on to its end.
      await new Promise((done) => setTimeout(done, 100))
      await closeDatabase(this.orm).catch(() => undefined)
      let takeBack: (() => void) | undefined
      try {
        takeBack = exchange()
        this.orm = await openDatabase(this.folder)
      } catch (error) {
        takeBack?.()
        this.orm = await openDatabase(this.folder)
        throw error
      } finally {
        this.line = await lineageOf(this.orm.em.fork())
      }
      this.found = undefined
    } finally {
      this.exchanging = false
    }
  }

  async close(): Promise<void> {
    await closeDatabase(this.orm)
  }
}
