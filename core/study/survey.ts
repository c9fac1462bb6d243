import { examples } from '../src/examples'
import { departuresPutIn, HiddenWiring, withOtherColours } from '../testing/hidden-survey'
import { numbers } from '../testing/numbers'
import { falselyCertain, runInTurn, runProposed } from '../testing/survey-runs'

/**
 * `npm run study:survey`, seeded: the wiring of every example with far ends hidden, terminals and conductors by other numbers, in some
 * cables other colours, and in turn every departure put in. How many looks until all is certain, as they are proposed and with
 * everything opened in turn. Ends with 1 where anything told as certain was not so.
 */
const rounds = Number(process.argv[2] ?? 2)
const wrong: string[] = []
const kinds = ['none', ...Object.keys(departuresPutIn)]
const totals = { looks: 0, minutes: 0, turn: 0, turnMinutes: 0, runs: 0, likelyRight: 0, likely: 0, found: 0, put: 0 }
process.stdout.write(
  `${'example'.padEnd(34)} cond.  runs  looks (min)      in turn (min)    certain  in turn  likely at first, right  found  ms\n`,
)
const byKind = new Map<string, [number, number]>()
for (const { id, installation } of examples) {
  if (installation.wiringCentres.length === 0) continue
  const sums = {
    looks: 0,
    minutes: 0,
    turn: 0,
    turnMinutes: 0,
    runs: 0,
    certain: 0,
    turnCertain: 0,
    likely: 0,
    right: 0,
    conductors: 0,
    found: 0,
    put: 0,
    worst: 0,
  }
  for (let round = 0; round < rounds; round++)
    for (const [i, kind] of kinds.entries()) {
      const random = numbers(round * 100 + i + 7)
      const put = kind === 'none' ? installation : departuresPutIn[kind](installation, random)
      if (!put) continue
      const truth = withOtherColours(put, random)
      const hidden = new HiddenWiring(truth, random)
      let first = true
      let at = performance.now()
      const run = runProposed(hidden, installation, (result) => {
        sums.worst = Math.max(sums.worst, performance.now() - at)
        at = performance.now()
        for (const one of falselyCertain(hidden, result)) wrong.push(`${id}, ${kind}: ${one}`)
        if (!first) return
        first = false
        for (const { cable, core, sure, to } of result.cores)
          if (sure === 'likely') {
            sums.likely++
            if (JSON.stringify(to) === JSON.stringify(hidden.endOf(cable, core))) sums.right++
          }
      })
      for (const one of falselyCertain(hidden, run.result)) wrong.push(`${id}, ${kind}: ${one}`)
      const turn = runInTurn(hidden, installation)
      sums.looks += run.looks
      sums.minutes += run.minutes
      sums.turn += turn.looks
      sums.turnMinutes += turn.minutes
      sums.certain += run.certain
      sums.turnCertain += turn.certain
      sums.conductors += run.conductors
      sums.runs++
      if (kind !== 'none') {
        const isFound = run.result.departures.some((one) => one.kind === kind)
        const [f, p] = byKind.get(kind) ?? [0, 0]
        byKind.set(kind, [f + Number(isFound), p + 1])
        sums.put++
        sums.found += Number(isFound)
        if (process.env.TELL && !isFound)
          console.log('  not found', kind, JSON.stringify(run.result.departures.map((d) => d.id)))
      }
      if (process.env.TELL && run.certain < run.conductors)
        console.log(
          '  open',
          kind,
          JSON.stringify(
            run.result.cores
              .filter((c) => c.sure !== 'certain')
              .map((c) => [c.cable, c.core, c.to, Math.round(c.share * 100), hidden.endOf(c.cable, c.core)]),
          ),
        )
    }
  const { runs } = sums
  const mean = (of: number) => (of / runs).toFixed(1)
  const percent = (part: number, of: number) => `${((100 * part) / (of || 1)).toFixed(1)} %`
  process.stdout.write(
    `${id.padEnd(34)} ${mean(sums.conductors).padStart(5)}  ${String(runs).padStart(4)}  ${`${mean(sums.looks)} (${mean(sums.minutes)})`.padEnd(15)}  ${`${mean(sums.turn)} (${mean(sums.turnMinutes)})`.padEnd(15)}  ${percent(sums.certain, sums.conductors).padStart(7)}  ${percent(sums.turnCertain, sums.conductors).padStart(7)}  ${percent(sums.likely, sums.conductors).padStart(8)}, ${percent(sums.right, sums.likely)}  ${String(sums.found).padStart(9)}/${sums.put}  ${sums.worst.toFixed(0)}\n`,
  )
  totals.looks += sums.looks
  totals.minutes += sums.minutes
  totals.turn += sums.turn
  totals.turnMinutes += sums.turnMinutes
  totals.runs += runs
  totals.likely += sums.likely
  totals.likelyRight += sums.right
}
process.stdout.write(
  `${totals.runs} runs: ${totals.looks} looks against ${totals.turn}, ${totals.minutes.toFixed(0)} minutes against ${totals.turnMinutes.toFixed(0)}\n`,
)
for (const [kind, [found, put]] of byKind) process.stdout.write(`  ${kind.padEnd(20)} found in ${found} of ${put}\n`)
process.stdout.write(`${wrong.length} told as certain and not so\n`)
for (const line of wrong.slice(0, 40)) process.stdout.write(`  ${line}\n`)
process.exitCode = wrong.length > 0 ? 1 : 0
