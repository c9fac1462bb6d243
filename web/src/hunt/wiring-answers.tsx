import { same, type Found, type NextLook, type WrittenLook } from '@nobbet/core'
import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { AnswerButton, leavesText } from './answer-button'
import { AsDrawn } from './as-drawn'
import type { Answer, HuntScreen } from './hunt-screen'

interface WiringAnswersProps {
  screen: Pick<HuntScreen, 'circuit'>
  see: Extract<WrittenLook, { at: 'wiring' }>
  outcomes: NextLook['outcomes']
  /** Digits answer too. */
  keys: boolean
  /** The drawing is looked up only by who wants it. */
  folded: boolean
  onAnswer: (answer: Answer) => void
}

/** The wiring beside the drawing: all as drawn, or what of it is otherwise, pressed on the drawing. */
export function WiringAnswers({ screen, see, outcomes, keys, folded, onAnswer }: WiringAnswersProps) {
  const [otherwise, setOtherwise] = useState<ReadonlySet<string>>(new Set())
  const some: Found = { word: 'otherwise', ...(otherwise.size > 0 && { at: [...otherwise].sort() }) }
  const all: Found = { word: 'as-drawn' }
  const leaves = (found: Found) =>
    leavesText(
      outcomes,
      outcomes.find((outcome) => same(outcome.found, found)),
    )
  const toggle = (place: string) => {
    const now = new Set(otherwise)
    if (!now.delete(place)) now.add(place)
    setOtherwise(now)
  }
  useHotkeys('1', () => otherwise.size === 0 && onAnswer(all), { enabled: keys }, [otherwise, onAnswer])
  useHotkeys('2', () => onAnswer(some), { enabled: keys }, [otherwise, onAnswer])
  const drawing = <AsDrawn screen={screen} thing={see.thing} otherwise={otherwise} onToggle={toggle} />
  const button = { circuit: screen.circuit, see, onAnswer }
  return (
    <>
      {folded ? (
        <details>
          <summary>As it is drawn: press what lies otherwise</summary>
          {drawing}
        </details>
      ) : (
        <>
          <p className="method">Press every terminal and setting that lies otherwise.</p>
          {drawing}
        </>
      )}
      <div className="answers few">
        <AnswerButton
          {...button}
          found={all}
          leaves={leaves(all)}
          disabled={otherwise.size > 0}
          {...(keys && { digit: 1 })}
        />
        <AnswerButton
          {...button}
          found={some}
          leaves={otherwise.size === 0 ? 'where cannot be said' : leaves(some)}
          unexpected={otherwise.size === 0}
          {...(keys && { digit: 2 })}
        />
      </div>
    </>
  )
}
