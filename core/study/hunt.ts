import { fileURLToPath } from 'node:url'
import { compile } from '../src/circuit'
import { exampleById, examples } from '../src/examples'
import { Hunt, type NextLook } from '../src/hunt'
import { nth } from '../src/lists'
import { called, numbers, showingOf, type Ended, type Showing } from '../testing'
import { answering, line, percent, spread, table, writeBehind } from './pool'

/**
 * `npm run study:hunt`: simulated calls to every example, led by the hunt's advice, and by other ways to choose the next look; the
 * method is in docs/diagnosis.md, and so go the figures. `-- EXAMPLE …` studies those only and writes nothing.
 */
const marker = '<!-- study -->'
/** Calls an example by each way of choosing; drawn by how likely each cause is. */
const [calls, compared, unlisted, pairs] = [5, 1, 1, 1]

const ways = ['most-information', 'source-to-load', 'from-the-middle', 'random'] as const
type Way = (typeof ways)[number]

interface Call extends Pick<Ended, 'found' | 'admitted' | 'wrongParts' | 'wrongElse' | 'minutes' | 'looks' | 'claims'> {
  way: Way
  kind: 'one' | 'pair' | 'not listed' | 'compared'
  truth: string
}
interface Result {
  id: string
  seconds: number
  showing: Record<Showing, number>
  calls: Call[]
}

const atRandom = (next: readonly NextLook[], random: () => number) => next[Math.floor(random() * next.length)]

function study(id: string): Result {
  const start = performance.now()
  const circuit = compile(exampleById(id)!.installation)
  const hunt = new Hunt(circuit)
  const showing = showingOf(hunt)
  const truths = hunt.suspects.flatMap(({ hypothesis, prior }, i) =>
    hypothesis && showing[i] === 'noticed' ? [{ hypothesis, prior }] : [],
  )
  const random = numbers(seedOf(id))
  const drawn = (n: number, among = truths) => {
    const all = among.reduce((sum, { prior }) => sum + prior, 0)
    const offset = random()
    return Array.from({ length: n }, (_, k) => {
      let left = (all * (k + offset)) / n
      return (among.find(({ prior }) => (left -= prior) < 0) ?? nth(among, -1)).hypothesis
    })
  }
  // That nothing is wrong is always on the list, and never one of two.
  const wrong = truths.filter(({ hypothesis }) => hypothesis.remedy !== '')
  const hunts = new Map(ways.map((way) => [way, way === 'random' ? hunt : hunt.again({ strategy: way })]))
  const results: Call[] = []
  const goes = (way: Way, kind: Call['kind'], truth: ReturnType<typeof drawn>, n: number, known = hunts.get(way)!) => {
    const { log, ...ended } = called(known.again(), {
      truth,
      seed: seedOf(`${id} ${n}`),
      ...(way === 'random' && { choose: atRandom }),
    })
    void log
    results.push({ way, kind, truth: truth.map((t) => t.id).join(' + '), ...ended })
  }
  drawn(calls).forEach((truth, n) => goes('most-information', 'one', [truth], n))
  drawn(compared).forEach((truth, n) => ways.forEach((way) => goes(way, 'compared', [truth], 100 + n)))
  drawn(unlisted, wrong).forEach((truth, n) =>
    goes('most-information', 'not listed', [truth], 300 + n, hunt.leavingOut([truth.id])),
  )
  const [some, more] = [drawn(pairs, wrong), drawn(pairs, wrong)]
  some.forEach((truth, n) => goes('most-information', 'pair', [truth, nth(more, pairs - 1 - n)], 200 + n))
  const count = (one: Showing) => showing.filter((s) => s === one).length
  return {
    id,
    seconds: (performance.now() - start) / 1000,
    showing: { noticed: count('noticed'), latent: count('latent'), silent: count('silent') },
    calls: results,
  }
}

const seedOf = (text: string): number => [...text].reduce((sum, c) => (Math.imul(sum, 31) + c.charCodeAt(0)) | 0, 7)

const mean = (values: readonly number[]) =>
  values.length === 0 ? '–' : (values.reduce((sum, v) => sum + v, 0) / values.length).toFixed(1)

