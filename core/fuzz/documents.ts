import fc from 'fast-check'
import {
  compile,
  conductorsCsv,
  conductorsFromCsv,
  deviceTypes,
  deviceTypeSchema,
  DocumentError,
  edited,
  examples,
  installationSchema,
  netlist,
  readDeviceType,
  readInstallation,
  Rig,
  ScheduleError,
  terminalsCsv,
  terminalsFromCsv,
  traceReport,
  tryOut,
  usualFeeds,
  writeInstallation,
  type Installation,
} from '../src'
import { explored } from '../src/states'
import { mutated, mutatedText } from './mutations'
import { shaped } from './zod-arbitrary'

/** No run of anything may take longer, ms. */
const longestMs = 20_000
/** States that are looked at of each wiring: enough to meet everything that is there. */
const mostStates = 300

/** One thing that was made up, what was done with it, and what became of it. */
export type Outcome = 'taken' | 'refused'
export interface Subject {
  name: string
  run: fc.Arbitrary<() => Outcome>
}

/** Everything that is shown of an installation, for a short while. */
function lived(installation: Installation): void {
  const circuit = compile(installation)
  const rig = new Rig(circuit)
  rig.simulation.run(60_000)
  traceReport(rig)
  netlist(rig.simulation)
  explored(circuit, { mostStates: mostStates })
}

const said = (problems: readonly { reason: string }[]): Outcome => {
  if (problems.length === 0 || problems.some((p) => p.reason === '')) throw new Error('refused without a reason')
  return 'refused'
}

/** Ends of conductors put onto other terminals of the same installation: wirings that are read, however mad. */
const rewired = fc
  .tuple(
    fc.constantFrom(...examples),
    fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat(5)), { minLength: 1, maxLength: 8 }),
  )
  .map(([{ installation }, moves]): Installation => {
    const doc = structuredClone(installation)
    const terminals = doc.cables.flatMap((c) =>
      c.cores.flatMap((core) => core.ends.flatMap((end) => (end.at === 'terminal' ? [end.terminal] : []))),
    )
    const cores = doc.cables.flatMap((c) => c.cores)
    for (const [which, where, how] of moves) {
      const core = cores[which % cores.length]
      const terminal = terminals[where % terminals.length]
      core.ends[where % 2] = how === 0 ? { at: 'loose' } : how === 1 ? { at: 'unknown' } : { at: 'terminal', terminal }
    }
    return doc
  })

export const subjects: Subject[] = [
  {
    name: 'installations',
    run: mutated(
      fc.oneof(
        { weight: 4, arbitrary: fc.constantFrom(...examples.map((e) => e.installation)) },
        shaped(installationSchema),
      ),
    ).map((value) => () => {
      let installation: Installation
      try {
        installation = readInstallation(JSON.stringify(value))
      } catch (error) {
        if (error instanceof DocumentError) return said(error.problems)
        throw error
      }
      lived(installation)
      return 'taken'
    }),
  },
  {
    name: 'device types',
    run: mutated(fc.oneof({ weight: 4, arbitrary: fc.constantFrom(...deviceTypes) }, shaped(deviceTypeSchema))).map(
      (value) => () => {
        const read = readDeviceType(value)
        if ('problems' in read) return said(read.problems)
        const rig = new Rig(tryOut(read.type, usualFeeds(read.type)))
        rig.simulation.run(60_000)
        return 'taken'
      },
    ),
  },
  ...(
    [
      ['conductor schedules', conductorsCsv, conductorsFromCsv],
      ['terminal schedules', terminalsCsv, terminalsFromCsv],
    ] as const
  ).map(([name, write, read]) => ({
    name,
    run: fc.constantFrom(...examples.map((e) => e.installation)).chain((installation) =>
      mutatedText(fc.constant(write(installation))).map((text) => (): Outcome => {
        try {
          edited(installation, read(installation, text))
          return 'taken'
        } catch (error) {
          if (error instanceof ScheduleError) return said(error.problems)
          throw error
        }
      }),
    ),
  })),
  {
    name: 'wirings',
    run: rewired.map((installation) => () => {
      lived(readInstallation(writeInstallation(installation)))
      return 'taken'
    }),
  },
]

/** Runs a subject so many times; throws with the seed and the smallest thing that breaks it. Answers with what became of them. */
export function fuzzed(
  { name, run }: Subject,
  runs: number,
  seed: number,
): Record<Outcome, number> & { slowestMs: number } {
  const told = { taken: 0, refused: 0, slowestMs: 0 }
  fc.assert(
    fc.property(run, (go) => {
      const before = performance.now()
      told[go()]++
      const took = performance.now() - before
      told.slowestMs = Math.max(told.slowestMs, took)
      if (took > longestMs) throw new Error(`${name}: took ${Math.round(took)} ms`)
    }),
    { numRuns: runs, seed, endOnFailure: true },
  )
  return told
}
