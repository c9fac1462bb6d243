import type { CircuitKind } from '@nobbet/core'

const drawn: Record<CircuitKind, React.ReactNode> = {
  heating: <path d="M5 5v20M11 5v20M17 5v20M23 5v20M29 5v20M3 8h28M3 22h28" />,
  'hot-water': <path d="M9 27V10a8 8 0 0 1 16 0v17zM25 13h6M25 23h6" />,
  'towel-rails': <path d="M8 3v24M26 3v24M8 7h18M8 12h18M8 17h18M8 23h18" />,
  underfloor: <path d="M3 8h25a3 3 0 0 1 0 6H7a3 3 0 0 0 0 6h24M3 26h28" />,
  later: <path strokeDasharray="4 3" d="M5 5h24v20H5z" />,
}

/** What a circuit warms, as plainly as it can be told from the others. */
export function CircuitDrawing({ kind }: { kind: CircuitKind }) {
  return (
    <svg className="circuit-drawing" viewBox="0 0 34 30" width="34" height="30" aria-hidden="true">
      {drawn[kind]}
    </svg>
  )
}
