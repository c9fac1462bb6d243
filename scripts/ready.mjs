// What every command needs first: a Node that is new enough, and the packages. Uses nothing that is not in Node.
import { spawnSync } from 'node:child_process'
import { existsSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = dirname(dirname(fileURLToPath(import.meta.url)))

/** Ends the program with one line that says what to do. */
export function giveUp(line) {
  process.stderr.write(`nobbet: ${line}\n`)
  process.exit(1)
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    giveUp(`this is Node ${process.versions.node}: install Node 20.19 or later`)
}

/** Runs a command with its output shown; true where it ended well. */
export function run(command, args, options = {}) {
  return spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options }).status === 0
}

/** Installs the packages where they are missing or older than the lock file. */
export function installPackages() {
  const done = join(root, 'node_modules/.package-lock.json')
  const lock = join(root, 'package-lock.json')
  if (existsSync(done) && statSync(done).mtimeMs >= statSync(lock).mtimeMs) return
  process.stdout.write('Installing packages\n')
  if (!run('npm', ['ci', '--loglevel=error'])) giveUp('the packages could not be installed: see above')
}
