import { applied, same } from '../src/changes'
import { staticFindings } from '../src/checks'
import { compile } from '../src/circuit'
import { examples } from '../src/examples'
import { installationShape } from '../src/installation'
import { centreKindIds, planBriefSchema, planSystem } from '../src/planning'
import { changedTo, commonChanges, joinsOf, movesOf, takenBack, tallyOf } from '../src/moves'

/**
 * `npm run study:moves`: every change that is often asked for, from every example in every kind of wiring centre that takes it. Each
 * has to end in what would be planned from nothing, break no rule which that plan keeps, and be the old wiring again read backwards.
 * Told by example: how much is touched, and for how many no choice of terminals touches less. Ends with 1 where one does not hold.
 */
const wrong: string[] = []
let [all, least] = [0, 0]
process.stdout.write(
  `${'from'.padEnd(34)}changes  touched, of conductors  links  cables  least  within  ms (mean, worst)\n`,
)
for (const { id, brief } of examples) {
  let [n, touched, conductors, links, cables, exact, within, worst, sum] = [0, 0, 0, 0, 0, 0, 0, 0, 0]
  for (const terminals of centreKindIds) {
    const read = planBriefSchema.safeParse({ ...brief, terminals })
    if (!read.success) continue
    const found = planSystem(read.data, 'found', 'Found')
    for (const { id: to, brief: wanted } of commonChanges(read.data)) {
      const began = performance.now()
      const change = changedTo(found, wanted)
      const ms = performance.now() - began
      const moves = movesOf(change)
      const tally = tallyOf(change, moves)
      const { is, planned } = joinsOf(change)
      const name = `${id}, ${terminals}, ${to}`
      if (!same(is, planned)) wrong.push(`${name}: joined otherwise`)
      const ends = moves.reduce((doc, move) => applied(installationShape, doc, move.changes), found)
      if (!same(ends, change.to)) wrong.push(`${name}: the moves end elsewhere`)
      if (!same(applied(installationShape, change.to, takenBack(moves)), found)) wrong.push(`${name}: not as it was`)
      const keeps = new Set(staticFindings(compile(change.target.plan)).map(({ rule }) => rule))
      for (const { rule } of staticFindings(compile(change.to))) if (!keeps.has(rule)) wrong.push(`${name}: ${rule}`)
      n++
      touched += tally.touched
      conductors += tally.conductors
      links += tally.links
      cables += tally.cables
      if (tally.atMostLess === 0) exact++
      within = Math.max(within, tally.atMostLess)
      worst = Math.max(worst, ms)
      sum += ms
    }
  }
  if (n === 0) continue
  all += n
  least += exact
  const mean = (of: number) => (of / n).toFixed(1)
  process.stdout.write(
    `${id.padEnd(34)}${String(n).padStart(7)}  ${mean(touched).padStart(7)} ${mean(conductors).padStart(14)}  ${mean(links).padStart(5)}  ${mean(cables).padStart(6)}  ${String(exact).padStart(5)}  ${String(within).padStart(6)}  ${mean(sum)}, ${worst.toFixed(0)}\n`,
  )
}
process.stdout.write(
  `${all} changes, of ${least} it is proved that no choice of terminals touches less; ${wrong.length} wrong\n`,
)
for (const line of wrong.slice(0, 40)) process.stdout.write(`  ${line}\n`)
process.exitCode = wrong.length > 0 ? 1 : 0
