import { recordOf, type PlannedChange } from '@nobbet/contract'
import { findingKey, shortVerdictText, type CommonChange, type Installation, type Move, type Tally } from '@nobbet/core'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { v4 as newId } from 'uuid'
import { IsolationStep } from '../shell/isolation-step'
import { Failed, Loading } from '../shell/notes'
import { useSearchValue } from '../shell/use-search-value'
import type { JobStore } from '../store/job-store'
import { useJob } from '../store/use-job'
import { useVerdict } from '../workers/use-verdict'
import { MoveCard } from './move-card'
import { MoveList } from './move-list'
import { SideBySide } from './side-by-side'
import { useChange } from './use-change'
import { Wishes } from './wishes'

/** From what is found to other controls: what is wished for, the moves that lead there, and how far they are done. */
export function ChangePage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the change" />
  const { brief, wiring } = state.document
  const { change } = recordOf(state)
  const wish = ({ name, brief: to }: CommonChange, before?: PlannedChange) => {
    const whole = before && !before.done ? `${before.name}; ${name}` : name
    void store.record({ do: 'change-to', change: { name: whole.slice(0, 300), to, at: new Date().toISOString() } })
  }
  return (
    <main className="page change">
      <h1>
        Change of controls<span className="d-none d-print-inline">: {wiring.name}</span>
      </h1>
      {!change && (
        <>
          <p className="lead-in">
            As found: <strong>{wiring.scheme || 'wiring as recorded'}</strong>. What is not as recorded here, put right
            at the <Link to="../bench">Bench</Link> first: the moves begin from it.
          </p>
          <Wishes from={brief.fitted} title="What is it to be?" onPick={(one) => wish(one)} />
        </>
      )}
      {change?.done && <Done change={change} store={store} wish={(one) => wish(one)} />}
      {change && !change.done && (
        <Planned
          job={job}
          change={change}
          found={wiring}
          ticks={state.ticks}
          store={store}
          onMore={(one) => wish(one, change)}
        />
      )}
    </main>
  )
}

function Done({ change, store, wish }: { change: PlannedChange; store: JobStore; wish: (one: CommonChange) => void }) {
  const { state } = store.current()
  const revision = state?.revisions.find(({ id }) => id === change.done?.revision)
  return (
    <>
      <section className="sheet change-done" role="status">
        <p className="step-do">Recorded: {change.name}</p>
        <p>
          This is the job’s wiring now. The old one is kept as “{revision?.name ?? 'As found'}” at the{' '}
          <Link to="../bench">Bench</Link>, with the wiring’s history. Before power goes on: earth, polarity, links
          counted; then the run, each demand alone and all together.
        </p>
        <Link className="btn btn-primary" to="../checks">
          Checks
        </Link>
      </section>
      {state && <Wishes from={state.document.brief.fitted} title="Change something else" onPick={wish} />}
    </>
  )
}

interface PlannedProps {
  job: string
  change: PlannedChange
  found: Installation
  ticks: readonly string[]
  store: JobStore
  onMore: (wish: CommonChange) => void
}

function Planned({ job, change, found, ticks, store, onMore }: PlannedProps) {
  const worked = useChange(found, change.to)
  const [more, setMore] = useState(false)
  const drop = () => void store.record({ do: 'change-to', change: null })
  return (
    <>
      <div className="change-head">
        <strong className="change-name">{change.name}</strong>
        <Button size="sm" variant="outline-primary" className="no-print" onClick={() => setMore(!more)}>
          {more ? 'No more' : 'And something else'}
        </Button>
        <Button size="sm" variant="outline-dark" className="no-print" onClick={drop}>
          Drop this change
        </Button>
      </div>
      {more && <Wishes from={change.to} title="And what else?" onPick={(one) => (setMore(false), onMore(one))} />}
      {worked.error && <Failed error={worked.error} retry={worked.again} />}
      {worked.refused !== undefined && (
        <section className="sheet change-refused" role="alert">
          <strong>This cannot be worked out yet.</strong> {worked.refused}. <Link to="../bench">To the Bench</Link>
        </section>
      )}
      {!worked.error && worked.refused === undefined && !worked.change && <Loading what="the moves" />}
      {worked.change && (
        <Moves job={job} change={change} found={found} {...worked.change} ticks={ticks} store={store} />
      )}
    </>
  )
}

interface MovesProps extends Omit<PlannedProps, 'onMore'> {
  to: Installation
  moves: readonly Move[]
  tally: Tally
}

