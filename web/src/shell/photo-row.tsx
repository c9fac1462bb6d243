import { Button } from 'react-bootstrap'
import type { ShownPhoto } from './use-photos-of'

/** Photos in a row, each with what it shows; one is opened as a file, or taken down. */
export function PhotoRow({ photos, onTakeDown }: { photos: readonly ShownPhoto[]; onTakeDown: (id: string) => void }) {
  return (
    <div className="photo-row">
      {photos.map((photo) => (
        <figure key={photo.id}>
          <a href={photo.image} download={`${photo.id}.jpg`}>
            <img src={photo.small} loading="lazy" alt={photo.caption || 'Photo without a caption'} />
          </a>
          <figcaption>
            {photo.caption}{' '}
            <Button size="sm" variant="link" onClick={() => onTakeDown(photo.id)}>
              Take down
            </Button>
          </figcaption>
        </figure>
      ))}
    </div>
  )
}
