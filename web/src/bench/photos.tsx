import { addressOf, errorText } from '../api/client'
import type { PhotoWrite, Revision } from '@nobbet/contract'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { usePhotos } from '../api/hooks'
import { here } from '../store/stores'
import { useJob } from '../store/use-job'

/** The longer side of a kept photo, pixels: a terminal's number is still read. */
const longest = 1600

/** The longer side of the one in a row of photos. */
const longestSmall = 240

/** A photo as it is kept: no larger than it need be, as JPEG data addresses. */
async function kept(file: File): Promise<Pick<PhotoWrite, 'image' | 'thumbnail'>> {
  const picture = await createImageBitmap(file)
  const drawn = (longer: number, quality: number) => {
    const scale = Math.min(1, longer / Math.max(picture.width, picture.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(picture.width * scale)
    canvas.height = Math.round(picture.height * scale)
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
    return canvas.toDataURL('image/jpeg', quality)
  }
  return { image: drawn(longest, 0.82), thumbnail: drawn(longestSmall, 0.7) }
}

const megabytes = (bytes: number) => `${Math.round(bytes / 1e6)} MB`

/** Photos pinned to one revision. */
export function Photos({ job, revision }: { job: string; revision: Revision }) {
  const { photos: unsent, store } = useJob(job)
  const photos = usePhotos(job, unsent.length)
  const [caption, setCaption] = useState('')
  const [problem, setProblem] = useState<string>()
  const pictures = useWaitingPictures(unsent.flatMap((p) => (p.pin ? [p.id] : [])))
  const waiting = unsent.flatMap(({ id, pin, at }) => {
    const image = pictures[id]
    return pin && image ? [{ id, ...pin, image, small: image, createdAt: at }] : []
  })
  const down = new Set(unsent.flatMap((p) => (p.pin ? [] : [p.id])))
  const known = (photos.data?.photos ?? [])
    .filter((p) => !waiting.some((w) => w.id === p.id))
    .map((p) => ({
      ...p,
      image: addressOf('readImage', { job, photo: p.id }),
      small: addressOf('readThumbnail', { job, photo: p.id }),
    }))
  const room = photos.data?.room
  const mine = [...known, ...waiting].filter((p) => p.revision === revision.id && !down.has(p.id))
  const pin = async (file: File) => {
    try {
      const pictures = await kept(file)
      setProblem(undefined)
      await store.photo(newId(), { revision: revision.id, caption: caption.trim(), ...pictures })
      setCaption('')
    } catch {
      setProblem(`"${file.name}" is no picture that this browser can read.`)
    }
  }
  return (
    <section className="photos" aria-label={`Photos of ${revision.name}`}>
      <h3>Photos of “{revision.name}”</h3>
      <div className="photo-row">
        {mine.map((photo) => (
          <figure key={photo.id}>
            <a href={photo.image} download={`${photo.id}.jpg`}>
              <img src={photo.small} loading="lazy" alt={photo.caption || 'Photo without a caption'} />
            </a>
            <figcaption>
              {photo.caption}{' '}
              <Button size="sm" variant="link" onClick={() => void store.photo(photo.id)}>
                Take down
              </Button>
            </figcaption>
          </figure>
        ))}
      </div>
      {room && room.used > 0.8 * room.most && (
        <p role="status" className="text-danger">
          Photos of all jobs take {megabytes(room.used)} of {megabytes(room.most)}. Take down what is not needed any
          more.
        </p>
      )}
      {photos.error && <p className="quiet">Photos that are not shown: {errorText(photos.error)}</p>}
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

/** Pictures of photos that are not sent yet, by the photo's id. */
function useWaitingPictures(ids: readonly string[]): Record<string, string | undefined> {
  const { data = {} } = useQuery({
    queryKey: ['waiting-pictures', ...ids],
    networkMode: 'always',
    queryFn: async () =>
      Object.fromEntries(await Promise.all(ids.map(async (id) => [id, await here.picture(id)] as const))),
  })
  return data
}
