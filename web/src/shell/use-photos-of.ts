import type { Photo, PhotoList, PhotoWrite } from '@nobbet/contract'
import { useQuery } from '@tanstack/react-query'
import { v4 as newId } from 'uuid'
import { addressOf } from '../api/client'
import { usePhotos } from '../api/hooks'
import { here } from '../store/stores'
import { useJob } from '../store/use-job'
import { keptPicture } from './kept-picture'

/** A photo that can be shown: at the server, or still waiting here. */
export interface ShownPhoto extends Omit<Photo, 'type' | 'bytes'> {
  image: string
  small: string
}

export interface PhotosHandle {
  photos: ShownPhoto[]
  room?: PhotoList['room']
  error: Error | null
  /** Throws where the file is no picture that this browser can read. */
  add(file: File, pin: Omit<PhotoWrite, 'image' | 'thumbnail'>): Promise<void>
  takeDown(photo: string): void
}

/** The photos of a job, with those that are not sent yet. */
export function usePhotosOf(job: string): PhotosHandle {
  const { photos: unsent, store } = useJob(job)
  const { data, error } = usePhotos(job, unsent.length)
  const pictures = useWaitingPictures(unsent.flatMap((p) => (p.pin ? [p.id] : [])))
  const waiting = unsent.flatMap(({ id, pin, at }): ShownPhoto[] => {
    const image = pictures[id]
    return pin && image ? [{ id, ...pin, image, small: image, createdAt: at }] : []
  })
  const down = new Set(unsent.flatMap((p) => (p.pin ? [] : [p.id])))
  const known = (data?.photos ?? [])
    .filter((p) => !waiting.some((w) => w.id === p.id))
    .map((p): ShownPhoto => ({
      ...p,
      image: addressOf('readImage', { job, photo: p.id }),
      small: addressOf('readThumbnail', { job, photo: p.id }),
    }))
  return {
    photos: [...known, ...waiting].filter(({ id }) => !down.has(id)),
    room: data?.room,
    error,
    add: async (file, pin) => store.photo(newId(), { ...pin, ...(await keptPicture(file)) }),
    takeDown: (photo) => void store.photo(photo),
  }
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
