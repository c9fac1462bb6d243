import { firstWiring } from '@nobbet/contract'
import { useRef } from 'react'
import { useNavigate } from 'react-router'
import { v4 as newId } from 'uuid'
import { useSaveJob } from '../api/hooks'
import { BriefForm, emptyBrief } from './brief-form'
import { firstStation } from '../shell/last-place'
import { SaveFailed } from './save-failed'

/** A site and what is fitted; the wiring is laid out from that and the job opens at its plan. */
export function NewJobPage() {
  const navigate = useNavigate()
  const save = useSaveJob()
  // One id for all tries: a write whose answer was lost is repeated, not doubled.
  const id = useRef(newId())
  return (
    <main className="page">
      <h1>New job</h1>
      <BriefForm
        start={emptyBrief}
        saveLabel="Make the job and lay out its wiring"
        busy={save.isPending}
        failure={save.error && <SaveFailed error={save.error} />}
        onSave={(brief) => {
          const installation = firstWiring(brief, documentId(id.current))
          save.mutate(
            {
              job: id.current,
              write: { brief, status: 'open', draft: { installation, over: null } },
              over: 'new',
            },
            { onSuccess: () => void navigate(`/jobs/${id.current}/${firstStation(brief.kind)}`) },
          )
        }}
      />
    </main>
  )
}

/** A document's id has at most 40 characters; a uuid has 36. */
const documentId = (job: string) => job.slice(0, 40)
