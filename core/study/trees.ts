import { compile } from '../src/circuit'
import { examples } from '../src/examples'
import { aheadOf, deadLooksAt, Hunt, looksAt } from '../src/hunt'
import { nth } from '../src/lists'
import { showingOf } from '../testing'
import { line, percent, table, writeBehind } from './pool'

/**
 * `npm run study:trees`: the rule by which a hunt chooses, the most bits a minute, against the best decision tree there is, where
 * that can be worked out: a dozen suspects, each look with its minutes from where everything is at rest, and nobody ever wrong.
 * The method is in docs/diagnosis.md, and so go the figures.
 */
const dozen = 12

/** A look as it divides the suspects: per answer the set of those who show it, as bits of a number. */
interface Split {
  minutes: number
  sets: readonly number[]
}

function splitsOf(hunt: Hunt, suspects: readonly number[]): Split[] {
  const cheapest = new Map<string, Split>()
  const { circuit } = hunt
  for (const { candidate, minutes } of aheadOf(hunt, [], suspects, [...looksAt(circuit), ...deadLooksAt(circuit)])) {
    const answers = [...candidate.answers.values()]
    const answerOf = suspects.map((_, i) => answers.reduce((best, own, a) => (own[i] > answers[best][i] ? a : best), 0))
    // What it leaves open for one of them divides nothing.
    if (answerOf.some((answer, i) => answers[answer][i] < 0.8)) continue
    const sets = answers.map((_, a) => answerOf.reduce((set, answer, i) => (answer === a ? set | (1 << i) : set), 0))
    const own = sets.filter((set) => set !== 0).sort((x, y) => x - y)
    if (own.length < 2) continue
    const known = cheapest.get(own.join())
    if (!known || minutes < known.minutes) cheapest.set(own.join(), { minutes, sets: own })
  }
  return [...cheapest.values()]
}

/** Minutes that are expected, times the weight: of the best tree, and of the looks that tell most for their time. */
function treesOf(splits: readonly Split[], weights: readonly number[]): { best: number; chosen: number } {
  const weightOf = (set: number) => weights.reduce((sum, one, i) => (set & (1 << i) ? sum + one : sum), 0)
  const of = (set: number) =>
    splits.flatMap(({ minutes, sets }) => {
      const parts = sets.map((one) => one & set).filter((one) => one !== 0)
      return parts.length > 1 ? [{ minutes, parts }] : []
    })
  const bestOf = new Map<number, number>()
  function best(set: number): number {
    const known = bestOf.get(set)
    if (known !== undefined) return known
    const costs = of(set).map(
      ({ minutes, parts }) => minutes * weightOf(set) + parts.reduce((sum, p) => sum + best(p), 0),
    )
    const least = costs.length > 0 ? Math.min(...costs) : 0
    bestOf.set(set, least)
    return least
  }
  function chosen(set: number): number {
    const all = weightOf(set)
    const rate = ({ minutes, parts }: { minutes: number; parts: number[] }) =>
      parts.reduce((sum, p) => sum - (weightOf(p) / all) * Math.log2(weightOf(p) / all), 0) / minutes
    const [first] = of(set).sort((x, y) => rate(y) - rate(x))
    return first ? first.minutes * all + first.parts.reduce((sum, p) => sum + chosen(p), 0) : 0
  }
  const everybody = (1 << weights.length) - 1
  return { best: best(everybody) / weightOf(everybody), chosen: chosen(everybody) / weightOf(everybody) }
}

const rows = examples.map(({ id, installation }) => {
  const hunt = new Hunt(compile(installation))
  const showing = showingOf(hunt)
  hunt.follow([])
  const { shares } = hunt.ranking()
  const suspects = [...shares.keys()]
    .filter((i) => showing[i] === 'noticed')
    .sort((x, y) => nth(shares, y) - nth(shares, x))
    .slice(0, dozen)
  const splits = splitsOf(hunt, suspects)
  const { best, chosen } = treesOf(
    splits,
    suspects.map((i) => nth(shares, i)),
  )
  console.log(`${id}: best ${best.toFixed(1)} min, chosen ${chosen.toFixed(1)} min`)
  return { id, splits: splits.length, best, chosen }
})
const sum = (of: (row: (typeof rows)[number]) => number) => rows.reduce((all, row) => all + of(row), 0)
const [best, chosen] = [sum((r) => r.best), sum((r) => r.chosen)]
const text = [
  ...table(['example', 'ways to divide a dozen', 'best tree, min', 'most bits a minute, min', 'more than the best']),
  ...rows.map((r) =>
    line([r.id, r.splits, r.best.toFixed(1), r.chosen.toFixed(1), percent(r.chosen - r.best, r.best)]),
  ),
  line(['**all**', sum((r) => r.splits), best.toFixed(1), chosen.toFixed(1), percent(chosen - best, best)]),
].join('\n')
writeBehind('../../docs/diagnosis.md', '<!-- trees -->', text)
