import { compile, hypothesesOf, proofsLeft, servicesUntried, type HuntEntry, type Installation } from '@nobbet/core'
import { huntOf, linesOf, weighed, type JobState } from '@nobbet/contract'
import { useMemo, useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { errorText } from '../api/client'
import { NotIsolated } from '../shell/not-isolated'
import { Failed, Loading } from '../shell/notes'
import type { JobStore } from '../store/job-store'
import { useJob } from '../store/use-job'
import { severalOpen } from './at-once'
import { Conclusion } from './conclusion'
import { CustomerSays } from './customer-says'
import { FindingSheet } from './finding-sheet'
import { HuntWriter } from './hunt-log'
import type { HuntScreen } from './hunt-screen'
import { LedBy } from './led-by'
import { HuntLog } from './log'
import { NextCard } from './next-card'
import { Noticed } from './noticed'
import { PutBack } from './put-back'
import { groupsOf, Suspects } from './suspects'
import { useComfort } from './use-comfort'
import { useHunt } from './use-hunt'

export function HuntPage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the hunt" />
  return <Hunt key={job} job={job} store={store} state={state} installation={state.document.wiring} />
}

interface HuntProps {
  job: string
  store: JobStore
  state: JobState
  installation: Installation
}

const parts = { next: 'Next', noticed: 'Noticed', suspects: 'Suspects', log: 'Log' } as const
type Part = keyof typeof parts
const isPart = (text: string | null): text is Part => text !== null && text in parts

/** One card: what to do next. Beside it the suspects, shrinking; below, what was done and found. On a phone, one at a time. */
function Hunt({ job, store, state, installation }: HuntProps) {
  const circuit = useMemo(() => compile(installation), [installation])
  const record = huntOf(state)
  const lines = useMemo(() => linesOf(circuit, state), [circuit, state])
  const all = useMemo(() => weighed(lines), [lines])
  const view = useHunt(installation, all, record.options)
  const comfort = useComfort()
  const [search, setSearch] = useSearchParams()
  const shown = search.get('see')
  const part: Part = isPart(shown) ? shown : 'next'
  const show = (next: Part) => setSearch(next === 'next' ? {} : { see: next }, { replace: true })
  const showSeveral = () => setSearch({ see: 'suspects', [severalOpen]: 'open' }, { replace: true })
  const entries = useMemo(() => {
    const aside = new Set(view.aside.map(({ entry }) => entry))
    return all.filter(({ id }) => !aside.has(id))
  }, [all, view.aside])
  const isMended = all.some((entry) => 'mended' in entry)
  const labels = useMemo(() => {
    const { suspects = [], ruledOut = [] } = view.standing ?? {}
    // What was put right is called by its name whatever became of it; nobody waits for all names where nothing was.
    const named = isMended ? hypothesesOf(circuit) : []
    return new Map([...named, ...suspects, ...ruledOut].map(({ id, label }) => [id, label]))
  }, [view.standing, circuit, isMended])
  const screen: HuntScreen = {
    job,
    circuit,
    record,
    lines,
    entries,
    view,
    writer: new HuntWriter(store, lines),
    labelOf: (id) => labels.get(id) ?? id,
  }
  const { symptom, site } = state.document.brief
  const inQuestion = groupsOf(view.standing?.suspects ?? []).filter(({ share }) => share >= 0.02).length
  const counts: Record<Part, number | undefined> = {
    next: undefined,
    noticed: undefined,
    suspects: inQuestion || undefined,
    log: lines.length || undefined,
  }
  return (
    <main className={`page hunt shows-${part}`}>
      <h1 className="visually-hidden">Hunt</h1>
      {symptom && <p className="reported">Reported: “{symptom}”</p>}
      <div className="hunt-grid">
        <div className="hunt-main">
          {part === 'noticed' ? (
            <Noticed screen={screen} onDone={() => show('next')} />
          ) : (
            <div className="hunt-card">
              {!record.finding && <NotIsolated circuit={circuit} />}
              {record.finding ? (
                <FindingSheet screen={screen} finding={record.finding} site={site} />
              ) : (
                <Card screen={screen} onNoticed={() => show('noticed')} onSeveral={showSeveral} />
              )}
              <PutBack screen={screen} />
            </div>
          )}
          <HuntLog screen={screen} />
          <LedBy screen={screen} comfort={comfort} />
        </div>
        <Suspects screen={screen} />
      </div>
      <nav className="hunt-parts no-print" aria-label="Parts of the hunt">
        {(Object.keys(parts) as Part[]).map((one) => (
          <button key={one} type="button" aria-current={part === one} onClick={() => show(one)}>
            {parts[one]}
            {counts[one] !== undefined && <span className="count">{counts[one]}</span>}
          </button>
        ))}
      </nav>
    </main>
  )
}

