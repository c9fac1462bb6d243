import { LibSqlKnexDialect } from '@mikro-orm/libsql'
import type { Database } from 'libsql'

/** So long a connection waits for another one's lock, ms. Nothing else is answered meanwhile. */
export const busyMs = 800

/** What holds on every connection, however often it is made anew. */
export const pragmas = [
  `busy_timeout = ${busyMs}`,
  'journal_mode = wal',
  // On disk before it is acknowledged.
  'synchronous = full',
  'foreign_keys = on',
  // What is deleted is gone from the file too.
  'secure_delete = on',
]

interface Transaction {
  begin(connection: Database): Promise<void>
}
interface Dialect {
  connectionSettings: { filename: string }
  driver: new (file: string) => Database
  transaction(...args: unknown[]): Transaction
}
const Base = LibSqlKnexDialect as unknown as new (...args: unknown[]) => Dialect

/**
 * The driver's way of speaking to SQLite, with two things mended: pragmas belong to a connection, and a transaction takes the
 * write lock when it begins, so that it never finds halfway that somebody else has it.
 */
export class SteadyDialect extends Base {
  async acquireRawConnection(): Promise<Database> {
    const connection = new this.driver(this.connectionSettings.filename)
    try {
      for (const pragma of pragmas) connection.exec(`pragma ${pragma}`)
    } catch (error) {
      connection.close()
      throw error
    }
    return connection
  }

  /** A file does not hang up. */
  validateConnection(): boolean {
    return true
  }

  override transaction(...args: unknown[]): Transaction {
    const transaction = super.transaction(...args)
    // Not by the transaction's own query, which keeps to itself that it has failed.
    transaction.begin = async (connection) => void connection.exec('begin immediate')
    return transaction
  }
}
