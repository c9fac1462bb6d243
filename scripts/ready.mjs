// What every command needs first: a Node that is new enough, and the packages. Uses nothing that is not in Node.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
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

/** What the installed packages were installed from: the lock file, and what each workspace asks for. */
function wanted() {
  const manifests = [
    'package-lock.json',
    'package.json',
    ...['core', 'contract', 'cli', 'server', 'web', 'e2e'].map((w) => `${w}/package.json`),
  ]
  const hash = createHash('sha256')
  for (const file of manifests) hash.update(readFileSync(join(root, file)))
  return hash.digest('hex')
}

/** Installs the packages where they are missing or others are asked for now: just those that the lock file names. */
export function installPackages() {
  const stamp = join(root, 'node_modules/.nobbet-installed')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted()) return
  process.stdout.write('Installing packages\n')
  if (!run('npm', ['ci', '--loglevel=error'])) giveUp('the packages could not be installed: see above')
  writeFileSync(stamp, wanted())
}
