import { withBrief, type JobBrief, type JobDocument } from '@nobbet/contract'
import { EditError, same, type Installation } from '@nobbet/core'
import { useState } from 'react'
import { Alert } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { v4 as newId } from 'uuid'
import { Failed, Loading } from '../shell/notes'
import type { JobStore } from '../store/job-store'
import { useJob } from '../store/use-job'
import { WiringTools } from '../wiring/saving-note'
import { BriefForm } from './brief-form'
import { JobLog } from './job-log'
import { NewPlan } from './new-plan'

export function BriefPage() {
  const { job = '' } = useParams()
  const view = useJob(job)
  const { state, error, store } = view
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the brief" />
  return (
    <main className="page">
      <div className="brief-head">
        <h1>Brief</h1>
        <span className="work-tools">
          <WiringTools view={view} undo={store.undo} redo={store.redo} />
        </span>
      </div>
      <Brief key={job} store={store} document={state.document} />
      <JobLog job={job} view={view} store={store} />
    </main>
  )
}

/** What was entered would lay the wiring out otherwise. */
interface Proposal {
  brief: JobBrief
  document: JobDocument
  plan: Installation
}

function Brief({ store, document }: { store: JobStore; document: JobDocument }) {
  /** What the form began with: what is entered is told by what differs from it. */
  const [start, setStart] = useState(document)
  const [round, setRound] = useState(0)
  const [said, setSaid] = useState<'saved' | 'names' | 'laid'>()
  const [problem, setProblem] = useState<string>()
  const [proposal, setProposal] = useState<Proposal>()
  // The brief was changed elsewhere, or a step taken back: the form follows as long as nothing is entered in it.
  const [touched, setTouched] = useState(false)
  if (!touched && !proposal && document !== start && document.brief !== start.brief) {
    setStart(document)
    setRound(round + 1)
  }

  const put = async (label: string, wanted: JobDocument, what: typeof said, before?: () => Promise<void>) => {
    try {
      await before?.()
      const stands = await store.editFrom(label, start, wanted)
      setProblem(undefined)
      setProposal(undefined)
      setTouched(false)
      const now = store.current().state?.document
      if (!now) return
      setStart(now)
      if (stands) setSaid(what)
      // Somebody else has been at it, too: the form shows what stands.
      if (!same(now.brief, wanted.brief)) setRound(round + 1)
    } catch (error) {
      if (!(error instanceof EditError)) throw error
      setProblem(error.message)
    }
  }
  const save = (brief: JobBrief) => {
    setSaid(undefined)
    const refit = withBrief(start, brief)
    if (refit.is === 'new-plan') return setProposal({ brief, document: refit.document, plan: refit.plan })
    const named = !same(refit.document.wiring, start.wiring)
    void put('Brief', refit.document, named ? 'names' : 'saved')
  }

  return (
    <>
      {said && (
        <Alert variant="success" role="status">
          {said === 'saved' && 'Saved.'}
          {said === 'names' && 'Saved. The wiring has the new names; nothing that was recorded of it has changed.'}
          {said === 'laid' && (
            <>
              Saved. The wiring was laid out anew; the one before is kept as a revision.{' '}
              <Link to="../plan">See the plan</Link>
            </>
          )}
        </Alert>
      )}
      <div
        className={proposal ? 'd-none' : ''}
        onChange={() => setTouched(true)}
        onClick={(event) => {
          // A circuit more or less is entered by a button.
          if ((event.target as Element).closest('button')) setTouched(true)
        }}
      >
        <BriefForm
          key={round}
          start={start.brief}
          saveLabel="Save the brief"
          busy={false}
          now={document.wiring}
          onSave={save}
          failure={
            problem && (
              <Alert variant="danger">
                <strong>Not saved.</strong> {problem}. What you entered is still here.
              </Alert>
            )
          }
        />
      </div>
      {proposal && (
        <NewPlan
          now={document.wiring}
          plan={proposal.plan}
          onLay={() =>
            void put('Wiring laid out anew', { ...proposal.document, wiring: proposal.plan }, 'laid', () =>
              store.record({ do: 'keep', revision: newId(), kind: 'as-found', name: 'Before it was laid out anew' }),
            )
          }
          onBriefOnly={() => void put('Brief', proposal.document, 'saved')}
          onBack={() => setProposal(undefined)}
        />
      )}
      <p className="quiet mt-3">
        Other names and places are taken over into the wiring as it stands. Another scheme or other devices are laid out
        beside it first, and you are asked.
      </p>
    </>
  )
}
