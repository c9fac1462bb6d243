import {
  huntOf,
  isCarriedOut,
  lastRun,
  outcomes,
  recordOf,
  runsOf,
  type JobState,
  type KeptRow,
  type KeptRun,
  type RowDone,
  type RunPurpose,
} from '@nobbet/contract'
import {
  ActionError,
  compile,
  formatAction,
  knownOf,
  nobodyLooked,
  parseAction,
  rowFrom,
  runRowTexts,
  same,
  usualRun,
  type Circuit,
  type Installation,
  type RowText,
  type RunOptions,
  type RunRow,
} from '@nobbet/core'
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { v4 as newId } from 'uuid'
import type { JobStore } from '../store/job-store'
import { useRecord } from '../visit/use-record'
import { ask } from '../workers/compute'
import { expectedWiring } from './expected-wiring'

/** A run under the hand: its rows, what came of them, and what can be written down of it. */
export interface RunInHand {
  purpose: RunPurpose
  circuit: Circuit
  /** The wiring is otherwise than planned: Trace shows it as it is. */
  isAltered: boolean
  /** Nobody has looked at the wiring that it expects by. */
  isAssumed: boolean
  /** The run as recorded; left out before it was begun. */
  run?: KeptRun
  options: RunOptions
  /** Left out until they have been worked out. */
  rows?: readonly RunRow[]
  error: Error | null
  again: () => void
  /** What came of each row at last. */
  came: ReadonlyMap<string, KeptRow>
  /** A row as it is done after what was done so far, and in words. */
  rowNow: (id: string) => { row: RunRow; text: RowText } | undefined
  /** Begins the run, or has it otherwise from here on. */
  want: (options: RunOptions) => void
  write: (row: Omit<RowDone, 'at' | 'visit'>, id?: string) => Promise<void>
  takeBack: (id: string) => void
  end: (open: readonly RunRow[], titleOf: (row: string) => string) => void
  goOn: () => void
}

/** On arrival no cover comes off. */
export const optionsFor = (purpose: RunPurpose): RunOptions => ({ ...usualRun, coversOn: purpose === 'arrival' })

export function useRun(job: string, state: JobState, store: JobStore, purpose: RunPurpose): RunInHand {
  const wiring = useMemo(() => expectedWiring(state), [state])
  const circuit = useMemo(() => compile(wiring), [wiring])
  const isAssumed = useMemo(() => nobodyLooked(knownOf(circuit)), [circuit])
  const { visit } = useRecord(job)
  const run = lastRun(runsOf(recordOf(state)), purpose)
  const options = run?.options ?? optionsFor(purpose)
  const { data: rows, error, refetch } = useRows(wiring, options)
  const came = useMemo(() => outcomes(run), [run])
  const known = useMemo(() => (run ? inARow(state, run) : []), [state, run])
  const now = () => ({ at: new Date().toISOString(), visit: visit?.id ?? '' })
  return {
    purpose,
    circuit,
    isAltered: !same(wiring, state.document.wiring),
    isAssumed,
    run,
    options,
    rows,
    error,
    again: () => void refetch(),
    came,
    rowNow: (id) => rows && rowAfter(circuit, rows, id, known),
    want: (wanted) => {
      const begun = run && !run.ended ? { id: run.id, at: run.at, visit: run.visit } : { id: newId(), ...now() }
      void store.record({ do: 'run', run: { ...begun, purpose, options: wanted } })
    },
    write: async (row, id = newId()) => {
      if (run) await store.record({ do: 'run-row', run: run.id, id, row: { ...row, ...now() } })
    },
    takeBack: (id) => {
      if (run) void store.record({ do: 'run-row', run: run.id, id, row: null })
    },
    end: (open, titleOf) => {
      const left = open.map(({ id }) => ({ row: id, title: titleOf(id) }))
      if (run) void store.record({ do: 'run-ends', run: run.id, open: left })
    },
    goOn: () => {
      if (run) void store.record({ do: 'run-goes-on', run: run.id })
    },
  }
}

/** The rows of a run, worked out apart from the screen; until they are, those with other options. */
export function useRows(wiring: Installation, options: RunOptions) {
  return useQuery({
    queryKey: ['run', options, wiring],
    queryFn: () => ask('brief', (api) => api.run(wiring, options)),
    staleTime: Infinity,
    networkMode: 'always',
    // Rows of another wiring speak of things that may not be there.
    placeholderData: (before, query) => (query && same(query.queryKey[2], wiring) ? before : undefined),
    retry: false,
  })
}

/** A row after what was done; of what was done to controls that are there no more, nothing is known. */
function rowAfter(circuit: Circuit, rows: readonly RunRow[], id: string, done: readonly RowDone[]) {
  try {
    const before = done.map(({ acts, waitMs }) => ({ acts: acts.map(parseAction), waitMs }))
    const row = rowFrom(circuit, rows, id, before)
    return row && { row, text: runRowTexts(circuit, [row], before)[0] }
  } catch (error) {
    if (!(error instanceof ActionError)) throw error
    const row = rowFrom(circuit, rows, id, [])
    return row && { row, text: runRowTexts(circuit, [row])[0] }
  }
}

/** So long nobody else is taken to have been at the controls, ms. */
const untouchedMs = 4 * 3_600_000

/** The rows that were done last with nothing else in between: how the controls stand comes of them alone. */
function inARow(state: JobState, run: KeptRun): KeptRow[] {
  const own = new Set(run.done.map(({ id }) => id))
  const others = huntOf(state).lines.filter(({ entry }) => !('see' in entry) && !own.has(entry.id.split('+')[0] ?? ''))
  const otherRuns = runsOf(recordOf(state)).filter(({ id }) => id !== run.id)
  const elsewhere = [...others, ...otherRuns.flatMap(({ done }) => done.filter(isCarriedOut))]
  const touched = elsewhere.reduce((last, { at }) => (at > last ? at : last), '')
  const rows: KeptRow[] = []
  for (const row of run.done.filter(isCarriedOut)) {
    const before = rows.at(-1)
    const isLater = before && Date.parse(row.at) - Date.parse(before.at) > untouchedMs
    if (before && (isLater || (touched > before.at && touched < row.at))) rows.length = 0
    rows.push(row)
  }
  const last = rows.at(-1)
  if (!last || touched > last.at || Date.now() - Date.parse(last.at) > untouchedMs) return []
  return rows
}

/** Does what came of a row speak of what the run asks there now? Where the wiring has been altered since, it may not. */
export function isStale(came: KeptRow, row: RunRow): boolean {
  if (!isCarriedOut(came)) return false
  const isWhole = same(came.acts, row.acts.map(formatAction))
  const asked = row.looks.map(({ see, expect }) => ({ see, expect }))
  // Shown another way, whatever came of it, it speaks of other looks.
  if (came.reason !== '') return false
  if (isWhole)
    return !same(
      asked,
      came.looks.map(({ see, expect }) => ({ see, expect })),
    )
  return came.looks.some(({ see }) => !row.looks.some((look) => same(look.see, see)))
}
