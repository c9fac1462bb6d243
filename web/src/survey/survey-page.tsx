import { recordOf } from '@nobbet/contract'
import type { CoreStanding, Surveyed } from '@nobbet/core'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { errorText } from '../api/client'
import { Failed, Loading } from '../shell/notes'
import { useNarrow } from '../shell/use-narrow'
import { useSearchValue } from '../shell/use-search-value'
import type { JobStore } from '../store/job-store'
import { useJob } from '../store/use-job'
import { ownName } from '../store/who'
import { Box } from './box'
import { NextCard } from './next-card'
import { OneCore } from './one-core'
import { OneTerminal } from './one-terminal'
import { SureMark } from './sure-mark'
import { takeOver } from './take-over'
import { Departures, Facts } from './told'
import { heldAgainst, seenOf, useSurvey } from './use-survey'
import { useWriting, type CoreName } from './use-writing'
import { WriteDown } from './write-down'

/** What is there: what is seen of a box is written down, and what follows of it stands beside it. */
export function SurveyPage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the survey" />
  return <Surveying key={job} job={job} store={store} />
}

function Surveying({ job, store }: { job: string; store: JobStore }) {
  const { state } = useJob(job)
  const doc = heldAgainst(state!)
  const writing = useWriting(seenOf(state!), store, ownName() || state!.document.brief.engineer)
  const { survey } = writing
  const { result, old, error, again } = useSurvey(survey, doc)
  const [asked, ask] = useSearchValue('core')
  const [linking, setLinking] = useState(false)
  const [linkFrom, setLinkFrom] = useState<string>()
  const [terminal, setTerminal] = useState<string>()
  const [skipped, setSkipped] = useState<readonly string[]>([])
  const picked = named(asked)
  const next = result?.next.find(({ what }) => !skipped.includes(JSON.stringify(what)))
  const standing = picked && result?.cores.find(({ cable, core }) => cable === picked.cable && core === picked.core)
  const { taken } = recordOf(state!).survey ?? {}

  const onTerminal = (id: string) => {
    if (writing.waits) return writing.sits({ at: 'terminal', terminal: id })
    if (!linking) return setTerminal(id)
    if (linkFrom === undefined) return setLinkFrom(id)
    if (linkFrom !== id) writing.link([[linkFrom, id]])
    setLinkFrom(undefined)
  }
  const onCore = ({ cable, core }: CoreName) => ask(`${cable}.${core}`)
  // While cables are still to come, writing them down goes before looking any further.
  const nextCard = result && next && !writing.waits && !linking && (
    <NextCard
      job={job}
      doc={doc}
      writing={writing}
      next={next}
      onSkip={() => setSkipped([...skipped, JSON.stringify(next.what)])}
    />
  )
  // Under the thumb nothing moves when something is worked out: on a phone it stands below.
  const narrow = useNarrow(900)
  const takes = result && (
    <TakeOver
      key={taken?.revision}
      taken={taken !== undefined}
      result={result}
      old={old}
      onTake={() => takeOver(store, survey, result, doc)}
    />
  )
  const empty = survey.cables.length === 0 && survey.terminals.length === 0
  return (
    <main className="page survey">
      <header className="survey-head">
        <h1>
          Survey<span className="d-none d-print-inline">: {doc.name}</span>
        </h1>
        <Tally cores={result?.cores} all={survey.cables.reduce((sum, { cores }) => sum + cores.length, 0)} old={old} />
        {!narrow && takes}
      </header>
      {error && <Failed error={error} retry={again} />}
      <div className="survey-grid">
        <div className="survey-left">
          {empty && <Begin planned={doc.wiringCentres[0]?.terminals.length} onCount={writing.terminals} />}
          <Box
            doc={doc}
            writing={writing}
            result={result}
            linkFrom={linkFrom}
            picked={picked}
            onTerminal={onTerminal}
            onCore={onCore}
          />
        </div>
        <div className="survey-hand">
          {terminal !== undefined && (
            <OneTerminal key={terminal} writing={writing} id={terminal} onClose={() => setTerminal(undefined)} />
          )}
          {picked && (
            <OneCore
              key={asked}
              doc={doc}
              writing={writing}
              name={picked}
              standing={standing}
              onClose={() => ask(undefined)}
            />
          )}
          {survey.complete && nextCard}
          <WriteDown
            doc={doc}
            writing={writing}
            linking={linking}
            onLinking={(on) => (setLinking(on), setLinkFrom(undefined))}
          />
          {linking && (
            <p className="linking" role="status">
              {linkFrom === undefined
                ? 'Press the first terminal of a link.'
                : `From ${linkFrom}: press the other one.`}
            </p>
          )}
          {survey.links.length > 0 && linking && (
            <ul className="links">
              {survey.links.map(({ id, between: [a, b] }) => (
                <li key={id}>
                  {a} to {b}{' '}
                  <Button size="sm" variant="outline-dark" onClick={() => writing.unlink(id)}>
                    No such link
                  </Button>
                </li>
              ))}
            </ul>
          )}
          {!survey.complete && nextCard}
          {result && !next && <Settled result={result} skipped={skipped.length} onAgain={() => setSkipped([])} />}
        </div>
        <div className="survey-after">
          {narrow && takes}
          {result && <Departures job={job} doc={doc} survey={survey} result={result} revision={taken?.revision} />}
          {result && <Facts doc={doc} survey={survey} result={result} onTake={writing.take} />}
        </div>
      </div>
    </main>
  )
}

