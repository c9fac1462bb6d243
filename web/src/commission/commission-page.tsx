import { lastRun, recordOf, runsOf, type JobState, type RunPurpose } from '@nobbet/contract'
import { runRowTexts, type RunRow } from '@nobbet/core'
import { Play, Printer } from 'lucide-react'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { NotIsolated } from '../shell/not-isolated'
import { Failed, Loading } from '../shell/notes'
import { useSearchValue } from '../shell/use-search-value'
import type { JobStore } from '../store/job-store'
import { useJob } from '../store/use-job'
import { Beside } from './beside'
import { expectedWiring } from './expected-wiring'
import { Practice } from './practice'
import { RowList } from './row-list'
import { RunOptionsFields } from './run-options'
import { Running } from './running'
import { assumedWords, minutesOf, traceOf } from './run-in-short'
import { optionsFor, useRows, useRun, type RunInHand } from './use-run'
import { purposeWords } from './words'

type Part = RunPurpose | 'beside' | 'practice'
const parts: Record<Part, string> = { ...purposeWords, beside: 'Both', practice: 'Practise' }
const isPart = (text: string | undefined): text is Part => text !== undefined && text in parts

/** The run on arrival and the one on leaving, made of this very installation: one row a step, one press a row. */
export function CommissionPage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the run" />
  return <Commission key={job} job={job} store={store} state={state} />
}

interface CommissionProps {
  job: string
  store: JobStore
  state: JobState
}

function Commission({ job, store, state }: CommissionProps) {
  const [asked, ask] = useSearchValue('run')
  // What is shown without being asked for stays, whatever becomes of the runs meanwhile.
  const [usual] = useState(() => usualPart(state))
  const part = isPart(asked) ? asked : usual
  return (
    <main className={`page commission shows-${part}`}>
      <div className="run-head">
        <h1>
          Commission<span className="d-none d-print-inline">: {state.document.brief.site}</span>
        </h1>
        <div className="knob no-print" role="group" aria-label="Which run">
          {(Object.keys(parts) as Part[]).map((one) => (
            <button
              key={one}
              type="button"
              className={one === part ? 'on' : ''}
              aria-pressed={one === part}
              onClick={() => ask(one)}
            >
              {parts[one]}
            </button>
          ))}
        </div>
        <Button variant="outline-primary" size="sm" className="no-print" onClick={() => window.print()}>
          <Printer size={18} aria-hidden /> Print
        </Button>
      </div>
      {part === 'beside' ? (
        <Beside record={recordOf(state)} />
      ) : part === 'practice' ? (
        <Practice job={job} wiring={expectedWiring(state)} />
      ) : (
        <OneRun key={part} job={job} store={store} state={state} purpose={part} />
      )}
    </main>
  )
}

/** The run that is under way; else the one that comes next. */
function usualPart(state: JobState): Part {
  const runs = runsOf(recordOf(state))
  const [arrival, leaving] = [lastRun(runs, 'arrival'), lastRun(runs, 'leaving')]
  if (leaving && !leaving.ended) return 'leaving'
  if (arrival && !arrival.ended) return 'arrival'
  if (!arrival && !leaving) return state.document.brief.kind === 'new-system' ? 'leaving' : 'arrival'
  return leaving && arrival ? 'beside' : 'leaving'
}

function OneRun({ job, store, state, purpose }: CommissionProps & { purpose: RunPurpose }) {
  const hand = useRun(job, state, store, purpose)
  const { rows, error, run } = hand
  if (error) return <Failed error={error} retry={hand.again} />
  if (!rows) return <Loading what="the steps" />
  if (state.document.wiring.intent.demands.length === 0)
    return (
      <p className="sheet panel-note">
        Nothing is asked for here: the brief names no circuit. <Link to="../brief">Brief</Link>
      </p>
    )
  return run ? (
    <Running job={job} store={store} state={state} hand={hand} rows={rows} />
  ) : (
    <Begin job={job} hand={hand} rows={rows} />
  )
}

function Begin({ job, hand, rows }: { job: string; hand: RunInHand; rows: readonly RunRow[] }) {
  const [options, want] = useState(() => optionsFor(hand.purpose))
  const { data: count = rows } = useRows(hand.circuit.installation, options)
  return (
    <div className="run-grid">
      <section className="sheet run-begin" aria-label="Begin the run">
        <h2>{hand.purpose === 'arrival' ? 'Before anything is touched' : 'Once the work is done'}</h2>
        <p>
          {hand.purpose === 'arrival'
            ? 'What works and what does not, on record before a cover comes off. No tools.'
            : 'Links and earths first, then each demand alone, dropped both ways, together, and everything put back.'}
        </p>
        <p className="run-size">
          <strong>{count.length}</strong> steps, about <strong>{minutesOf(count)}</strong> min
        </p>
        {hand.isAssumed && <p className="quiet">{assumedWords}</p>}
        <NotIsolated circuit={hand.circuit} />
        <RunOptionsFields purpose={hand.purpose} options={options} onWant={want} />
        <div className="buttons">
          <Button size="lg" onClick={() => hand.want(options)}>
            Begin the run
          </Button>
          <Link className="btn btn-outline-dark btn-lg" to={traceOf(job, count)}>
            <Play size={18} aria-hidden /> Play it in Trace
          </Link>
        </div>
      </section>
      <RowList rows={count} texts={runRowTexts(hand.circuit, count)} came={new Map()} />
    </div>
  )
}
