import {
  huntOf,
  openVisit,
  recordOf,
  runLines,
  type HuntFindingRecord,
  type Item,
  type JobState,
  type Visit,
} from '@nobbet/contract'
import { runRowTexts, type RunRow } from '@nobbet/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link, useNavigate } from 'react-router'
import { v4 as newId } from 'uuid'
import { momentText } from '../drawing/dates'
import { useSearchValue } from '../shell/use-search-value'
import type { JobStore } from '../store/job-store'
import { cameTo } from '../hunt/conclude'
import { stampOf } from '../visit/use-record'
import { RunStep } from './run-step'
import { RowList } from './row-list'
import { assumedWords, minutesOf, traceOf } from './run-in-short'
import { RunOptionsFields } from './run-options'
import { isStale, type RunInHand } from './use-run'
import { outcomeMarks, outcomeWords, type RowState } from './words'

/** How many steps came to what. */
const tallied = [
  'as-expected',
  'otherwise',
  'another-way',
  'deferred',
  'left-out',
  'open',
] as const satisfies RowState[]

/** What a hunt came to, as a line of the record. */
const itemOf = (finding: HuntFindingRecord, visit: Visit | undefined): Item => ({
  kind: 'found',
  severity: 'fault',
  text: cameTo(finding),
  evidence: finding.evidence,
  ...stampOf(visit),
})

interface RunningProps {
  job: string
  store: JobStore
  state: JobState
  hand: RunInHand
  rows: readonly RunRow[]
}

/** A run that is begun: the step to be done, large, beside all of them. */
export function Running({ job, store, state, hand, rows }: RunningProps) {
  const { run, came, circuit } = hand
  const [asked, ask] = useSearchValue('step')
  const [wanting, setWanting] = useState(false)
  const navigate = useNavigate()
  const texts = useMemo(() => runRowTexts(circuit, rows), [circuit, rows])
  const stateOf = (row: RunRow): RowState => {
    const done = came.get(row.id)
    return done && !isStale(done, row) ? done.how : 'open'
  }
  const states = rows.map(stateOf)
  const open = rows.filter((_, i) => states[i] === 'open')
  const at =
    asked === undefined ? rows.findIndex((_, i) => states[i] === 'open') : rows.findIndex(({ id }) => id === asked)
  const row = rows[at]
  const now = useMemo(() => row && hand.rowNow(row.id), [row, run, rows, state]) // eslint-disable-line react-hooks/exhaustive-deps -- what was done is in the job’s state
  const done = row && came.get(row.id)
  const next = rows.find((_, i) => i > at && states[i] === 'open') ?? open.find(({ id }) => id !== row?.id)
  // Each step begins at its head.
  const step = row?.id
  useEffect(() => void window.scrollTo({ top: 0 }), [step])
  // What was pressed goes on to the next by itself, unless it was not as expected.
  const pressed = useRef<string>(undefined)
  useEffect(() => {
    if (pressed.current === undefined || done?.id !== pressed.current) return
    pressed.current = undefined
    if (done.how !== 'otherwise') ask(next?.id)
  }, [done, next, ask])
  const pressing: RunInHand = {
    ...hand,
    write: (written, id = newId()) => {
      pressed.current = id
      ask(row?.id)
      return hand.write(written, id)
    },
  }
  const hunt = async () => {
    const lines = runLines(run!, huntOf(state).lines)
    const { finding } = huntOf(state)
    // A hunt that came to its end goes on with what is known now; what it came to stays in the record.
    if (lines.length > 0 && finding) {
      const record = recordOf(state)
      const item = itemOf(finding, openVisit(record))
      if (!record.items.some(({ text }) => text === item.text)) await store.record({ do: 'item', id: newId(), item })
      await store.record({ do: 'conclude' })
    }
    if (lines.length > 0) await store.record({ do: 'hunt', lines })
    await navigate(`/jobs/${job}/hunt`)
  }
  const card = now && row && (
    <RunStep
      key={row.id}
      job={job}
      hand={pressing}
      row={now.row}
      text={now.text}
      number={at + 1}
      of={rows.length}
      came={done}
      stale={done !== undefined && isStale(done, row)}
      trace={traceOf(job, rows.slice(0, at + 1))}
      onNext={next && (() => ask(next.id))}
      onHunt={() => void hunt()}
    />
  )
  return (
    <>
      <div className="run-tally" role="status" aria-label="How far the run is">
        {tallied.map((how) => {
          const count = states.filter((one) => one === how).length
          return count === 0 ? null : (
            <span key={how} data-how={how}>
              <strong>{count}</strong> <span aria-hidden>{outcomeMarks[how]}</span>{' '}
              <span className="words">{outcomeWords[how].toLowerCase()}</span>
            </span>
          )
        })}
        {open.length > 0 && <span className="quiet">about {minutesOf(open)} min left</span>}
        {hand.isAssumed && <span className="run-assumed">{assumedWords}</span>}
        <span className="run-acts no-print">
          {run!.ended ? (
            <>
              <strong>Ended {momentText(run!.ended.at)}</strong>
              <Button size="sm" variant="outline-dark" onClick={hand.goOn}>
                It goes on
              </Button>
              <Button size="sm" variant="outline-dark" onClick={() => hand.want({ ...hand.options, stood: {} })}>
                A new run
              </Button>
            </>
          ) : (
            <>
              <Button size="sm" variant="outline-dark" aria-expanded={wanting} onClick={() => setWanting(!wanting)}>
                Options
              </Button>
              <Button
                size="sm"
                variant={open.length === 0 ? 'primary' : 'outline-dark'}
                onClick={() => hand.end(open, (id) => texts[rows.findIndex((one) => one.id === id)].title)}
              >
                End the run
              </Button>
            </>
          )}
        </span>
      </div>
      {wanting && !run!.ended && (
        <section className="sheet run-otherwise" aria-label="How the run is wanted">
          <RunOptionsFields purpose={hand.purpose} options={hand.options} onWant={hand.want} />
        </section>
      )}
      <div className="run-grid">
        {card ?? (
          <section className="sheet run-step" role="status">
            <h2 className="row-title">{open.length === 0 ? 'Every step is done' : 'No such step'}</h2>
            <p>
              {states.includes('otherwise')
                ? 'Some are not as expected: open one, and hunt it.'
                : 'What was shown another way, deferred or left out stands in the report.'}
            </p>
            <div className="row-press">
              <Button size="lg" variant="outline-dark" onClick={() => ask(open[0]?.id ?? rows[0].id)}>
                {open.length > 0 ? 'The first that is open' : 'Look at the first'}
              </Button>
              <Link className="btn btn-primary btn-lg" to={`/jobs/${job}/visit/handover?for=engineer`}>
                Handover
              </Link>
            </div>
          </section>
        )}
        <RowList rows={rows} texts={texts} came={came} current={row?.id} onPick={ask} />
      </div>
    </>
  )
}
