import type { ReportPhoto } from './report'

/** The longer side of a photo on paper, pixels: two to a line of A4. */
const longest = 1000

/** A photo as paper takes it: a JPEG within itself, the ring about its spot drawn into it. Throws where it cannot be fetched or read. */
export async function paperPhoto(photo: ReportPhoto): Promise<ReportPhoto> {
  const answer = await fetch(photo.image)
  if (!answer.ok) throw new Error(`the photo “${photo.caption || photo.id}” could not be read`)
  const picture = await createImageBitmap(await answer.blob())
  const scale = Math.min(1, longest / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(picture.width * scale)
  canvas.height = Math.round(picture.height * scale)
  const pen = canvas.getContext('2d')
  if (!pen) throw new Error('this browser draws no pictures')
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height)
  if (photo.spot) {
    for (const [width, colour] of [
      [12, '#fff'],
      [6, '#c4320a'],
    ] as const) {
      pen.beginPath()
      pen.arc(photo.spot.x * canvas.width, photo.spot.y * canvas.height, canvas.width / 14, 0, 2 * Math.PI)
      pen.lineWidth = width
      pen.strokeStyle = colour
      pen.stroke()
    }
  }
  return { ...photo, image: canvas.toDataURL('image/jpeg', 0.8) }
}
