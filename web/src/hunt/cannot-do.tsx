import { actDisturbs, passes, thingLookedAt, toolText, type HuntOptions } from '@nobbet/core'
import { useState } from 'react'
import { placeName, placeOf, type Answer, type Chosen, type HuntScreen } from './hunt-screen'
import { useOptions } from './use-options'

interface CannotDoProps {
  screen: HuntScreen
  chosen: Chosen
  live: boolean
  /** Places on the way, by their ids. */
  way: readonly string[]
  /** Of what was to be set first, what was ticked as done. */
  done: readonly string[]
  /** `done`: the acts that were done for it, where not all of them were. */
  onAnswer: (answer: Answer, done?: readonly string[]) => void
}

/** A reason a look cannot be made, with what it rules out for the rest of the hunt. */
interface Reason {
  label: string
  options?: Partial<HuntOptions>
}

/** "Can't do that", with why: what is not at hand is not asked for again. "Can't tell": it was looked at, and told nothing. */
export function CannotDo({ screen, chosen, live, way, done, onAnswer }: CannotDoProps) {
  const [asked, setAsked] = useState(false)
  const { options, change } = useOptions(screen)
  const { circuit } = screen
  const { see } = chosen
  const place = placeOf(circuit, thingLookedAt(see))
  const places = [...new Set([...way, ...(place === undefined ? [] : [place])])].reverse()
  const reasons: Reason[] = [
    { label: 'Not this one' },
    ...(see.at === 'points'
      ? [
          {
            label: `No ${toolText(see).toLowerCase()} here`,
            options: { instruments: options.instruments.filter((one) => one !== see.with) },
          },
        ]
      : []),
    ...(live ? [{ label: 'No live work', options: { deadOnly: true } }] : []),
    ...(chosen.acts.some(actDisturbs)
      ? [{ label: 'Nothing lifted, linked or taken off', options: { asWired: true } }]
      : []),
    ...places.map((id) => ({
      label: `Cannot get to: ${placeName(circuit, id)}`,
      options: { outOfReach: [...new Set([...options.outOfReach, id])] },
    })),
  ]
  const deeds = chosen.acts.filter((act) => !passes(act)).length
  if (asked)
    return (
      <div className="cannot" role="group" aria-label="Why it cannot be done">
        {deeds > 0 && (
          <p className="written">
            {done.length === 0
              ? 'Nothing that was to be set first is written down as done. Tick above what you have set.'
              : `Written down as done: the ${done.length} of ${deeds} ticked above.`}
          </p>
        )}
        {reasons.map(({ label, options: ruled }) => (
          <button
            key={label}
            type="button"
            className="answer less"
            onClick={() => {
              if (ruled) change(ruled)
              onAnswer('cannot-do', done)
            }}
          >
            {label}
          </button>
        ))}
        <button type="button" className="btn btn-link" onClick={() => setAsked(false)}>
          Back
        </button>
      </div>
    )
  return (
    <div className="cannot">
      <button type="button" className="answer less" onClick={() => setAsked(true)}>
        Can’t do that
      </button>
      <button type="button" className="answer less" onClick={() => onAnswer('cannot-tell')}>
        Can’t tell
      </button>
    </div>
  )
}
