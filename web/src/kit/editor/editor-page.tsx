import type { OwnType } from '@nobbet/contract'
import { blankType, deviceTypes, isShipped, type DeviceType } from '@nobbet/core'
import { useEffect } from 'react'
import { Alert, Button } from 'react-bootstrap'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { ApiError } from '../../api/client'
import { SaveFailed } from './save-failed'
import { Failed, Loading } from '../../shell/notes'
import { asType, freeTypeId, useOwnTypes, useSaveType } from '../own-types'
import { TypeEditor } from './type-editor'
import { useTypeDraft } from './use-type-draft'

/** A new device type, from nothing or as a copy; or one of one's own, to be changed. */
export function EditorPage() {
  const { type: id } = useParams()
  const [search] = useSearchParams()
  const from = search.get('from')
  const { data, error, refetch } = useOwnTypes()
  useEffect(() => {
    document.title = 'Device type · Kit · Nobbet'
  }, [])
  if (error) return <Failed error={error} retry={() => void refetch()} />
  if (!data) return <Loading what="device types" />
  const own = data.find((t) => t.id === id)
  if (id && !own)
    return (
      <main className="page">
        <h1>No device type of your own of that name</h1>
        <p>
          It may have been taken out. <Link to="/kit">Kit</Link> lists every one.
        </p>
      </main>
    )
  if (own)
    return (
      <Editor
        key={`${own.id} ${own.version}`}
        draftKey={`${own.id} ${own.version}`}
        start={asType(own)}
        own={own}
        all={data}
      />
    )
  const template = [...deviceTypes, ...data.map(asType)].find((t) => t.id === from)
  return <Editor key={from ?? ''} draftKey={`new ${from ?? ''}`} start={startOf(template, data)} all={data} />
}

function startOf(template: DeviceType | undefined, own: readonly OwnType[]): DeviceType {
  if (!template) return blankType(freeTypeId('own-device', own))
  return { ...template, id: freeTypeId(template.id, own), version: 1, name: `${template.name}, own` }
}

interface EditorProps {
  draftKey: string
  start: DeviceType
  own?: OwnType
  all: readonly OwnType[]
}

function Editor({ draftKey, start, own, all }: EditorProps) {
  const draft = useTypeDraft(draftKey, start)
  const save = useSaveType()
  const go = useNavigate()
  const write = (type: DeviceType, over: number | 'new') =>
    save.mutate(
      { type, over },
      {
        onSuccess: () => {
          draft.forget()
          void go(`/kit/${type.id}`)
        },
      },
    )
  const changed = save.error instanceof ApiError && save.error.status === 412
  const latest = all.find((t) => t.id === draft.type.id)
  return (
    <TypeEditor
      draft={draft}
      isNew={own === undefined}
      busy={save.isPending}
      taken={(id) => isShipped(id) || all.some((t) => t.id === id)}
      onSave={(type) => write(type, own?.version ?? 'new')}
      onLeave={() => {
        draft.forget()
        void go(own ? `/kit/${own.id}` : '/kit')
      }}
      trouble={
        changed ? (
          <Alert variant="warning">
            <strong>Somebody has changed this device type meanwhile.</strong> What you made is still here.
            <div className="mt-2">
              <Button onClick={() => draft.whole && write(draft.whole, latest?.version ?? 'new')}>
                Save mine as the newest version
              </Button>
            </div>
          </Alert>
        ) : (
          save.error && <SaveFailed error={save.error} />
        )
      }
    />
  )
}