function row(name: string, of: readonly Call[]): string {
  const parts = of.reduce((sum, c) => sum + c.wrongParts, 0)
  const others = of.reduce((sum, c) => sum + c.wrongElse, 0)
  const minutes = of.map((c) => c.minutes)
  return line([
    name,
    of.length,
    percent(of.filter((c) => c.found).length, of.length),
    percent(of.filter((c) => c.admitted).length, of.length),
    parts,
    others,
    mean(minutes),
    Math.max(0, ...minutes).toFixed(0),
    mean(of.map((c) => c.looks)),
    Math.max(0, ...of.map((c) => c.looks)),
  ])
}

const head = [
  'calls',
  'found',
  'left as unknown',
  'wrong parts',
  'else for nothing',
  'minutes',
  'worst',
  'looks',
  'most',
]

function report(results: readonly Result[]): string {
  const all = results.flatMap((r) => r.calls)
  const ofKind = (kind: Call['kind']) => all.filter((c) => c.kind === kind)
  const claims = all
    .filter((c) => (c.kind === 'one' || c.kind === 'compared') && c.way === 'most-information')
    .flatMap((c) => c.claims)
  const bands = [0, 0.5, 0.8, 0.9, 0.95, 0.99, 1.01]
  return [
    ...table(['example', 'noticed', 'latent', 'silent', ...head, 's']),
    ...results.map(({ id, showing, calls: own, seconds }) => {
      const led = own.filter((c) => c.kind === 'one')
      const cells = row('', led).split(' | ').slice(1).join(' | ').replace(/ \|$/, '')
      return `| ${id} | ${showing.noticed} | ${showing.latent} | ${showing.silent} | ${cells} | ${seconds.toFixed(0)} |`
    }),
    '',
    ...table(['all examples', ...head]),
    row('one cause', ofKind('one')),
    row('two causes', ofKind('pair')),
    row('a cause on no list', ofKind('not listed')),
    '',
    ...table(['the same calls, next look by', ...head]),
    ...ways.map((way) =>
      row(
        way,
        ofKind('compared').filter((c) => c.way === way),
      ),
    ),
    '',
    ...table(['said to cure with', 'remedies', 'said, on average', 'did cure']),
    ...bands.slice(1).flatMap((to, i) => {
      const from = nth(bands, i)
      const own = claims.filter(({ share }) => share >= from && share < to)
      if (own.length === 0) return []
      const said = own.reduce((sum, { share }) => sum + share, 0)
      return [
        line([
          `${Math.round(from * 100)} to ${Math.min(100, Math.round(to * 100))} %`,
          own.length,
          percent(said, own.length),
          percent(own.filter((c) => c.cured).length, own.length),
        ]),
      ]
    }),
    line([
      '**all**',
      claims.length,
      percent(
        claims.reduce((sum, { share }) => sum + share, 0),
        claims.length,
      ),
      percent(claims.filter((c) => c.cured).length, claims.length),
    ]),
    '',
    '### Not found',
    '',
    ...results.flatMap(({ id, calls: own }) =>
      own
        .filter((c) => !c.found && c.kind === 'one')
        .map(
          (c) =>
            `- ${id}: ${c.truth}, ${c.minutes.toFixed(0)} min, ${c.claims.map(({ share }) => share.toFixed(2)).join(', ') || 'nothing gone for'}`,
        ),
    ),
  ].join('\n')
}

async function main(): Promise<void> {
  const asked = process.argv.slice(2)
  const ids = asked.length > 0 ? asked : examples.map((e) => e.id)
  const results = await spread<Result>(fileURLToPath(import.meta.url), ids, ({ id, seconds, calls: own }) => {
    console.log(
      `${id}: ${percent(own.filter((c) => c.found).length, own.length)} of ${own.length} found, ${seconds.toFixed(0)} s`,
    )
  })
  const text = report(results)
  console.log(text)
  if (asked.length === 0) writeBehind('../../docs/diagnosis.md', marker, text)
}

if (!answering(study)) await main()
