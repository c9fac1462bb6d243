// Says which files import each other in a circle, imports of types alone included, which the linter does not see.
import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import ts from 'typescript'
import { giveUp, root } from './ready.mjs'

const sources = (folder) =>
  readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = `${folder}/${entry.name}`
    if (entry.isDirectory()) return ['node_modules', 'dist'].includes(entry.name) ? [] : sources(path)
    return /\.tsx?$/.test(entry.name) ? [path] : []
  })
const files = new Set(['core', 'contract', 'cli', 'server', 'web', 'e2e'].flatMap(sources))
const importsOf = new Map(
  [...files].map((file) => {
    const named = ts.preProcessFile(readFileSync(join(root, file), 'utf8')).importedFiles.map((i) => i.fileName)
    const found = named
      .filter((name) => name.startsWith('.'))
      .map((name) => join(dirname(file), name))
      .flatMap((path) => [`${path}.ts`, `${path}.tsx`, `${path}/index.ts`, path].find((p) => files.has(p)) ?? [])
    return [file, found]
  }),
)

/** Files on the way from the first that was asked about to this one; a file met again on it closes a circle. */
const way = []
const done = new Set()
function follow(file) {
  const at = way.indexOf(file)
  if (at >= 0) giveUp(`these files import each other in a circle: ${[...way.slice(at), file].join(' > ')}`)
  if (done.has(file)) return
  way.push(file)
  for (const next of importsOf.get(file)) follow(next)
  way.pop()
  done.add(file)
}
for (const file of files) follow(file)
