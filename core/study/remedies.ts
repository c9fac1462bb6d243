import { deedText } from '../src/wording'
import { fileURLToPath } from 'node:url'
import { check, cured, findingKey, isGrave, type CheckFinding } from '../src/checks'
import { compile } from '../src/circuit'
import { exampleById } from '../src/examples'
import { alterationsOf } from '../src/hypotheses'
import { edited, type Installation } from '../src/installation'
import { answering, line, percent, spread, table, writeBehind } from './pool'

/**
 * `npm run study:remedies`: every single alteration of four examples is checked, and every remedy that is then offered with one
 * press is carried out and the whole checked again. Harmful is one after which anything of the upper two severities stands that did
 * not stand before. The figures go into docs/checks.md; `-- EXAMPLE …` studies those only and writes nothing.
 */
interface Result {
  id: string
  seconds: number
  alterations: number
  /** Findings of the upper two severities, and how many of them name a culprit and have a remedy. */
  grave: number
  named: number
  /** Of these, those whose culprit is what was altered: the conductor, link or setting. */
  right: number
  remedied: number
  /** Different remedies offered over all findings; carried out, how many brought harm, and how many left nothing grave. */
  offered: number
  harmful: string[]
  clears: number
}

const marker = '<!-- remedies -->'
const studied = ['two-port-heating-hot-water', 'low-voltage', 'three-wire-diverter', 'single-zone-relay']

const graveKeys = (findings: readonly CheckFinding[]) => new Set(findings.filter(isGrave).map(findingKey))

function study(id: string): Result {
  const start = performance.now()
  const whole = compile(exampleById(id)!.installation)
  const result: Result = {
    id,
    seconds: 0,
    alterations: 0,
    grave: 0,
    named: 0,
    right: 0,
    remedied: 0,
    offered: 0,
    harmful: [],
    clears: 0,
  }
  for (const alteration of alterationsOf(whole)) {
    const doc = edited(whole.installation, alteration.command).doc
    const findings = curedOf(doc)
    const before = graveKeys(findings)
    result.alterations++
    const altered = JSON.stringify(alteration.command.changes)
    for (const f of findings.filter(isGrave)) {
      result.grave++
      if (f.remedy) result.remedied++
      if (!f.culprit) continue
      result.named++
      if (subjectsOf(f).some((subject) => altered.includes(subject))) result.right++
    }
    const remedies = new Map(findings.flatMap((f) => (f.remedy ? [[JSON.stringify(f.remedy.changes), f.remedy]] : [])))
    for (const remedy of remedies.values()) {
      result.offered++
      const after = graveKeys(check(compile(edited(doc, remedy).doc)).findings)
      if (after.size === 0) result.clears++
      if ([...after].some((key) => !before.has(key)))
        result.harmful.push(`${alteration.label}: ${deedText(doc, remedy.deed)}`)
    }
  }
  return { ...result, seconds: (performance.now() - start) / 1000 }
}

function curedOf(doc: Installation): CheckFinding[] {
  const circuit = compile(doc)
  const run = cured(circuit, check(circuit).findings)
  for (;;) {
    const { done, value } = run.next()
    if (done) return value
  }
}

/** Texts of which one stands in the command of an alteration that did what the culprit says. */
function subjectsOf({ culprit }: CheckFinding): string[] {
  const { what } = culprit!
  switch (what.kind) {
    case 'core':
      return [`"cable":"${what.core.cable}","core":"${what.core.core}"`, `"id":"${what.core.cable}"`]
    case 'core-gone':
    case 'core-extra':
      return [`"id":"${what.core.core}"`]
    case 'exchanged':
      return what.cores.flatMap(({ cable, core }) => [`"cable":"${cable}","core":"${core}"`, `"id":"${cable}"`])
    case 'link':
    case 'factory-link-cut':
      return [`"id":"${what.link}"`]
    case 'link-missing':
      return ['"do":"drop","in":"links"']
    case 'setting':
      return [`"${what.setting}"`]
  }
}

function report(results: readonly Result[]): string {
  const sum = (of: (r: Result) => number) => results.reduce((total, r) => total + of(r), 0)
  const row = (name: string, of: (pick: (r: Result) => number) => number) =>
    line([
      name,
      of((r) => r.alterations),
      of((r) => r.grave),
      percent(
        of((r) => r.named),
        of((r) => r.grave),
      ),
      percent(
        of((r) => r.right),
        of((r) => r.named),
      ),
      percent(
        of((r) => r.remedied),
        of((r) => r.grave),
      ),
      of((r) => r.offered),
      percent(
        of((r) => r.clears),
        of((r) => r.offered),
      ),
      of((r) => r.harmful.length),
      of((r) => r.seconds).toFixed(0),
    ])
  return [
    ...table([
      'example',
      'altered',
      'grave findings',
      'culprit named',
      'of these what was altered',
      'remedy by one press',
      'different remedies',
      'of these clear everything',
      'harmful',
      's',
    ]),
    ...results.map((r) => row(r.id, (pick) => pick(r))),
    row('**all**', sum),
    ...results.flatMap((r) => r.harmful.map((text) => `- ${r.id}: ${text}`)),
  ].join('\n')
}

async function main(): Promise<void> {
  const asked = process.argv.slice(2)
  const results = await spread<Result>(fileURLToPath(import.meta.url), asked.length > 0 ? asked : studied, (r) => {
    console.log(`${r.id}: ${r.offered} remedies, ${r.harmful.length} harmful`)
  })
  const text = report(results)
  console.log(text)
  if (asked.length === 0) writeBehind('../../docs/checks.md', marker, text)
  if (results.some((r) => r.harmful.length > 0)) process.exitCode = 1
}

if (!answering(study)) await main()
