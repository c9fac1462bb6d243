import type { SchemeId } from '@nobbet/core'

type Symbol =
  'two-port' | 'open-valve' | 'three-port' | 'driven' | 'relay' | 'contact' | 'radio' | 'bus' | 'fan' | 'pipe'

/** What a scheme has between its thermostats and its boiler, counted on the job: valves by their ports, relays, contacts. */
const symbols: Record<SchemeId, readonly Symbol[]> = {
  'two-port': ['two-port', 'two-port'],
  'mid-position': ['three-port'],
  diverter: ['three-port'],
  'three-wire-diverter': ['driven'],
  'more-zones': ['two-port', 'two-port', 'two-port'],
  unvented: ['two-port', 'contact', 'two-port'],
  'smart-receiver': ['radio', 'two-port', 'two-port'],
  'hot-water-priority': ['open-valve', 'two-port', 'two-port'],
  'low-voltage': ['two-port', 'two-port'],
  'relay-panel': ['relay', 'two-port', 'two-port'],
  'single-zone': ['contact'],
  'single-zone-mains': ['radio', 'contact'],
  'single-zone-bus': ['bus'],
  'single-zone-relay': ['contact', 'relay'],
  'single-zone-electric': ['contact', 'contact'],
  'fan-convector': ['relay', 'fan', 'two-port'],
  gravity: ['pipe'],
}

/** A scheme as what one can count. */
export function SchemeDrawing({ scheme }: { scheme: SchemeId }) {
  const own = symbols[scheme]
  return (
    <svg
      className="scheme-drawing"
      viewBox={`0 0 ${own.length * 36} 32`}
      width={own.length * 36}
      height="32"
      aria-hidden="true"
    >
      {own.map((symbol, i) => (
        <g key={i} transform={`translate(${i * 36} 0)`}>
          {drawn[symbol]}
        </g>
      ))}
    </svg>
  )
}

const bow = <path d="M4 12v12l14-6zM32 12v12l-14-6z" />
const spring = <path d="M18 18V8M12 8h12M14 4h8" />
const drawn: Record<Symbol, React.ReactNode> = {
  'two-port': (
    <>
      {bow}
      {spring}
    </>
  ),
  'open-valve': (
    <>
      {bow}
      <path d="M18 18V8M12 8h12" />
      <circle cx="18" cy="4" r="3" />
    </>
  ),
  'three-port': (
    <>
      {bow}
      <path d="M18 18l-6 12h12z" />
      {spring}
    </>
  ),
  driven: (
    <>
      {bow}
      <path d="M18 18l-6 12h12zM18 18V9" />
      <path d="M10 5h16M13 2l-4 3 4 3M23 2l4 3-4 3" />
    </>
  ),
  relay: (
    <>
      <rect x="4" y="8" width="12" height="16" />
      <path d="M4 24L16 8M22 4v8M22 12l8 12M22 28v-2M16 16h4" />
    </>
  ),
  contact: <path d="M2 22h9M11 22l13-10M25 22h9" />,
  radio: (
    <>
      <rect x="4" y="14" width="16" height="12" rx="2" />
      <path d="M24 14a8 8 0 0 1 0 10M28 10a14 14 0 0 1 0 18" />
    </>
  ),
  bus: <path d="M2 12h6v8h6v-8h6v8h6v-8h6M2 26h32" />,
  fan: (
    <>
      <circle cx="18" cy="16" r="13" />
      <path d="M18 16c-2-6 0-10 4-10 1 5-1 8-4 10zM18 16c6 2 8 6 6 9-5-1-6-5-6-9zM18 16c-6 3-10 1-11-3 5-2 8 0 11 3z" />
    </>
  ),
  pipe: <path d="M6 30V14a12 9 0 0 1 24 0v16M18 10V4m-3 3l3-3 3 3" />,
}
