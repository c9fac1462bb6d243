import type { Photo } from '@nobbet/contract'

/** A photo with a ring on what is meant. */
export function Spotted({ src, caption, spot }: { src: string; caption: string; spot?: Photo['spot'] }) {
  return (
    <span className="spotted">
      <img src={src} loading="lazy" alt={caption || 'Photo without a caption'} />
      {spot && <span className="spot" style={{ left: `${spot.x * 100}%`, top: `${spot.y * 100}%` }} aria-hidden />}
    </span>
  )
}
