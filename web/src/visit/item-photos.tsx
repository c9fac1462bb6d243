import type { Photo } from '@nobbet/contract'
import { Camera, Images } from 'lucide-react'
import { useRef, useState } from 'react'
import { Button } from 'react-bootstrap'
import { usePhotosOf } from '../shell/use-photos-of'
import { MarkSpot } from './mark-spot'
import { Spotted } from './spotted'

/** The photos of a line of the record; a new one is marked on its spot before it is kept. */
export function ItemPhotos({ job, item, visit }: { job: string; item?: string; visit?: string }) {
  const { photos, error, add, takeDown } = usePhotosOf(job)
  const [file, setFile] = useState<File>()
  const [problem, setProblem] = useState<string>()
  const camera = useRef<HTMLInputElement>(null)
  const gallery = useRef<HTMLInputElement>(null)
  const mine = photos.filter((photo) => photo.item === item && (item !== undefined || photo.revision === undefined))
  const take = (event: React.ChangeEvent<HTMLInputElement>) => {
    const [picked] = event.target.files ?? []
    if (picked) setFile(picked)
    event.target.value = ''
  }
  const keep = async (picked: File, caption: string, spot: Photo['spot']) => {
    setFile(undefined)
    setProblem(undefined)
    try {
      await add(picked, { caption, ...(item && { item }), ...(visit && { visit }), ...(spot && { spot }) })
    } catch {
      setProblem(`“${picked.name}” is no picture that this browser can read.`)
    }
  }
  return (
    <div className="item-photos">
      {mine.map((photo) => (
        <figure key={photo.id} data-photo={photo.id}>
          <a href={photo.image} download={`${photo.id}.jpg`}>
            <Spotted src={photo.small} caption={photo.caption} spot={photo.spot} />
          </a>
          <figcaption>
            {photo.caption}{' '}
            <Button size="sm" variant="link" onClick={() => takeDown(photo.id)}>
              Take down
            </Button>
          </figcaption>
        </figure>
      ))}
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label="Photo from the camera"
        onChange={take}
      />
      <input ref={gallery} type="file" accept="image/*" hidden aria-label="Photo from the gallery" onChange={take} />
      <span className="buttons">
        <Button size="sm" variant="outline-dark" onClick={() => camera.current?.click()}>
          <Camera size={16} aria-hidden /> Photo
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => gallery.current?.click()}>
          <Images size={16} aria-hidden /> From the gallery
        </Button>
      </span>
      {error && photos.length === 0 && <span className="quiet">Photos at the server are not shown now.</span>}
      {problem && (
        <p role="alert" className="refused">
          {problem}
        </p>
      )}
      {file && (
        <MarkSpot
          file={file}
          onLeave={() => setFile(undefined)}
          onKeep={(caption, spot) => void keep(file, caption, spot)}
        />
      )}
    </div>
  )
}
