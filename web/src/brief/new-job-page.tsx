import { firstWiring, type JobBrief } from '@nobbet/contract'
import type { Installation } from '@nobbet/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { v4 as newId } from 'uuid'
import { BriefForm, emptyBrief } from './brief-form'
import { LidPhoto } from './lid-photo'
import { firstStation } from '../shell/last-place'
import { storeOf } from '../store/stores'

/** A site and what is fitted; the wiring is laid out from that and the job opens where work on it begins, connection or none. */
export function NewJobPage() {
  const navigate = useNavigate()
  const [busy, setBusy] = useState(false)
  /** A document's id has at most 40 characters; a uuid has 36. */
  const open = async (brief: JobBrief, wiringOf: (id: string) => Installation) => {
    setBusy(true)
    const id = newId()
    const store = storeOf(id)
    await store.record({ do: 'open', brief, status: 'open', wiring: wiringOf(id) })
    return { id, store }
  }
  return (
    <main className="page">
      <h1>New job</h1>
      <LidPhoto
        busy={busy}
        onRead={(brief, wiring) =>
          void open(brief, (id) => ({ ...wiring, id })).then(async ({ id, store }) => {
            await store.record({ do: 'keep', revision: newId(), kind: 'planned', name: 'As the lid sheet says' })
            return navigate(`/jobs/${id}/plan`)
          })
        }
      />
      <BriefForm
        start={emptyBrief}
        saveLabel="Make the job and lay out its wiring"
        busy={busy}
        onSave={(brief) =>
          void open(brief, (id) => firstWiring(brief, id)).then(({ id }) =>
            navigate(`/jobs/${id}/${firstStation(brief.kind)}`),
          )
        }
      />
    </main>
  )
}
