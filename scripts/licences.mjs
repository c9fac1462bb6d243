// Lists the packages that run at a user's, with their licences, in docs/licences.md. With --check it only says whether that is up to date.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { giveUp, root } from './ready.mjs'

const listed = spawnSync('npm', ['ls', '--omit=dev', '--all', '--parseable'], { cwd: root, encoding: 'utf8' })
const packages = new Map()
for (const folder of listed.stdout.split('\n')) {
  // What is ours, and what a package brings for other machines than this one.
  if (!folder.includes('node_modules') || !existsSync(join(folder, 'package.json'))) continue
  const { name, version, license, licenses } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'))
  if (!name || name.startsWith('@nobbet/') || relative(root, folder).startsWith('..')) continue
  // Built for one kind of machine each; their parent stands for them.
  if (/[-/](linux|darwin|win32|android|freebsd|openbsd|netbsd|sunos|aix|openharmony|wasm32)/.test(name)) continue
  const told = license ?? licenses?.map((l) => l.type).join(' or ') ?? 'not said'
  packages.set(`${name} ${version}`, { name, version, licence: typeof told === 'string' ? told : told.type })
}
const rows = [...packages.values()].sort((x, y) => (x.name < y.name ? -1 : x.name > y.name ? 1 : 0))
const text = [
  '# Licences of what is shipped',
  '',
  'Made by `npm run licences`. Packages that run on the server, on the command line or in the browser; tools for building and testing are',
  'not among them.',
  '',
  '| Package | Version | Licence |',
  '| --- | --- | --- |',
  ...rows.map((r) => `| ${r.name} | ${r.version} | ${r.licence} |`),
  '',
].join('\n')

const file = join(root, 'docs/licences.md')
if (process.argv.includes('--check')) {
  const said = existsSync(file) ? readFileSync(file, 'utf8') : ''
  const plain = (t) => t.replace(/[ -]+/g, ' ')
  if (plain(said) !== plain(text)) giveUp('docs/licences.md is not up to date: run "npm run licences"')
} else {
  writeFileSync(file, text)
  spawnSync('npx', ['prettier', '--write', '--log-level', 'warn', file], { cwd: root })
}
