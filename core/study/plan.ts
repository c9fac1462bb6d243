import { check, isGrave, staticFindings } from '../src/checks'
import { compile } from '../src/circuit'
import { briefShapeSchema, conflictOf, planBriefSchema, planSystem, schemeIds, type PlanBrief } from '../src/planning'
import { broughtByScheme, canKeep, numbers, someBrief, standardBrief } from '../testing'

/**
 * `npm run study:plan`: random briefs, of one to ten circuits and every scheme, control, boiler, supply and wiring centre. Each is
 * refused, with a reason, or its plan breaks no rule; those of few circuits pass all states as well. Ends with 1 where one does not.
 * `-- NUMBER`: so many briefs instead of 2,000.
 */
const briefs = Number(process.argv[2] ?? 2000)
const inAllStates = Math.ceil(briefs / 10)
const fewCircuits = 4

const random = numbers(17)
const refusals = new Map<string, number>()
const broken: string[] = []
let [planned, throughStates] = [0, 0]
const conflicts = { answers: [] as number[], ways: [] as number[], ms: [] as number[], wrong: [] as string[] }

/** Whether a refusal names a smallest set of answers, each of which relaxed yields a plan, and ways out that are plans. */
function lookInto(brief: PlanBrief): void {
  const began = performance.now()
  const found = conflictOf(brief)
  conflicts.ms.push(performance.now() - began)
  const ids = found?.answers.map(({ id }) => id) ?? []
  const isSmallest =
    !canKeep(brief, ids) &&
    ids.every((id) =>
      canKeep(
        brief,
        ids.filter((other) => other !== id),
      ),
    )
  const areWays = found?.ways.every((way) => planBriefSchema.safeParse(way.brief).success)
  if (!found || !isSmallest || !areWays) conflicts.wrong.push(JSON.stringify(brief))
  conflicts.answers.push(ids.length)
  conflicts.ways.push(found?.ways.length ?? 0)
}
for (let i = 0; i < briefs; i++) {
  const asked = someBrief(random)
  const read = planBriefSchema.safeParse(asked)
  if (!read.success) {
    const [{ path, message }] = read.error.issues
    const reason = `${path.join('.').replace(/\d+/g, 'n')}: ${message
      .replace(/“[^”]*”/g, 'a zone')
      .replace(/it has .*|in the wall: [^:]*/g, '…')
      .replace(/\d+/g, 'n')}`
    refusals.set(reason, (refusals.get(reason) ?? 0) + 1)
    lookInto(briefShapeSchema.parse(asked))
    continue
  }
  planned++
  const circuit = compile(planSystem(read.data, 'plan', 'Plan'))
  const rules = staticFindings(circuit).filter(({ rule }) => !broughtByScheme.includes(rule))
  const few = read.data.circuits.length <= fewCircuits && throughStates < inAllStates
  if (few) throughStates++
  const grave = few ? check(circuit).findings.filter(isGrave) : []
  for (const { rule } of [...rules, ...grave]) broken.push(`${rule}: ${JSON.stringify(read.data)}`)
}
console.log(
  `${briefs} briefs: ${planned} planned, ${briefs - planned} refused, ${throughStates} gone through all states`,
)
for (const [reason, n] of [...refusals].sort((x, y) => y[1] - x[1])) console.log(`${String(n).padStart(6)}  ${reason}`)
const mean = (list: number[]) => list.reduce((sum, n) => sum + n, 0) / Math.max(1, list.length)
console.log(
  `Conflicts: ${mean(conflicts.answers).toFixed(2)} answers and ${mean(conflicts.ways).toFixed(1)} ways out on average, ` +
    `${conflicts.ways.filter((n) => n === 0).length} without any; ${mean(conflicts.ms).toFixed(0)} ms on average, ${Math.max(0, ...conflicts.ms).toFixed(0)} ms at worst`,
)
console.log(
  conflicts.wrong.length === 0
    ? 'Each is a smallest set: relaxing any one of its answers yields a plan; every way out is a plan.'
    : `Not a smallest set, or a way out that is none:\n${conflicts.wrong.join('\n')}`,
)
const standard = schemeIds.filter((scheme) => !planBriefSchema.safeParse(standardBrief(scheme)).success)
console.log(
  standard.length === 0 ? 'No standard brief is refused.' : `Refused in its standard form: ${standard.join(', ')}`,
)
console.log(broken.length === 0 ? 'No plan breaks a rule.' : `Rules broken:\n${broken.join('\n')}`)
process.exitCode = broken.length + conflicts.wrong.length + standard.length === 0 ? 0 : 1
