import type { Photo } from '@nobbet/contract'
import { Camera } from 'lucide-react'
import { lazy, Suspense, useRef, useState } from 'react'
import { v4 as newId } from 'uuid'
import type { JobStore } from '../store/job-store'

/** Only asked for once there is a photo: it is no part of the first screen. */
const MarkSpot = lazy(() => import('./mark-spot').then((m) => ({ default: m.MarkSpot })))

/** A photo for the visit that is open, from the camera or the gallery, wherever in the job one is. */
export function TakePhoto({ store, visit }: { store: JobStore; visit: string }) {
  const input = useRef<HTMLInputElement>(null)
  const [file, setFile] = useState<File>()
  const keep = async (picked: File, caption: string, spot: Photo['spot']) => {
    setFile(undefined)
    try {
      const { keptPicture } = await import('../shell/kept-picture')
      await store.photo(newId(), { caption, visit, ...(spot && { spot }), ...(await keptPicture(picked)) })
    } catch {
      store.refuse(`“${picked.name}” is no picture that this browser can read.`)
    }
  }
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/*"
        hidden
        aria-label="Photo for this visit"
        onChange={(event) => {
          const [picked] = event.target.files ?? []
          if (picked) setFile(picked)
          event.target.value = ''
        }}
      />
      <button
        className="look photo"
        aria-label="Take a photo"
        title="Take a photo"
        onClick={() => input.current?.click()}
      >
        <Camera size={20} aria-hidden />
      </button>
      {file && (
        <Suspense fallback={null}>
          <MarkSpot
            file={file}
            onLeave={() => setFile(undefined)}
            onKeep={(caption, spot) => void keep(file, caption, spot)}
          />
        </Suspense>
      )}
    </>
  )
}
