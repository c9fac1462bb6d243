// Installs what is missing (packages, Chromium, ngspice), then lint, types, build, unit, API and browser tests. Ends with the line "N passed, N failed".
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { checkNode, giveUp, installPackages, run } from './ready.mjs'

checkNode()
installPackages()

const browsers = [
  process.env.NOBBET_CHROMIUM,
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
]
/** Installs a Debian package where what it brings is missing. Nothing is skipped for want of it. */
function need(name, pkg, present, otherwise) {
  if (present()) return
  if (process.getuid?.() !== 0) giveUp(`the tests need ${name}: run "apt-get install ${pkg}" as root${otherwise}`)
  process.stdout.write(`Installing ${name}\n`)
  const quiet = { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  if (!run('apt-get', ['update', '-qq'], quiet) || !run('apt-get', ['install', '-y', '-qq', pkg], quiet))
    giveUp(`${name} could not be installed: see above`)
}
need('Chromium', 'chromium', () => browsers.some((path) => path && existsSync(path)), ', or set NOBBET_CHROMIUM')
need('ngspice', 'ngspice', () => spawnSync('ngspice', ['--version']).error === undefined, '')
need('poppler-utils', 'poppler-utils', () => spawnSync('pdftotext', ['-v']).error === undefined, '')

let passed = 0
let failed = 0
/** What failed, told again at the end: the beginning of a long output is soon out of sight. */
const failures = []
/** Of what a file of tests says of its failures, so many characters: an example against a property may be a book. */
const mostTold = 4000
/** Runs a script while others run; what it says comes in one piece when it has ended. */
const step = (name, script) =>
  new Promise((resolve) => {
    const child = spawn('npm', ['run', '-s', script], { stdio: ['ignore', 'pipe', 'pipe'] })
    const said = []
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (piece) => said.push(piece))
    child.on('close', (code) => {
      process.stdout.write(`\n== ${name}\n${Buffer.concat(said)}`)
      if (code === 0) passed++
      else {
        failed++
        failures.push(name)
      }
      resolve()
    })
  })
await Promise.all([step('Lint', 'lint'), step('Types', 'typecheck').then(() => step('Build', 'build'))])

for (const [name, script] of [
  ['Unit tests', 'unit'],
  ['API tests', 'api'],
  ['Browser tests', 'browser'],
]) {
  process.stdout.write(`\n== ${name}\n`)
  const report = join(mkdtempSync(join(tmpdir(), 'nobbet-test-')), 'report.json')
  spawnSync('npm', ['run', '-s', script, '--', '--json', `--outputFile=${report}`], {
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  if (!existsSync(report)) {
    failed++
    failures.push(`${name}: nothing was reported`)
    continue
  }
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults } = JSON.parse(
    readFileSync(report, 'utf8'),
  )
  for (const { name: file, message, assertionResults } of testResults.filter(({ status }) => status === 'failed'))
    failures.push(
      ...assertionResults.filter(({ status }) => status === 'failed').map(({ fullName }) => `${file}: ${fullName}`),
      message.slice(0, mostTold),
    )
  passed += numPassedTests
  failed += numFailedTests + numRuntimeErrorTestSuites
}

if (failures.length > 0) process.stdout.write(`\n== Failed\n${failures.join('\n')}\n`)
process.stdout.write(`\n${passed} passed, ${failed} failed\n`)
process.exit(failed > 0 || passed === 0 ? 1 : 0)
