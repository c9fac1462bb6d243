import { fileURLToPath } from 'node:url'
import { Study, type Fate } from '../src/checks'
import { exampleById, examples } from '../src/examples'
import { alterationKinds, type AlterationKind } from '../src/hypotheses'
import { centreKind, planSystem, type CentreKindId } from '../src/planning'
import { answering, line, percent, spread, table, writeBehind } from './pool'

/**
 * `npm run study:checks`: every single alteration of every example, as it ships and in each of some other boxes, judged by the
 * checks; the figures go into docs/checks.md. One process an example at a time for each processor; `-- EXAMPLE …` or
 * `-- EXAMPLE/BOX …` studies those only and writes nothing.
 */
interface Result {
  id: string
  box: CentreKindId
  seconds: number
  fates: { name: string; label: string; kind: AlterationKind; fate: Fate; severity?: string; by: string[] }[]
}

/** What stands behind this line of docs/checks.md is written by the study. */
const marker = '<!-- study -->'

const shipped: CentreKindId = 'separate'
const boxes: readonly CentreKindId[] = ['strips-12', 'levers', 'board-cut']

function study(task: string): Result {
  const start = performance.now()
  const [id, box = shipped] = task.split('/') as [string, CentreKindId?]
  const { brief, installation } = exampleById(id)!
  const of = new Study(box === shipped ? installation : planSystem({ ...brief, terminals: box }, id, id))
  const fates = of.alterations.map((alteration) => {
    const { fate, severity, by } = of.judge(alteration)
    const { name, label, kind } = alteration
    return { name, label, kind, fate, ...(severity && { severity }), by }
  })
  return { id, box, seconds: (performance.now() - start) / 1000, fates }
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

const secondsOf = (results: readonly Result[]) => results.reduce((sum, r) => sum + r.seconds, 0)
const fatesOf = (results: readonly Result[]) => results.flatMap((r) => r.fates)

function report(studied: readonly Result[]): string {
  const results = studied.filter(({ box }) => box === shipped)
  const all = fatesOf(results)
  const head = ['altered', 'same joins', 'same behaviour', 'caught', 'of these grave', 'missed', 'caught of differing']
  const rules = new Map<string, number>()
  for (const f of all) for (const by of f.by) rules.set(by, (rules.get(by) ?? 0) + 1)
  const listed = (fate: Fate) =>
    studied.flatMap((r) => r.fates.filter((f) => f.fate === fate).map((f) => `- ${nameOf(r)}: ${f.label}`))
  return [
    ...table(['example', ...head, 's']),
    ...results.map((r) => row(r.id, r.fates, r.seconds)),
    row('**all**', all, secondsOf(results)),
    '',
    ...table(['all examples in', ...head, 's']),
    ...[shipped, ...boxes].map((box) => {
      const there = studied.filter((r) => r.box === box)
      return row(centreKind(box).name.toLowerCase(), fatesOf(there), secondsOf(there))
    }),
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

const nameOf = ({ id, box }: Result) => (box === shipped ? id : `${id} in ${centreKind(box).name.toLowerCase()}`)

async function main(): Promise<void> {
  const asked = process.argv.slice(2)
  const ids = asked.length > 0 ? asked : examples.flatMap(({ id }) => [id, ...boxes.map((box) => `${id}/${box}`)])
  const results = await spread<Result>(fileURLToPath(import.meta.url), ids, (result) => {
    const { fates } = result
    console.log(
      `${nameOf(result)}: ${fates.length} altered, ${percent(count(fates, 'caught'), differing(fates))} caught`,
    )
  })
  const text = report(results)
  console.log(text)
  if (asked.length === 0) writeBehind('../../docs/checks.md', marker, text)
}

if (!answering(study)) await main()
