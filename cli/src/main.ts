import { resolve } from 'node:path'
import { Command, CommanderError } from 'commander'
import {
  ActionError,
  briefJsonSchema,
  CannotChange,
  changedTo,
  checking,
  commandOf,
  compile,
  cured,
  deviceTypeJsonSchema,
  deviceTypes,
  examples,
  faultRun,
  houseIds,
  huntCaseJsonSchema,
  HuntError,
  installationJsonSchema,
  instruments,
  isGrave,
  isInstrument,
  measure,
  movesOf,
  liveThrough,
  livedIn,
  netlist,
  parseAction,
  inSmallestCentre,
  planSystem,
  readDeviceType,
  readingText,
  putInsOf,
  Rig,
  surveyJsonSchema,
  tallyOf,
  traceReport,
  weatherIds,
  type Action,
  type Background,
  type CheckFinding,
} from '@nobbet/core'
import { siteVerbs } from './site-verbs'
import { changeText } from './change-text'
import { checkText, faultEndsText } from './check-text'
import { huntVerb } from './hunt-verb'
import { loadBrief, loadInstallation, readJson } from './installation-file'
import { planText } from './plan-text'
import { traceText } from './trace-text'
import { UsageError } from './usage-error'
import { weekText } from './week-text'

/** What a fault of the program itself ends with. */
const crashCode = 70
const ownData = resolve(import.meta.dirname ?? __dirname, '../../data')

interface Output {
  /** One line that takes the place of the one before; only where somebody is looking. */
  progress?(line: string): void
  out(line: string): void
  err(line: string): void
}
const standard: Output = {
  progress: process.stderr.isTTY ? (line) => void process.stderr.write(`\r${line}`) : undefined,
  out: (line) => process.stdout.write(`${line}\n`),
  err: (line) => process.stderr.write(`${line}\n`),
}

/** Every fault of every device type: `type.part.failure`. */
const catalogueFaults = () =>
  deviceTypes.flatMap((type) =>
    type.primitives.flatMap((part) =>
      (part.failures ?? []).map(({ id, label, prior, remedy }) => ({
        name: `${type.id}.${part.id}.${id}`,
        label: `${type.name}: ${label}`,
        prior,
        remedy,
      })),
    ),
  )

/** A change of controls; what cannot be worked out is told as input that cannot be used. */
function changedOrRefused(...[from, to]: Parameters<typeof changedTo>): ReturnType<typeof changedTo> {
  try {
    return changedTo(from, to)
  } catch (error) {
    if (error instanceof CannotChange) throw new UsageError(error.message)
    throw error
  }
}

interface Doings {
  do: string[]
  fault: string[]
}

interface WeekOptions {
  house: string
  weather: string
  days: string
  fault: string[]
  json: boolean
}

interface CheckOptions {
  plan?: string
  faults: boolean
  most: string
  json: boolean
}

/** A run driven to its end at once, telling now and then how far it is. */
function driven<P, T>(run: Generator<P, T>, tell?: (progress: P) => void): T {
  for (;;) {
    const { done, value } = run.next()
    if (done) return value
    tell?.(value)
  }
}

/** The faults that are in from the start, then what is done. */
const actsOf = (options: Doings): Action[] => [
  ...options.fault.map((fault): Action => ({ do: 'fault', fault })),
  ...options.do.map((text) => parseAction(text)),
]

/** The installation with faults put in and actions done. */
const rigOf = (file: string, options: Doings): Rig => Rig.after(compile(loadInstallation(file)), actsOf(options))

/**
 * Runs one command line. Returns the exit code: 0; 1 where a check has findings of the upper two severities; 2 for input that
 * cannot be used, with one line that says why; 70 where Nobbet itself has failed.
 */
