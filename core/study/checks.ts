import { fileURLToPath } from 'node:url'
import { Study, type Fate } from '../src/checks'
import { exampleById, examples } from '../src/examples'
import { alterationKinds, type AlterationKind } from '../src/hypotheses'
import { answering, line, percent, spread, table, writeBehind } from './pool'

/**
 * `npm run study:checks`: every single alteration of every example, judged by the checks; the figures go into docs/checks.md.
 * One process an example at a time for each processor; `-- EXAMPLE …` studies those only and writes nothing.
 */
interface Result {
  id: string
  seconds: number
  fates: { name: string; label: string; kind: AlterationKind; fate: Fate; severity?: string; by: string[] }[]
}

/** What stands behind this line of docs/checks.md is written by the study. */
const marker = '<!-- study -->'

function study(id: string): Result {
  const start = performance.now()
  const of = new Study(exampleById(id)!.installation)
  const fates = of.alterations.map((alteration) => {
    const { fate, severity, by } = of.judge(alteration)
    const { name, label, kind } = alteration
    return { name, label, kind, fate, ...(severity && { severity }), by }
  })
  return { id, seconds: (performance.now() - start) / 1000, fates }
}

const count = (fates: Result['fates'], fate: Fate) => fates.filter((f) => f.fate === fate).length
const differing = (fates: Result['fates']) => fates.filter((f) => f.fate === 'caught' || f.fate === 'missed').length

function row(name: string, fates: Result['fates'], seconds?: number): string {
  const caught = count(fates, 'caught')
  const grave = fates.filter((f) => f.severity === 'danger' || f.severity === 'will-not-work').length
  const cells = [
    name,
    fates.length,
    count(fates, 'same-joins'),
    count(fates, 'same-behaviour'),
    caught,
    grave,
    count(fates, 'missed'),
    percent(caught, differing(fates)),
    ...(seconds === undefined ? [] : [seconds.toFixed(0)]),
  ]
  return line(cells)
}

function report(results: readonly Result[]): string {
  const all = results.flatMap((r) => r.fates)
  const head = ['altered', 'same joins', 'same behaviour', 'caught', 'of these grave', 'missed', 'caught of differing']
  const rules = new Map<string, number>()
  for (const f of all) for (const by of f.by) rules.set(by, (rules.get(by) ?? 0) + 1)
  const listed = (fate: Fate) =>
    results.flatMap((r) => r.fates.filter((f) => f.fate === fate).map((f) => `- ${r.id}: ${f.label}`))
  return [
    ...table(['example', ...head, 's']),
    ...results.map((r) => row(r.id, r.fates, r.seconds)),
    row(
      '**all**',
      all,
      results.reduce((sum, r) => sum + r.seconds, 0),
    ),
    '',
    ...table(['alteration', ...head]),
    ...alterationKinds.map((kind) =>
      row(
        kind,
        all.filter((f) => f.kind === kind),
      ),
    ),
    '',
    ...table(['found by', 'times']),
    ...[...rules].sort((x, y) => y[1] - x[1]).map(([by, n]) => line([by, n])),
    '',
    '### Missed',
    '',
    ...(listed('missed').length > 0 ? listed('missed') : ['None.']),
    '',
    '### Joined otherwise, and the same in every state',
    '',
    ...listed('same-behaviour'),
  ].join('\n')
}

async function main(): Promise<void> {
  const asked = process.argv.slice(2)
  const ids = asked.length > 0 ? asked : examples.map((e) => e.id)
  const results = await spread<Result>(fileURLToPath(import.meta.url), ids, ({ id, fates }) => {
    console.log(`${id}: ${fates.length} altered, ${percent(count(fates, 'caught'), differing(fates))} caught`)
  })
  const text = report(results)
  console.log(text)
  if (asked.length === 0) writeBehind('../../docs/checks.md', marker, text)
}

if (!answering(study)) await main()