function Moves({ job, change, found, to, moves, tally, ticks, store }: MovesProps) {
  const [asked, ask] = useSearchValue('move')
  const [order, setOrder] = useSearchValue('order')
  const back = order === 'back'
  const ticked = new Set(ticks)
  const isDone = ({ id }: Move) => ticked.has(id)
  const done = moves.filter(isDone).length
  const open = moves.findIndex((move) => !isDone(move))
  const named = moves.findIndex(({ id }) => id === asked)
  const at = named >= 0 ? named : open
  const current = moves[at] as Move | undefined
  const tick = (move: Move, is: boolean) => void store.record({ do: 'tick', step: move.id, done: is })
  const finish = (move: Move) => {
    tick(move, true)
    ask([...moves.slice(at + 1), ...moves.slice(0, at)].find((one) => !isDone(one))?.id)
  }
  const [recording, setRecording] = useState(false)
  const take = async () => {
    setRecording(true)
    const revision = newId()
    await store.record({ do: 'keep', revision, kind: 'as-found', name: `Before: ${change.name}`.slice(0, 120) })
    await store.edit(`Changed: ${change.name}`.slice(0, 200), (document) => ({
      ...document,
      brief: { ...document.brief, fitted: change.to },
      wiring: to,
    }))
    // What departs from a plan departs from this one now.
    await store.record({ do: 'keep', revision: newId(), kind: 'planned', name: change.name.slice(0, 120) })
    for (const { id } of moves) if (ticked.has(id)) await store.record({ do: 'tick', step: id, done: false })
    await store.record({ do: 'change-to', change: { ...change, done: { revision, at: new Date().toISOString() } } })
  }
  return (
    <>
      <Facts tally={tally} to={to} />
      <div className="steps-head">
        <strong className="steps-count">
          {done} of {moves.length} done
        </strong>
        <Button
          size="sm"
          variant="outline-primary"
          className="no-print"
          aria-pressed={back}
          onClick={() => setOrder(back ? undefined : 'back')}
        >
          {back ? 'Read forwards' : 'Read backwards: the old wiring again'}
        </Button>
        <Button size="sm" variant="outline-primary" className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      <IsolationStep job={job} before="any conductor is moved" />
      <div className="steps-grid">
        {current && !back ? (
          <MoveCard
            move={current}
            number={at + 1}
            of={moves.length}
            done={isDone(current)}
            onDone={() => finish(current)}
            onTakeBack={() => tick(current, false)}
            onBack={at > 0 ? () => ask(moves[at - 1].id) : undefined}
            onNext={at < moves.length - 1 ? () => ask(moves[at + 1].id) : undefined}
          />
        ) : (
          <section className="sheet step-card" role="status">
            {back ? (
              <>
                <p className="step-do">The old wiring again</p>
                <p>From the last move to the first, everything dead. Nothing is ticked here: read it off.</p>
              </>
            ) : (
              <>
                <p className="step-do">Every move is done</p>
                <p>Record it, and this is the job’s wiring. The old one is kept.</p>
                <Button size="lg" className="step-done" disabled={recording} onClick={() => void take()}>
                  Record the new wiring
                </Button>
              </>
            )}
          </section>
        )}
        <MoveList
          moves={moves}
          isDone={isDone}
          current={current?.id}
          back={back}
          onTick={tick}
          onPick={({ id }) => ask(id)}
        />
      </div>
      <SideBySide found={found} to={to} />
    </>
  )
}

const several = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`

/** What it comes to: conductors, links, cables; and what Checks say of the wiring that it ends in. */
function Facts({ tally, to }: { tally: Tally; to: Installation }) {
  const verdict = useVerdict(to)
  const waived = new Set(to.waivers?.map((w) => w.id))
  const findings = verdict.findings?.filter((f) => !waived.has(findingKey(f)))
  const { touched, conductors, links, cables, terminals, atMostLess } = tally
  return (
    <dl className="change-facts" aria-label="What the change comes to">
      <div>
        <dt>Conductors touched</dt>
        <dd>
          {touched} <span className="quiet">of {conductors}</span>
        </dd>
      </div>
      <div>
        <dt>Links</dt>
        <dd>{links}</dd>
      </div>
      <div>
        <dt>New cables</dt>
        <dd>{cables}</dd>
      </div>
      {terminals > 0 && (
        <div>
          <dt>Further terminals</dt>
          <dd>{terminals}</dd>
        </div>
      )}
      <div>
        <dt>Could be less by</dt>
        <dd>{atMostLess === 0 ? 'nothing' : <>at most {several(atMostLess, 'end')}</>}</dd>
      </div>
      <div className="wide">
        <dt>Checks, as it will be</dt>
        <dd>
          {verdict.error
            ? 'could not be run'
            : findings && verdict.states
              ? shortVerdictText({ findings, known: verdict.known })
              : 'Looking at every state'}
        </dd>
      </div>
    </dl>
  )
}
