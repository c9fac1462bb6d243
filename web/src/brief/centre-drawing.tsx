import { centreKind, type CentreKindId } from '@nobbet/core'

const range = (n: number) => Array.from({ length: n }, (_, i) => i)
const [width, height] = [120, 44]

/** A kind of wiring centre, drawn as plainly as it can be told from the others: terminals counted, ways as holes. */
export function CentreDrawing({ kind }: { kind: CentreKindId }) {
  const { by, terminals, ways, cascade, cut = false, fused = false } = centreKind(kind)
  return (
    <svg className="centre-drawing" viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
      {by === 'levers' ? (
        <Levers />
      ) : by === 'device' ? (
        <Rows cut={cut} fused={fused} />
      ) : cascade ? (
        <Cascade />
      ) : (
        <Strip terminals={terminals ?? 15} ways={ways} endless={terminals === undefined} />
      )}
    </svg>
  )
}

/** Terminals side by side; one without an end runs out of the picture. */
function Strip({ terminals, ways, endless }: { terminals: number; ways: number; endless: boolean }) {
  const pitch = endless ? 8 : Math.min(9.6, (width - 4) / terminals)
  const holes = ways === 1 ? [22] : [9, 15, 29, 35]
  return (
    <>
      {range(terminals).map((i) => (
        <g key={i} transform={`translate(${2 + i * pitch} 0)`}>
          <rect x="0.6" y="4" width={pitch - 1.2} height="36" rx="1.5" />
          {holes.map((y) => (
            <circle key={y} cx={pitch / 2} cy={y} r="1.7" />
          ))}
        </g>
      ))}
    </>
  )
}

/** Two strips, and the cable between them. */
function Cascade() {
  return (
    <>
      {[2, 70].map((x) => (
        <g key={x} transform={`translate(${x} 0)`}>
          {range(6).map((i) => (
            <g key={i} transform={`translate(${i * 8} 0)`}>
              <rect x="0.6" y="4" width="6.8" height="36" rx="1.5" />
              {[9, 15, 29, 35].map((y) => (
                <circle key={y} cx="4" cy={y} r="1.5" />
              ))}
            </g>
          ))}
        </g>
      ))}
      <path className="between" d="M50 22 h20" />
    </>
  )
}

/** Three bars, and connectors of two, three and five ways. */
function Levers() {
  return (
    <>
      {range(3).map((bar) => (
        <g key={bar} transform={`translate(2 ${3 + bar * 8})`}>
          <rect width="76" height="6" rx="1" />
          {range(8).map((i) => (
            <circle key={i} cx={6 + i * 9} cy="3" r="1.4" />
          ))}
        </g>
      ))}
      {[
        [2, 2],
        [20, 3],
        [46, 5],
        [86, 2],
      ].map(([x, n]) => (
        <g key={x} transform={`translate(${x} 30)`}>
          <rect width={n * 7 + 1} height="11" rx="2" />
          {range(n).map((i) => (
            <path key={i} d={`M${2 + i * 7} 3 h4 v5`} />
          ))}
        </g>
      ))}
    </>
  )
}

/** A row of terminals to each device, on one board; with links from row to row, whole and cut, and a fuse, where it has those. */
function Rows({ cut, fused }: { cut: boolean; fused: boolean }) {
  return (
    <>
      <rect x="1" y="1" width={width - 2} height={height - 2} rx="3" />
      {range(fused ? 5 : 6).map((row) => (
        <g key={row} transform={`translate(${6 + (row % 2) * 57} ${5 + Math.floor(row / 2) * 13})`}>
          <rect className="device" width="10" height="9" rx="1.5" />
          {range(5).map((i) => (
            <circle key={i} cx={16 + i * 7} cy="4.5" r="2" />
          ))}
          {cut && row < 4 && <path className="between" d="M23 7 v8 M37 7 v2.2 M37 12.8 v2.2" />}
        </g>
      ))}
      {fused && (
        <g transform="translate(63 31)">
          <rect className="device" x="10" width="24" height="9" rx="1.5" />
          <path className="between" d="M0 4.5 h44" />
        </g>
      )}
    </>
  )
}
