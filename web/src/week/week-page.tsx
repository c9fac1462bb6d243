import { withProgramme, withPosition, type Installation } from '@nobbet/core'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Alert, Button } from 'react-bootstrap'
import { useParams } from 'react-router'
import { ApiError } from '../api/client'
import { draftQuery, useDraft, useSaveDraft } from '../api/hooks'
import { SaveFailed } from '../brief/save-failed'
import { Failed, Loading } from '../shell/notes'
import { Week } from './week'

/** The week of a job: what is changed in its clocks is saved with its installation. */
export function WeekPage() {
  const { job = '' } = useParams()
  const { data, error, refetch } = useDraft(job)
  if (error) return <Failed error={error} retry={() => void refetch()} />
  if (!data) return <Loading what="the wiring" />
  return <Kept key={job} job={job} installation={data.installation} version={data.version} />
}

interface KeptProps {
  job: string
  installation: Installation
  version: number
}

function Kept({ job, installation, version }: KeptProps) {
  const save = useSaveDraft(job)
  const queries = useQueryClient()
  /** What the user works on, and the version it came from. */
  const [mine, setMine] = useState({ installation, version, saved: installation })
  // Another version has arrived and nothing of one's own is unsaved: go on from that.
  if (version > mine.version && mine.installation === mine.saved)
    setMine({ installation, version, saved: installation })

  const { mutate, isPending, isError } = save
  // One write at a time, always of the newest: a change made while one is on its way goes after it, over its version.
  useEffect(() => {
    if (isPending || isError || mine.installation === mine.saved) return
    const wanted = mine.installation
    mutate(
      { installation: wanted, over: mine.version },
      { onSuccess: (kept) => setMine((m) => ({ ...m, version: kept.version, saved: wanted })) },
    )
  }, [mine, isPending, isError, mutate])
  const change = (wanted: Installation) => setMine((m) => ({ ...m, installation: wanted }))
  const latest = () => queries.fetchQuery({ ...draftQuery(job), staleTime: 0 })
  const theirs = async () => {
    const now = await latest()
    setMine({ installation: now.installation, version: now.version, saved: now.installation })
    save.reset()
  }
  const onto = async () => {
    const now = await latest()
    const wanted = weekOnto(mine.installation, now.installation)
    setMine({ installation: wanted, version: now.version, saved: now.installation })
    save.reset()
  }

  const changed = save.error instanceof ApiError && save.error.status === 412
  return (
    <Week
      installation={mine.installation}
      onChange={change}
      keeping={save.isPending ? 'Saving' : mine.installation === mine.saved ? 'Saved with the job' : 'Not saved yet'}
      trouble={
        changed ? (
          <Alert variant="warning">
            <strong>Somebody has changed this installation meanwhile.</strong> Your week is still here.
            <div className="mt-2 d-flex gap-2 flex-wrap">
              <Button onClick={() => void onto()}>Put my week into theirs</Button>
              <Button variant="outline-primary" onClick={() => void theirs()}>
                Show theirs instead
              </Button>
            </div>
          </Alert>
        ) : (
          save.error && (
            <>
              <SaveFailed error={save.error} />
              <Button className="mb-2" onClick={() => save.reset()}>
                Save again
              </Button>
            </>
          )
        )
      }
    />
  )
}

/** Another state of the installation with these clocks and knobs, of every device that is still there. */
function weekOnto(mine: Installation, theirs: Installation): Installation {
  let result = theirs
  for (const device of mine.devices) {
    if (!theirs.devices.some((d) => d.id === device.id && d.type === device.type)) continue
    for (const [control, programme] of Object.entries(device.programme ?? {}))
      result = withProgramme(result, device.id, control, programme)
    for (const [control, value] of Object.entries(device.positions ?? {}))
      if (typeof value !== 'boolean') result = withPosition(result, device.id, control, value)
  }
  return result
}
