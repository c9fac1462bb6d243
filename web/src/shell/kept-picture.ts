import type { PhotoWrite } from '@nobbet/contract'

/** The longer side of a kept photo, pixels: a terminal's number is still read. */
const longest = 1600

/** The longer side of the one in a row of photos. */
const longestSmall = 240

/** A photo as it is kept: no larger than it need be, as JPEG data addresses. */
export async function keptPicture(file: File): Promise<Pick<PhotoWrite, 'image' | 'thumbnail'>> {
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
