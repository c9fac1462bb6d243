import { placesAt, placeText, wiringAt } from '@nobbet/core'
import { X } from 'lucide-react'
import { Conductor } from '../drawing/conductor'
import type { HuntScreen } from './hunt-screen'

interface AsDrawnProps {
  screen: Pick<HuntScreen, 'circuit'>
  thing: string
  /** Places said to lie otherwise. */
  otherwise: ReadonlySet<string>
  onToggle: (place: string) => void
}

/**
 * The wiring of a device or box as it is drawn, place by place, to be compared with what lies there: whoever sees one that lies otherwise
 * presses it.
 */
export function AsDrawn({ screen: { circuit }, thing, otherwise, onToggle }: AsDrawnProps) {
  const { terminals, links, settings } = wiringAt(circuit.installation, thing)
  return (
    <section className="as-drawn" aria-label="As it is drawn">
      {placesAt(circuit.installation, thing).map((place) => {
        const conductors = terminals.find(({ terminal }) => terminal === place)?.conductors ?? []
        const linked = links.flatMap(({ between, cut }) =>
          between.includes(place) ? [{ other: between.find((end) => end !== place) ?? place, cut }] : [],
        )
        const setting = settings.find((one) => one.place === place)
        const isOtherwise = otherwise.has(place)
        return (
          <button
            key={place}
            type="button"
            className="drawn-place"
            data-place={place}
            aria-pressed={isOtherwise}
            onClick={() => onToggle(place)}
          >
            <span className="place-name">
              <strong>{placeText(circuit, place)}</strong>
              {isOtherwise && (
                <span className="said">
                  <X size={18} strokeWidth={3} aria-hidden /> otherwise
                </span>
              )}
            </span>
            <span className="lies">
              {conductors.map(({ cable, colour, sleeve }, i) => (
                <span key={i}>
                  <Conductor colour={colour} sleeve={sleeve} /> <span className="of-cable">{cable}</span>
                </span>
              ))}
              {linked.map(({ other, cut }) => (
                <span key={other}>
                  {cut ? 'cut link' : 'link'} to {placeText(circuit, other)}
                </span>
              ))}
              {setting && <span>{setting.value}</span>}
              {conductors.length + linked.length === 0 && !setting && <span className="of-cable">nothing</span>}
            </span>
          </button>
        )
      })}
    </section>
  )
}
