import type { Revision } from '@nobbet/contract'
import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { errorText } from '../api/client'
import { PhotoRow } from '../shell/photo-row'
import { usePhotosOf } from '../shell/use-photos-of'

const megabytes = (bytes: number) => `${Math.round(bytes / 1e6)} MB`

/** Photos pinned to one revision. */
export function Photos({ job, revision }: { job: string; revision: Revision }) {
  const { photos, room, error, add, takeDown } = usePhotosOf(job)
  const [caption, setCaption] = useState('')
  const [problem, setProblem] = useState<string>()
  const mine = photos.filter((p) => p.revision === revision.id)
  const pin = async (file: File) => {
    try {
      setProblem(undefined)
      await add(file, { revision: revision.id, caption: caption.trim() })
      setCaption('')
    } catch {
      setProblem(`"${file.name}" is no picture that this browser can read.`)
    }
  }
  return (
    <section className="photos" aria-label={`Photos of ${revision.name}`}>
      <h3>Photos of “{revision.name}”</h3>
      <PhotoRow photos={mine} onTakeDown={takeDown} />
      {room && room.used > 0.8 * room.most && (
        <p role="status" className="text-danger">
          Photos of all jobs take {megabytes(room.used)} of {megabytes(room.most)}. Take down what is not needed any
          more.
        </p>
      )}
      {error && <p className="quiet">Photos that are not shown: {errorText(error)}</p>}
      <div className="bench-add">
        <Form.Control
          aria-label="Caption of the photo"
          placeholder="What it shows"
          value={caption}
          maxLength={200}
          onChange={(e) => setCaption(e.target.value)}
        />
        <Form.Control
          type="file"
          accept="image/*"
          capture="environment"
          aria-label="Pin a photo"
          onChange={(event) => {
            const input = event.target as HTMLInputElement
            const [file] = input.files ?? []
            if (file) void pin(file)
            input.value = ''
          }}
        />
      </div>
      {problem && (
        <p role="alert" className="text-danger">
          Not pinned: {problem}
        </p>
      )}
    </section>
  )
}
