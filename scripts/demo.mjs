// Installs, builds, migrates, loads the demo data and serves on the loopback. Run again it keeps the data; --fresh renews it.
import { spawn } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { checkNode, giveUp, installPackages, root, run } from './ready.mjs'

checkNode()
installPackages()

const newest = (path) => {
  const stat = statSync(path)
  if (!stat.isDirectory()) return stat.mtimeMs
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))))
}
const built = join(root, 'web/dist/index.html')
const sources = ['core/src', 'contract/src', 'web/src', 'web/index.html', 'web/public', 'package-lock.json']
if (!existsSync(built) || sources.some((s) => newest(join(root, s)) > statSync(built).mtimeMs)) {
  process.stdout.write('Building the application\n')
  if (!run('npm', ['run', '-s', 'build'])) giveUp('the application could not be built: see above')
}

const flags = process.argv.slice(2)
const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts', '--demo', ...flags], {
  cwd: root,
  stdio: 'inherit',
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', (code) => process.exit(code ?? 0))
