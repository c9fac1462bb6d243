import { paints as plain, type Colour } from '@nobbet/core'

const paints: Record<Colour, string> = {
  ...plain,
  'green-yellow': 'repeating-linear-gradient(115deg, #2f9b3d 0 5px, #f5dd2b 5px 9px)',
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
