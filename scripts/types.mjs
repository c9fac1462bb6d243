// Checks the types of every workspace, each file once: what a workspace imports from another is checked with the other. The
// floors below are held to more: there a place in a list counts as filled only where that was looked at.
import { join, relative, sep } from 'node:path'
import ts from 'typescript'
import { root } from './ready.mjs'

const workspaces = ['core', 'contract', 'cli', 'server', 'web', 'e2e']
const strictFloors = ['hunt', 'hypotheses', 'inference', 'inputs', 'looks'].map((floor) => `core/src/${floor}`)

const sources = new Map()
/** A program's way to the disk; what is read once serves every program. */
function hostOf(options) {
  const host = ts.createCompilerHost(options)
  const { getSourceFile } = host
  host.getSourceFile = (name, version, ...rest) => {
    const key = `${name} ${JSON.stringify(version)}`
    if (!sources.has(key)) sources.set(key, getSourceFile.call(host, name, version, ...rest))
    return sources.get(key)
  }
  return host
}

function programOf(workspace, more = {}) {
  const file = join(root, workspace, 'tsconfig.json')
  const { options, fileNames, errors } = ts.getParsedCommandLineOfConfigFile(file, more, {
    ...ts.sys,
    onUnRecoverableConfigFileDiagnostic: (problem) => problems.push(problem),
  })
  problems.push(...errors)
  return ts.createProgram(fileNames, options, hostOf(options))
}

function check(program, folder, takes = () => true) {
  const inside = join(root, folder) + sep
  problems.push(...program.getOptionsDiagnostics(), ...program.getGlobalDiagnostics())
  for (const file of program.getSourceFiles())
    if (file.fileName.startsWith(inside) && !file.fileName.includes('node_modules') && takes(file.fileName))
      problems.push(...program.getSyntacticDiagnostics(file), ...program.getSemanticDiagnostics(file))
}

const problems = []
for (const workspace of workspaces) check(programOf(workspace), workspace)
const strict = programOf('core', { noUncheckedIndexedAccess: true })
for (const floor of strictFloors) check(strict, floor, (name) => !name.endsWith('.test.ts'))

if (problems.length > 0) {
  process.stderr.write(
    ts.formatDiagnostics(ts.sortAndDeduplicateDiagnostics(problems), {
      getCanonicalFileName: (name) => relative(root, name),
      getCurrentDirectory: () => root,
      getNewLine: () => '\n',
    }),
  )
  process.exit(1)
}
