import { partWhenText, type DeviceType, type Primitive, type TerminalType } from '@nobbet/core'

const width = 220
const [left, right, middle] = [46, width - 46, width / 2]

/** The parts of a type that join its terminals, each drawn at rest with what makes it change beside it. */
export function ContactDiagram({ type }: { type: DeviceType }) {
  const parts = type.primitives.filter((p) => symbols[p.kind])
  if (parts.length === 0) return <p>It joins nothing to nothing.</p>
  return (
    <ul className="contacts">
      {parts.map((part) => (
        <li key={part.id}>
          {symbols[part.kind]!(type, part)}
          <div>
            <strong>{part.label}</strong>
            <div className="small">{partWhenText(type, part)}</div>
          </div>
        </li>
      ))}
    </ul>
  )
}

type Draw = (type: DeviceType, part: Primitive) => React.ReactNode

const symbols: Partial<Record<Primitive['kind'], Draw>> = {
  contact: (type, p) =>
    p.kind === 'contact' && (
      <Symbol type={type} a={p.a} b={p.b} label={`${p.a} to ${p.b}, open at rest`}>
        <path d={`M${left} 24H${middle - 22}M${middle + 18} 24H${right}`} />
        <path d={`M${middle - 22} 24 ${middle + 14} 8`} className="arm" />
        <Dot x={middle - 22} y={24} />
        <Dot x={middle + 18} y={24} />
      </Symbol>
    ),
  changeover: (type, p) =>
    p.kind === 'changeover' && (
      <svg
        className="part-symbol"
        width={width}
        height={72}
        viewBox={`0 0 ${width} 72`}
        role="img"
        aria-label={`${p.common} to ${p.nc} at rest, to ${p.no} when over`}
      >
        <path d={`M${left} 32H${middle - 22}M${middle + 18} 14H${right}M${middle + 18} 50H${right}`} />
        <path d={`M${middle - 22} 32 ${middle + 18} 50`} className="arm" />
        <Dot x={middle - 22} y={32} />
        <Dot x={middle + 18} y={14} />
        <Dot x={middle + 18} y={50} />
        <Pin type={type} id={p.common} x={left} y={32} />
        <Pin type={type} id={p.no} x={right} y={14} />
        <Pin type={type} id={p.nc} x={right} y={50} />
      </svg>
    ),
  load: (type, p) =>
    p.kind === 'load' && (
      <Symbol type={type} a={p.from} b={p.to} label={`${p.label} from ${p.from} to ${p.to}`}>
        <path d={`M${left} 24H${middle - 24}M${middle + 24} 24H${right}`} />
        {p.dcPercent === undefined ? (
          <rect x={middle - 24} y={14} width={48} height={20} fill="var(--surface)" />
        ) : (
          <path d={`M${middle - 24} 24a8 8 0 0 1 16 0a8 8 0 0 1 16 0a8 8 0 0 1 16 0`} fill="none" />
        )}
      </Symbol>
    ),
  fuse: (type, p) =>
    p.kind === 'fuse' && (
      <Symbol type={type} a={p.a} b={p.b} label={`fuse from ${p.a} to ${p.b}`}>
        <path d={`M${left} 24H${right}`} />
        <rect x={middle - 22} y={16} width={44} height={16} fill="none" />
      </Symbol>
    ),
  strap: (type, p) =>
    p.kind === 'strap' && (
      <Symbol type={type} a={p.a} b={p.b} label={`${p.a} joined to ${p.b}`}>
        <path d={`M${left} 24H${right}`} />
      </Symbol>
    ),
  diode: (type, p) =>
    p.kind === 'diode' && (
      <Symbol type={type} a={p.anode} b={p.cathode} label={`diode from ${p.anode} to ${p.cathode}`}>
        <path d={`M${left} 24H${right}`} />
        <path d={`M${middle - 10} 12V36L${middle + 10} 24ZM${middle + 10} 12V36`} fill="var(--surface)" />
      </Symbol>
    ),
  transformer: (type, p) =>
    p.kind === 'transformer' && (
      <Symbol type={type} a={p.fed} b={p.common} label={`secondary at ${p.fed} and ${p.common}`}>
        <path d={`M${left} 24H${middle - 24}M${middle + 24} 24H${right}`} />
        <path d={`M${middle - 24} 24a8 8 0 0 1 16 0a8 8 0 0 1 16 0a8 8 0 0 1 16 0`} fill="none" />
        <path d={`M${middle - 26} 32H${middle + 26}M${middle - 26} 37H${middle + 26}`} />
      </Symbol>
    ),
  suppressor: (type, p) =>
    p.kind === 'suppressor' && (
      <Symbol type={type} a={p.a} b={p.b} label={`suppressor from ${p.a} to ${p.b}`}>
        <path d={`M${left} 24H${middle - 30}M${middle - 6} 24H${middle + 10}M${middle + 16} 24H${right}`} />
        <rect x={middle - 30} y={17} width={24} height={14} fill="none" />
        <path d={`M${middle + 10} 12V36M${middle + 16} 12V36`} />
      </Symbol>
    ),
  bus: (type, p) =>
    p.kind === 'bus' && (
      <Symbol type={type} a={p.a} b={p.b} label={`bus at ${p.a} and ${p.b}`}>
        <path d={`M${left} 24H${middle - 30}M${middle + 30} 24H${right}`} />
        <rect x={middle - 30} y={12} width={60} height={24} fill="var(--surface)" />
        <text x={middle} y={28} textAnchor="middle">
          {p.role === 'controller' ? 'asks' : 'answers'}
        </text>
      </Symbol>
    ),
}

interface SymbolProps {
  type: DeviceType
  a: string
  b: string
  label: string
  children: React.ReactNode
}

/** A two-ended part between its terminals. */
function Symbol({ type, a, b, label, children }: SymbolProps) {
  return (
    <svg className="part-symbol" width={width} height={48} viewBox={`0 0 ${width} 48`} role="img" aria-label={label}>
      {children}
      <Pin type={type} id={a} x={left} y={24} />
      <Pin type={type} id={b} x={right} y={24} />
    </svg>
  )
}

/** A terminal by its own mark; a point inside the device is hollow and small. */
function Pin({ type, id, x, y }: { type: DeviceType; id: string; x: number; y: number }) {
  const terminal = type.terminals.find((t) => t.id === id) as TerminalType
  if (terminal.internal)
    return (
      <>
        <circle cx={x} cy={y} r={4} className="inner" />
        <text x={x} y={y + 17} textAnchor="middle" className="inner-text">
          {terminal.legend}
        </text>
      </>
    )
  const w = Math.max(30, id.length * 8.4 + 12)
  const at = x < middle ? Math.max(0, x - w) : Math.min(width - w, x)
  return (
    <>
      <rect x={at} y={y - 12} width={w} height={24} rx={3} className="pin-box" />
      <text x={at + w / 2} y={y + 5} textAnchor="middle" className="pin-text">
        {id}
      </text>
    </>
  )
}

const Dot = ({ x, y }: { x: number; y: number }) => <circle cx={x} cy={y} r={4} className="pin-dot" />
