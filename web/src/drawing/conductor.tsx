import type { Colour } from '@nobbet/core'

/** Conductor colours as they are in the world. */
const paints: Record<Colour, string> = {
  brown: '#7a4a21',
  blue: '#1f6fc4',
  'green-yellow': 'repeating-linear-gradient(115deg, #2f9b3d 0 5px, #f5dd2b 5px 9px)',
  black: '#1a1a1a',
  grey: '#9aa0a3',
  red: '#c22026',
  yellow: '#f2d21f',
  green: '#2f9b3d',
  white: '#ffffff',
  orange: '#ef7d1a',
  bare: '#c98a52',
}

/** A conductor's colour, always beside its name. */
export function Conductor({ colour, sleeve }: { colour: Colour; sleeve?: Colour }) {
  return (
    <span className="conductor">
      <span className="swatch" style={{ background: paints[colour] }} aria-hidden>
        {sleeve && <span className="sleeve" style={{ background: paints[sleeve] }} />}
      </span>
      {colour}
      {sleeve && ` sleeved ${sleeve}`}
    </span>
  )
}
