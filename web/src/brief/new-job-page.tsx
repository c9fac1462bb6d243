import { firstWiring } from '@nobbet/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { v4 as newId } from 'uuid'
import { BriefForm, emptyBrief } from './brief-form'
import { firstStation } from '../shell/last-place'
import { storeOf } from '../store/stores'

/** A site and what is fitted; the wiring is laid out from that and the job opens where work on it begins, connection or none. */
export function NewJobPage() {
  const navigate = useNavigate()
  const [busy, setBusy] = useState(false)
  return (
    <main className="page">
      <h1>New job</h1>
      <BriefForm
        start={emptyBrief}
        saveLabel="Make the job and lay out its wiring"
        busy={busy}
        onSave={(brief) => {
          setBusy(true)
          const id = newId()
          // A document's id has at most 40 characters; a uuid has 36.
          const wiring = firstWiring(brief, id)
          void storeOf(id)
            .record({ do: 'open', brief, status: 'open', wiring })
            .then(() => navigate(`/jobs/${id}/${firstStation(brief.kind)}`))
        }}
      />
    </main>
  )
}
