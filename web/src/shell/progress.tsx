/** How far a long run is; without a share, that it goes on. */
export function Progress({ label, share }: { label: string; share?: number }) {
  return <progress className="run-bar" aria-label={label} max={1} value={share} />
}