function named(text: string | undefined): CoreName | undefined {
  const [cable, core] = text?.split('.') ?? []
  return cable && core ? { cable, core } : undefined
}

/** How far it is: of how many conductors it is certain, likely, open where they go. */
function Tally({ cores, all, old }: { cores?: readonly CoreStanding[]; all: number; old: boolean }) {
  if (all === 0) return <p className="survey-tally quiet">Nothing written down yet</p>
  const count = (sure: CoreStanding['sure']) => cores?.filter((core) => core.sure === sure).length ?? 0
  return (
    <p className={old ? 'survey-tally old' : 'survey-tally'} role="status">
      <span>
        <strong>{all}</strong> conductors
      </span>
      {(['certain', 'likely', 'open'] as const).map((sure) => (
        <span key={sure} data-sure={sure}>
          <strong>{count(sure)}</strong> <SureMark sure={sure} share={0} />
        </span>
      ))}
      {old && <span className="quiet">working it out</span>}
    </p>
  )
}

function Begin({ planned, onCount }: { planned?: number; onCount: (count: number) => void }) {
  return (
    <section className="sheet survey-begin" aria-label="How many terminals has the box?">
      <h2>How many terminals has the box?</h2>
      <div className="write-acts">
        {[...new Set([10, 12, 20, 30, ...(planned === undefined ? [] : [planned])])]
          .sort((a, b) => a - b)
          .map((count) => (
            <Button key={count} size="lg" variant="outline-primary" onClick={() => onCount(count)}>
              {count}
            </Button>
          ))}
      </div>
      <p>
        Then each cable that comes in, conductor by conductor: where it sits. In any order; what is not seen stays open.
        Are these the right devices? They are those of the <Link to="../brief">Brief</Link>: put them right there first.
      </p>
    </section>
  )
}

function Settled({ result, skipped, onAgain }: { result: Surveyed; skipped: number; onAgain: () => void }) {
  const open = result.cores.filter(({ sure }) => sure !== 'certain').length
  return (
    <section className="sheet survey-next" role="status">
      <p className="next-act">{open === 0 ? 'Every conductor is certain' : 'No look is left that tells more'}</p>
      <p>
        {open === 0
          ? 'Make it the wiring as found, and check it.'
          : `${open} stay as they are: likely or open. Make it the wiring as found; what is likely is marked as assumed there.`}
      </p>
      {skipped > 0 && (
        <Button variant="outline-primary" onClick={onAgain}>
          Look again at the {skipped} that could not be done
        </Button>
      )}
    </section>
  )
}

interface TakeOverProps {
  taken: boolean
  result: Surveyed
  old: boolean
  onTake: () => Promise<void>
}

/** The wiring as found, made of the survey: asked once, since it takes the place of the job's wiring. */
function TakeOver({ taken, result, old, onTake }: TakeOverProps) {
  const [asking, setAsking] = useState(false)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string>()
  const likely = result.cores.filter(({ sure }) => sure === 'likely').length
  const open = result.cores.filter(({ sure }) => sure === 'open').length
  if (!asking)
    return (
      <div className="take-over no-print">
        {taken && (
          <span>
            It is the wiring as found. <Link to="../checks">Checks</Link> · <Link to="../bench">Bench</Link>
          </span>
        )}
        <Button variant={taken ? 'outline-primary' : 'primary'} onClick={() => setAsking(true)}>
          {taken ? 'Make it so again' : 'Make it the wiring as found'}
        </Button>
      </div>
    )
  return (
    <div className="take-over asking no-print" role="group" aria-label="Make it the wiring as found">
      <p>
        The job’s wiring becomes what was seen; what it is now is kept.{' '}
        {likely > 0 && `${likely} likely ends are marked as assumed. `}
        {open > 0 && `${open} ends stay unknown.`}
      </p>
      <Button
        disabled={busy || old}
        onClick={() => {
          setBusy(true)
          setProblem(undefined)
          onTake()
            .then(() => setAsking(false))
            .catch((error: Error) => setProblem(errorText(error)))
            .finally(() => setBusy(false))
        }}
      >
        Yes, as found
      </Button>
      <Button variant="outline-dark" onClick={() => setAsking(false)}>
        Not yet
      </Button>
      {problem !== undefined && (
        <p role="alert" className="text-danger">
          Not finished: {problem}
        </p>
      )}
    </div>
  )
}
