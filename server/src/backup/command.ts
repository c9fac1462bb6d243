import { openDatabase, closeDatabase } from '../data/database'
import { lockFolder, makeFolder } from '../data/folder'
import { StartError } from '../start-error'
import { backUp, BackupError, putBack, soundContent } from './backups'
import type { Content } from './file-work'

export { BackupError, StartError }

/** All data of a folder to a new file, whether a server uses them or not. Throws BackupError. */
export const backUpFolder = (folder: string, to: string): Promise<Content> => backUp(folder, to)

/**
 * Puts a backup in the place of a folder's data. Throws BackupError where it is not sound, StartError where a server uses the folder;
 * nothing has then been touched. Answers with the name under which what was there is kept.
 */
export async function restoreFolder(
  folder: string,
  from: string,
  now: Date,
): Promise<{ content: Content; kept: string | undefined }> {
  const content = await soundContent(from)
  makeFolder(folder)
  const lock = lockFolder(folder)
  try {
    const { kept, takeBack } = putBack(folder, from, now)
    try {
      await closeDatabase(await openDatabase(folder))
    } catch (error) {
      takeBack()
      throw error
    }
    return { content, kept }
  } finally {
    lock.release()
  }
}
