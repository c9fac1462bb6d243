import { useQueryClient } from '@tanstack/react-query'
import type { Job, JobBrief } from '@nobbet/contract'
import { planTwoPort } from '@nobbet/core'
import { useState } from 'react'
import { Alert, Button } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { ApiError } from '../api/client'
import { useDraft, useJob, useSaveJob } from '../api/hooks'
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
  const draft = useDraft(base.id)
  const queries = useQueryClient()
  const [pending, setPending] = useState<JobBrief>()

  const write = (brief: JobBrief, over: number) => {
    const refit = JSON.stringify(brief.fitted) !== JSON.stringify(base.brief.fitted)
    const plan = refit
      ? {
          installation: planTwoPort(brief.fitted, base.id.slice(0, 40), brief.site),
          over: draft.data?.version ?? ('new' as const),
        }
      : undefined
    setPending(brief)
    save.mutate(
      { job: base.id, write: { brief, status: base.status }, over, plan },
      { onSuccess: ({ saved, draft: laidOut }) => onBase(saved, laidOut ? 'wiring' : 'brief') },
    )
  }
  const theirs = async () => {
    await queries.invalidateQueries({ queryKey: ['jobs', base.id] })
    const now = queries.getQueryData<Job>(['jobs', base.id])
    if (now) onBase(now)
    save.reset()
  }
  const mine = async () => {
    await queries.invalidateQueries({ queryKey: ['jobs', base.id] })
    const now = queries.getQueryData<Job>(['jobs', base.id])
    if (now && pending) write(pending, now.version)
  }

  const changed = save.error instanceof ApiError && save.error.status === 412
  return (
    <>
      <BriefForm
        start={base.brief}
        saveLabel="Save the brief"
        busy={save.isPending}
        onSave={(brief) => write(brief, base.version)}
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
