import { check, isGrave, staticFindings } from '../src/checks'
import { compile } from '../src/circuit'
import { planBriefSchema, planSystem } from '../src/planning'
import { broughtByScheme, numbers, someBrief } from '../testing'

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
for (let i = 0; i < briefs; i++) {
  const read = planBriefSchema.safeParse(someBrief(random))
  if (!read.success) {
    const [{ path, message }] = read.error.issues
    const reason = `${path.join('.')}: ${message.replace(/\d+/g, 'n')}`
    refusals.set(reason, (refusals.get(reason) ?? 0) + 1)
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
console.log(broken.length === 0 ? 'No plan breaks a rule.' : `Rules broken:\n${broken.join('\n')}`)
process.exitCode = broken.length === 0 ? 0 : 1
