import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { firstWiring, type Job, type JobBrief } from '@nobbet/contract'
import { useState } from 'react'
import { Alert, Button } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { ApiError } from '../api/client'
import { draftQuery, jobQuery, useJob, useSaveJob } from '../api/hooks'
import { Failed, Loading } from '../shell/notes'
import { BriefForm } from './brief-form'
import { SaveFailed } from './save-failed'

export function BriefPage() {
  const { job = '' } = useParams()
  const { data, error, isPending, refetch } = useJob(job)
  // What the user started from stays, although a newer version may arrive beneath: saving then answers 412.
  const [base, setBase] = useState<Job>()
  const [saved, setSaved] = useState<'brief' | 'wiring'>()
  if (data && (!base || base.id !== data.id)) setBase(data)
  if (isPending) return <Loading what="the brief" />
  if (error) return <Failed error={error} retry={() => void refetch()} />
  return (
    <main className="page">
      <h1>Brief</h1>
      {saved && (
        <Alert variant="success" role="status">
          Saved.{' '}
          {saved === 'wiring' && (
            <>
              The wiring was laid out anew. <Link to="../plan">See the plan</Link>
            </>
          )}
        </Alert>
      )}
      {base && (
        <Brief
          key={`${base.id} ${base.version}`}
          base={base}
          onBase={(now, what) => {
            setBase(now)
            setSaved(what)
          }}
        />
      )}
    </main>
  )
}

interface BriefProps {
  base: Job
  /** Another state of the job to go on from, and what was saved to come to it. */
  onBase: (job: Job, saved?: 'brief' | 'wiring') => void
}

function Brief({ base, onBase }: BriefProps) {
  const save = useSaveJob()
  const queries = useQueryClient()
  const [pending, setPending] = useState<JobBrief>()

  /** Writes over a state of the job; where what is fitted differs from it, the wiring is laid out anew. */
  const write = async (brief: JobBrief, over: Job) => {
    const refit = JSON.stringify(brief.fitted) !== JSON.stringify(over.brief.fitted)
    const draft = refit
      ? {
          installation: firstWiring(brief, base.id.slice(0, 40)),
          over: await draftVersion(queries, base.id),
        }
      : undefined
    setPending(brief)
    save.mutate(
      { job: base.id, write: { brief, status: over.status, draft }, over: over.version },
      { onSuccess: (saved) => onBase(saved, draft ? 'wiring' : 'brief') },
    )
  }
  const latest = () => queries.fetchQuery({ ...jobQuery(base.id), staleTime: 0 })
  const theirs = async () => {
    onBase(await latest())
    save.reset()
  }
  const mine = async () => {
    if (pending) await write(pending, await latest())
  }

  const changed = save.error instanceof ApiError && save.error.status === 412
  return (
    <>
      <BriefForm
        start={base.brief}
        saveLabel="Save the brief"
        busy={save.isPending}
        onSave={(brief) => void write(brief, base)}
        failure={
          changed ? (
            <Alert variant="warning">
              <strong>Somebody has changed this job meanwhile.</strong> What you entered is still here.
              <div className="mt-2 d-flex gap-2 flex-wrap">
                <Button onClick={() => void mine()}>Save mine over theirs</Button>
                <Button variant="outline-primary" onClick={() => void theirs()}>
                  Show theirs instead
                </Button>
              </div>
            </Alert>
          ) : (
            save.error && <SaveFailed error={save.error} />
          )
        }
      />
      <p className="quiet mt-3">
        Changing what is fitted lays the wiring out anew. Findings stay; those about something that is no longer there
        are set aside.
      </p>
    </>
  )
}

/** The version of the job's wiring as the server has it now; null where there is none. */
async function draftVersion(queries: QueryClient, job: string): Promise<number | null> {
  try {
    return (await queries.fetchQuery({ ...draftQuery(job), staleTime: 0 })).version
  } catch (error) {
    if (error instanceof ApiError && error.status === 404) return null
    throw error
  }
}
