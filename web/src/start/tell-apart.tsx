/** What one counts on a thing to know its kind: ports of its body, conductors of its lead. */
export interface Counted {
  ports?: 1 | 2 | 3
  conductors?: number
  /** It has a lever, which a normally open valve has not. */
  lever?: boolean
  /** How many of it there are. */
  of?: 1 | 2
}

/** A valve as one sees it: its ports numbered, the conductors of its lead as so many strokes, its lever. */
export function TellApart({ ports = 2, conductors = 5, lever = true, of = 1 }: Counted) {
  return (
    <svg
      className="tell-apart"
      viewBox={`0 0 ${of * 112 - 12} 84`}
      width={of * 112 - 12}
      height="84"
      aria-hidden="true"
    >
      {Array.from({ length: of }, (_, i) => (
        <g key={i} transform={`translate(${i * 112} 0)`}>
          <rect x="30" y="8" width="36" height="26" rx="3" />
          {lever && <path d="M48 8V1h14" />}
          {Array.from({ length: conductors }, (_, k) => (
            <path key={k} className="conductor" d={`M66 ${12 + k * 4.5}c10 0 10 ${(k - 2) * 2} 22 ${(k - 2) * 2}`} />
          ))}
          <path d="M48 34v10" />
          <path className="body" d="M8 46h80v14H8z" />
          {ports > 1 && <Port x={8} y={53} no={1} />}
          <Port x={88} y={53} no={ports > 1 ? 2 : 1} />
          {ports === 3 && (
            <>
              <path className="body" d="M41 60h14v14H41z" />
              <Port x={48} y={74} no={3} />
            </>
          )}
        </g>
      ))}
    </svg>
  )
}

const Port = ({ x, y, no }: { x: number; y: number; no: number }) => (
  <>
    <circle cx={x} cy={y} r="8" className="port" />
    <text x={x} y={y + 4} textAnchor="middle">
      {no}
    </text>
  </>
)

/** A programmer or receiver: its channels, counted by their lamps. */
export const Channels = ({ radio }: { radio: boolean }) => (
  <svg className="tell-apart" viewBox="0 0 100 84" width="100" height="84" aria-hidden="true">
    <rect x="10" y="20" width="80" height="50" rx="4" />
    {[1, 2].map((no) => (
      <g key={no}>
        <circle cx={no * 30 + 5} cy="38" r="6" className="port" />
        <text x={no * 30 + 5} y="62" textAnchor="middle">
          {no}
        </text>
      </g>
    ))}
    {radio && <path d="M40 14a14 14 0 0 1 20 0M45 9a7 7 0 0 1 10 0M50 20v-6" />}
  </svg>
)