interface CardProps {
  screen: HuntScreen
  onNoticed: () => void
  onSeveral: () => void
}

/** What to do next; or what it comes down to; or, before anything was heard, what the customer says. */
function Card({ screen, onNoticed, onSeveral }: CardProps) {
  const { view, entries } = screen
  const { answer, error, current, along } = view
  /** The line after which it was wanted to look on: for one card, since what is found then may make it enough, or not. */
  const [on, setOn] = useState<string>()
  const [unheard, setUnheard] = useState(false)
  const last = entries.at(-1)?.id
  if (error)
    return (
      <section className="sheet next-card" role="alert">
        <h2 className="question">What to do next could not be worked out</h2>
        <p>{errorText(error)}</p>
        <button className="btn btn-primary" onClick={view.again}>
          Try again
        </button>
      </section>
    )
  if (entries.length === 0 && !unheard)
    return (
      <section className="sheet next-card first-words" aria-label="First of all">
        <CustomerSays screen={screen} onSaid={() => undefined}>
          <button className="btn btn-outline-primary" onClick={() => setUnheard(true)}>
            Nothing was said: first look
          </button>
        </CustomerSays>
      </section>
    )
  const latest = current ? answer : undefined
  if (!latest) return <Working along={along} entries={entries} />
  const isMended = latest.decision.stop && latest.decision.remedy?.done === true
  const proofs = isMended ? proofsLeft(screen.circuit, entries) : []
  const others = isMended ? servicesUntried(screen.circuit, entries).filter(({ refused }) => !refused) : []
  if (proofs.length > 0)
    return (
      <NextCard key={`proof ${last}`} screen={screen} next={proofs} onNoticed={onNoticed}>
        <p className="step proof">
          The proof: {proofs.length === 1 ? 'the same demand again' : `${proofs.length} demands again`}
        </p>
      </NextCard>
    )
  if (others.length > 0)
    return (
      <NextCard key={`others ${last}`} screen={screen} next={others.map(({ look }) => look)} onNoticed={onNoticed}>
        <p className="step proof">
          Before you leave, once: {others.map(({ demand }) => demand.name).join(', ')}. Nobody complained of{' '}
          {others.length === 1 ? 'it' : 'them'}.
        </p>
      </NextCard>
    )
  const furtherOn = on !== undefined && on === (last ?? '')
  if ((latest.decision.stop && !furtherOn) || latest.next.length === 0)
    return (
      <Conclusion
        screen={screen}
        next={latest.next}
        onFurther={() => setOn(last ?? '')}
        onNoticed={onNoticed}
        onSeveral={onSeveral}
      />
    )
  return <NextCard key={last} screen={screen} next={latest.next} onNoticed={onNoticed} />
}

function Working({ along, entries }: { along: number; entries: readonly HuntEntry[] }) {
  return (
    <section className="sheet next-card working" role="status" aria-label="Working">
      <h2 className="question">{entries.length === 0 ? 'Working out the first look' : 'Written down. Next look'}</h2>
      <progress value={along} max={1} aria-label="Suspects gone through" />
    </section>
  )
}