export async function main(args: readonly string[], { out, err, progress: say }: Output = standard): Promise<number> {
  const program = new Command('nobbet')
    .description('The answers of Nobbet for scripts. docs/cli.md has the grammar and the field names.')
    .exitOverride()
    .configureOutput({ writeOut: (s) => out(s.trimEnd()), writeErr: (s) => err(s.trimEnd()) })
  let code = 0
  const collect = (value: string, before: string[]) => [...before, value]

  let told = 0
  const progress = (states: number) => {
    if (performance.now() - told < 500) return
    told = performance.now()
    say?.(`${states} states looked at`)
  }

  const fileArgument = 'an installation (JSON), "-" for standard input, or the name of an example'
  /** A verb that looks at an installation on which faults were put in and actions done. */
  const afterActions = (name: string, description: string) =>
    program
      .command(name)
      .description(description)
      .argument('<file>', fileArgument)
      .option('--do <action>', 'DEVICE.CONTROL=VALUE or wait=20s; may stand many times', collect, [])
      .option('--fault <name>', 'a fault that is in from the start; may stand many times', collect, [])

  afterActions('trace', 'do actions in order and say what then is live, called and moving')
    .option('--plan <file>', 'the plan of this very installation: what departs from it is named')
    .option('--json', 'JSON instead of text', false)
    .action((file: string, options: Doings & { plan?: string; json: boolean }) => {
      const acts = actsOf(options)
      const circuit = compile(loadInstallation(file))
      const rig = Rig.after(circuit, acts)
      const plan = options.plan === undefined ? rig.isRewired && circuit : compile(loadInstallation(options.plan))
      const known: Background = { ...(plan && { plan }), from: circuit, acts }
      if (options.json) out(JSON.stringify(traceReport(rig, known), null, 2))
      else traceText(rig.simulation.circuit, rig, known).forEach(out)
    })

  afterActions('measure', 'do actions in order, then put an instrument on two terminals and read it')
    .argument('<instrument>', instruments.join(', '))
    .argument('<red>', 'terminal of the red lead, for example wc.7')
    .argument('<black>', 'terminal of the black lead')
    .option('--json', 'JSON instead of text', false)
    .action((file: string, instrument: string, red: string, black: string, options: Doings & { json: boolean }) => {
      if (!isInstrument(instrument))
        throw new UsageError(`"${instrument}" is no instrument: it is one of ${instruments.join(', ')}`)
      const { simulation } = rigOf(file, options)
      const reading = measure(simulation, instrument, red, black)
      out(options.json ? JSON.stringify(reading, null, 2) : readingText(simulation.circuit, reading))
    })

  afterActions('netlist', 'do actions in order and write the state as a SPICE netlist').action(
    (file: string, options: Doings) => out(netlist(rigOf(file, options).simulation).text.trimEnd()),
  )

  program
    .command('check')
    .description(
      'rules a conductor can break and every reachable state; 1 where something is dangerous or will not work',
    )
    .argument('<file>', fileArgument)
    .option('--plan <file>', 'the plan of this installation: what departs from it is named first')
    .option('--faults', 'the deeper run too: which single device faults end in danger', false)
    .option('--most <states>', 'states to look at, at most; what was left out is said', '400000')
    .option('--json', 'JSON instead of text', false)
    .action((file: string, { plan, faults, most, json }: CheckOptions) => {
      const states = Number(most)
      if (!Number.isInteger(states) || states < 1)
        throw new UsageError(`"${most}" is no number of states: it is a whole number from 1`)
      const circuit = compile(loadInstallation(file))
      const checked = driven(checking(circuit, states), progress)
      const planned = plan === undefined ? undefined : loadInstallation(plan)
      const findings = driven(cured(circuit, checked.findings, { plan: planned }))
      const result = { ...checked, findings }
      /** What puts it right, with its words; what was not tried is not told. */
      const worded = (f: CheckFinding) => ({
        ...f,
        proposal: undefined,
        remedy: f.remedy && commandOf(circuit.installation, f.remedy),
      })
      const ends = faults ? driven(faultRun(circuit)) : undefined
      if (json)
        out(JSON.stringify({ ...result, findings: findings.map(worded), ...(ends && { faults: ends }) }, null, 2))
      else [...checkText(circuit, result), ...(ends ? faultEndsText(ends) : [])].forEach(out)
      if (result.findings.some(isGrave)) code = 1
    })

  program
    .command('plan')
    .description('the wiring of what a brief asks for: terminals, conductors, links and cables')
    .argument('<brief>', 'a brief (JSON), or "-" for standard input')
    .option('--json', 'the installation as JSON instead of text', false)
    .action((file: string, { json }: { json: boolean }) => {
      const { name, brief: read, centreOpen } = loadBrief(file)
      const brief = centreOpen ? inSmallestCentre(read) : read
      const plan = planSystem(brief, 'plan', name)
      if (json) out(JSON.stringify(plan, null, 2))
      else planText(plan, brief).forEach(out)
    })

  program
    .command('change')
    .description('the moves that make of an installation what a brief asks for, with as little touched as can be')
    .argument('<from>', fileArgument)
    .argument('<to>', 'a brief (JSON)')
    .option('--back', 'the moves read the other way round: the old wiring again', false)
    .option('--json', 'JSON instead of text: the moves, what they come to, and the installation they end in', false)
    .action((from: string, to: string, options: { back: boolean; json: boolean }) => {
      const change = changedOrRefused(loadInstallation(from), loadBrief(to).brief)
      const moves = movesOf(change)
      const tally = tallyOf(change, moves)
      if (options.json) out(JSON.stringify({ tally, moves, installation: change.to }, null, 2))
      else changeText(moves, tally, options.back).forEach(out)
    })

  huntVerb(program, { out })
  siteVerbs(program, { fileArgument, collect, out, fail: () => (code = 1) })

  program
    .command('week')
    .description('live through days by the clocks as they are set: temperatures, demands, heat, and what went wrong')
    .argument('<file>', fileArgument)
    .option('--house <house>', houseIds.join(', '), 'semi')
    .option('--weather <weather>', weatherIds.join(', '), 'winter')
    .option('--days <days>', '1 to 7, from Monday', '7')
    .option('--fault <name>', 'a fault that is in from the start; may stand many times', collect, [])
    .option('--json', 'JSON instead of text', false)
    .action((file: string, { house, weather, days, fault, json }: WeekOptions) => {
      const installation = loadInstallation(file)
      const count = Number(days)
      if (!Number.isInteger(count) || count < 1 || count > 7)
        throw new UsageError(`"${days}" is no number of days: it is 1 to 7`)
      const scenario = parseAction(`heat=${house}/${weather}`)
      if (scenario.do !== 'heat' || !scenario.scenario) throw new UsageError('a house and a weather are needed')
      const run = liveThrough(compile(installation), {
        scenario: scenario.scenario,
        actions: [...livedIn(installation), ...fault.map((name): Action => ({ do: 'fault', fault: name }))],
        days: count,
      })
      const lived = driven(run)
      if (json) out(JSON.stringify(lived, null, 2))
      else weekText(installation, lived).forEach(out)
    })

  program
    .command('type')
    .description('read a device type of one’s own and say what is wrong with it or missing')
    .argument('<file>', 'a device type (JSON), or "-" for standard input')
    .action((file: string) => {
      const read = readDeviceType(readJson(file))
      if ('problems' in read)
        throw new UsageError(
          `"${file}" is not a device type: ${read.problems.map((p) => `${p.field}: ${p.reason}`).join('; ')}`,
        )
      const { type } = read
      const failures = type.primitives.flatMap((p) => p.failures ?? [])
      out(`${type.name} (${type.id}, version ${type.version}) is whole`)
      out(`${type.terminals.length} terminals, ${type.primitives.length} parts, ${failures.length} ways to fail`)
    })

  program
    .command('schema')
    .description(
      'the JSON Schema of a device type, of an installation, of a brief, of the case of a hunt, or of a survey',
    )
    .argument('[what]', 'device-type, installation, brief, hunt or survey', 'device-type')
    .action((what: string) => {
      const schemas: Record<string, () => unknown> = {
        'device-type': deviceTypeJsonSchema,
        brief: briefJsonSchema,
        hunt: huntCaseJsonSchema,
        survey: surveyJsonSchema,
        installation: installationJsonSchema,
      }
      if (!schemas[what])
        throw new UsageError(`there is no schema of "${what}": device-type, installation, brief, hunt or survey`)
      out(JSON.stringify(schemas[what](), null, 2))
    })

  program
    .command('faults')
    .description(
      'every fault an installation can have, with the name that --fault takes; without a file, every fault of every device type',
    )
    .argument('[file]', fileArgument)
    .option('--json', 'JSON instead of text', false)
    .action((file: string | undefined, options: { json: boolean }) => {
      const faults = file === undefined ? catalogueFaults() : [...putInsOf(compile(loadInstallation(file))).values()]
      if (options.json)
        out(
          JSON.stringify(
            faults.map(({ name, label, prior, remedy }) => ({ name, label, prior, remedy })),
            null,
            2,
          ),
        )
      else {
        const width = Math.max(...faults.map((f) => f.name.length))
        faults.forEach((f) => out(`${f.name.padEnd(width)}  ${f.label}`))
      }
    })

  program
    .command('examples')
    .description('the shipped installations, one name a line; with a name, that installation as JSON')
    .argument('[name]')
    .action((name?: string) => {
      if (name === undefined) return examples.forEach((e) => out(e.id))
      const example = examples.find((e) => e.id === name)
      if (!example) throw new UsageError(`there is no example "${name}": see "examples"`)
      out(JSON.stringify(example.installation, null, 2))
    })

  const dataOption = [
    '--data <folder>',
    'the data folder; left out, NOBBET_DATA or the one beside the program',
  ] as const
  const folderOf = ({ data }: { data?: string }) => resolve(data ?? process.env.NOBBET_DATA ?? ownData)
  const contentText = (c: { jobs: number; findings: number; photos: number }) =>
    `${c.jobs} jobs, ${c.findings} findings, ${c.photos} photos`
  program
    .command('backup')
    .description('everything to one new file, checked from end to end; while a server runs or not')
    .argument('<file>', 'where to; must not be there yet')
    .option(...dataOption)
    .action(async (file: string, options: { data?: string }) => {
      const { backUpFolder } = await import('@nobbet/server/backup')
      out(`${file}: ${contentText(await backUpFolder(folderOf(options), resolve(file)))}`)
    })
  program
    .command('restore')
    .description('put a backup in the place of all data; no server may run on them, and what was there is kept')
    .argument('<file>', 'a backup')
    .option(...dataOption)
    .action(async (file: string, options: { data?: string }) => {
      const { restoreFolder } = await import('@nobbet/server/backup')
      const { content, kept } = await restoreFolder(folderOf(options), resolve(file), new Date())
      out(`brought back: ${contentText(content)}`)
      if (kept) out(`what was there before is the backup ${kept}`)
    })

  try {
    await program.parseAsync(args, { from: 'user' })
    return code
  } catch (error) {
    // Commander has said its own line by then; help asked for is no error.
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2
    const told = error as Error
    if (
      told instanceof UsageError ||
      told instanceof ActionError ||
      told instanceof HuntError ||
      ['BackupError', 'StartError'].includes(told.name)
    ) {
      err(`nobbet: ${told.message}`)
      return 2
    }
    // Never 1, which says that an installation is dangerous.
    err(`nobbet: this is a fault of Nobbet’s own: ${told.stack ?? told.message}`)
    return crashCode
  }
}
