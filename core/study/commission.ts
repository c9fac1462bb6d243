import { compile, type Circuit } from '../src/circuit'
import { carriedOut, commissioningRun, type RunRow } from '../src/commission'
import { runMinutes } from '../src/commission/run-minutes'
import { examples } from '../src/examples'
import { faultsOf, Rig } from '../src/hypotheses'
import { actionsFor, demandActions, subsets } from '../src/inputs'
import { agrees, lookAt, type Look, type LookResult } from '../src/looks'
import { ActionError, type Action } from '../src/simulation'

/**
 * `npm run study:commission`: the run of every example, carried out on it healthy and with every single fault. A healthy one has to pass
 * every row. Of the faults that show in some state of the demands, each has to fail a row; what no row shows is told. Steps and
 * minutes against every combination of channels and thermostats. Ends with 1 where a healthy row fails.
 */
const waitMs = 30_000
const mostCombined = 4

/** Everything at the plant and the controls that can be seen, heard or felt without a tool. */
function seenOf(circuit: Circuit): Look[] {
  return circuit.devices.flatMap(({ device: { id: device } }): Look[] =>
    (['valve', 'lever', 'motor', 'pump', 'boiler', 'display', 'lamps', 'warmth', 'fuse'] as const).map((at) => ({
      at,
      device,
    })),
  )
}

/** What is seen in states of the demands: each alone, in twos up to all, each come to from rest, and rest again after it. */
function* statesSeen(circuit: Circuit, fault?: string): Generator<LookResult[]> {
  const looks = seenOf(circuit)
  const ids = circuit.installation.intent.demands.map(({ id }) => id)
  const states = ids.length <= mostCombined ? subsets(ids) : [[], ...ids.map((id) => [id]), ids]
  for (const wanted of states) {
    const rig = new Rig(circuit)
    if (fault !== undefined) rig.perform({ do: 'fault', fault })
    for (const set of [demandActions(circuit, wanted), demandActions(circuit, [])]) {
      for (const act of set) rig.perform(act)
      rig.perform({ do: 'wait', ms: waitMs })
      yield looks.map((look) => lookAt(rig.simulation, look))
    }
  }
}

/** Every channel and thermostat this way and that, as one who has no model would go through them. */
function naive(circuit: Circuit): { steps: number; minutes: number } {
  const { demands } = circuit.installation.intent
  const inputs = new Map(
    demands.flatMap(({ channel, thermostat }) =>
      [channel, thermostat].flatMap((at) => (at ? [[`${at.device}.${at.contact}`, at] as const] : [])),
    ),
  )
  const all = [...inputs.values()]
  const steps = 2 ** all.length
  const looks = commissioningRun(circuit).find(({ kind }) => kind === 'together' || kind === 'alone')!.looks
  let [minutes, before] = [0, undefined as RunRow | undefined]
  const tried = Math.min(steps, 256)
  for (let i = 0; i < tried; i++) {
    const acts = all.flatMap((at, k): Action[] =>
      i === 0 || (((i - 1) >> k) & 1) !== ((i >> k) & 1) ? actionsFor(circuit, at, ((i >> k) & 1) === 1) : [],
    )
    const row: RunRow = { id: `${i}`, kind: 'together', wanted: [], acts, waitMs, looks, byHand: [], minutes: 0 }
    minutes += runMinutes(circuit, before, row, false)
    before = row
  }
  return { steps, minutes: (minutes * steps) / tried }
}

const wrong: string[] = []
let [shows, caught, all] = [0, 0, 0]
const unseen = new Map<string, number>()
process.stdout.write(
  `${'example'.padEnd(34)}steps  minutes  all combinations (minutes)  faults  show  fail a row  first after (min)\n`,
)
for (const { id, installation } of examples) {
  const circuit = compile(installation)
  const rows = commissioningRun(circuit)
  for (const { row, otherwise } of carriedOut(new Rig(circuit), rows))
    for (const { see } of otherwise) wrong.push(`${id}: ${row.id}, ${JSON.stringify(see)}`)
  const healthy = [...statesSeen(circuit)]
  const counts = { faults: 0, shows: 0, caught: 0, after: 0 }
  for (const { name, label } of faultsOf(circuit)) {
    counts.faults++
    let minutes = 0
    let found = false
    try {
      const rig = new Rig(circuit)
      rig.perform({ do: 'fault', fault: name })
      for (const { row, otherwise } of carriedOut(rig, rows)) {
        minutes += row.minutes
        if (otherwise.length > 0) {
          found = true
          break
        }
      }
    } catch (error) {
      if (!(error instanceof ActionError)) throw error
      // It never comes to rest: that is seen.
      found = true
    }
    const isSeen = () => {
      try {
        let i = 0
        for (const seen of statesSeen(circuit, name)) {
          const expected = healthy[i++]
          if (seen.some((one, k) => !agrees(expected[k], one))) return true
        }
      } catch (error) {
        if (!(error instanceof ActionError)) throw error
        return true
      }
      return false
    }
    if (found) {
      counts.caught++
      counts.after += minutes
    }
    if (found || isSeen()) counts.shows++
    if (!found) unseen.set(label.replace(/^[^:]*: /, ''), (unseen.get(label.replace(/^[^:]*: /, '')) ?? 0) + 1)
    if (!found && process.argv.includes('--tell')) process.stdout.write(`    ${name}\n`)
  }
  const total = rows.reduce((sum, { minutes }) => sum + minutes, 0)
  const { steps, minutes } = naive(circuit)
  process.stdout.write(
    `${id.padEnd(34)}${String(rows.length).padStart(5)}  ${total.toFixed(0).padStart(7)}  ${`${steps} (${minutes.toFixed(0)})`.padStart(26)}  ${String(counts.faults).padStart(6)}  ${String(counts.shows).padStart(4)}  ${String(counts.caught).padStart(10)}  ${(counts.after / Math.max(1, counts.caught)).toFixed(0).padStart(17)}\n`,
  )
  shows += counts.shows
  caught += counts.caught
  all += counts.faults
}
process.stdout.write(`${caught} of ${shows} faults that show fail a row; ${all - caught} of ${all} fail none:\n`)
for (const [label, count] of [...unseen].sort((x, y) => y[1] - x[1]).slice(0, 40))
  process.stdout.write(`  ${String(count).padStart(3)}  ${label}\n`)
process.stdout.write(`${wrong.length} rows failed by a healthy installation\n`)
for (const line of wrong.slice(0, 40)) process.stdout.write(`  ${line}\n`)
process.exitCode = wrong.length > 0 ? 1 : 0
