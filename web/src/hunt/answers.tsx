import { answersTo, same, type Found, type NextLook, type WrittenLook } from '@nobbet/core'
import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { AnswerButton, leavesText } from './answer-button'
import type { Answer, HuntScreen } from './hunt-screen'
import { ReadingPad } from './reading-pad'
import { WiringAnswers } from './wiring-answers'

interface AnswersProps {
  screen: Pick<HuntScreen, 'circuit' | 'job'>
  see: WrittenLook
  /** What each answer would leave, where that has been worked out. */
  outcomes?: NextLook['outcomes']
  /** Digits answer too. */
  keys?: boolean
  /** A drawing to compare with is looked up only by who wants it. */
  folded?: boolean
  onAnswer: (answer: Answer) => void
}

/** Every answer a look can have. */
export function Answers({ outcomes = [], keys = false, folded = false, see, ...props }: AnswersProps) {
  return see.at === 'wiring' ? (
    <WiringAnswers {...props} see={see} outcomes={outcomes} keys={keys} folded={folded} />
  ) : (
    <WordsAndNumbers {...props} see={see} outcomes={outcomes} keys={keys} />
  )
}

/** Words, big enough for a gloved thumb; numbers are typed. */
function WordsAndNumbers({ screen, see, outcomes, keys, onAnswer }: Required<Omit<AnswersProps, 'folded'>>) {
  const { circuit } = screen
  const [typing, setTyping] = useState(false)
  const { words, unit } = answersTo(circuit, see)
  // Numbers that parts usually show stand beside the words; what is no answer one writes down is left to the pad.
  const numbers = outcomes.flatMap(({ found }) =>
    'value' in found && !words.some((word) => same(word, found)) ? [found] : [],
  )
  const some = outcomes.some(({ answer }) => answer === 'between') ? [{ word: 'between' }] : []
  const outcomeOf = (found: Found) => outcomes.find((outcome) => same(outcome.found, found))
  // What nobody in question would show stands behind the rest.
  const all: Found[] = [...words, ...some, ...numbers]
  const isExpected = (found: Found) => outcomes.length === 0 || outcomeOf(found) !== undefined
  const offered = [...all.filter(isExpected), ...all.filter((found) => !isExpected(found))]
  const few = offered.length <= 2
  useHotkeys(
    '1,2,3,4,5,6,7,8,9',
    (event) => {
      const found = offered[Number(event.key) - 1]
      if (found) onAnswer(found)
    },
    { enabled: keys && !typing },
    [offered, onAnswer],
  )
  if (typing && unit)
    return <ReadingPad screen={screen} see={see} unit={unit} onRead={onAnswer} onCancel={() => setTyping(false)} />
  return (
    <div className={few ? 'answers few' : 'answers'}>
      {offered.map((found, i) => (
        <AnswerButton
          key={JSON.stringify(found)}
          circuit={circuit}
          see={see}
          found={found}
          unexpected={!isExpected(found)}
          leaves={leavesText(outcomes, outcomeOf(found))}
          digit={keys && i < 9 ? i + 1 : undefined}
          onAnswer={onAnswer}
        />
      ))}
      {unit && (
        <button type="button" className="answer typed" onClick={() => setTyping(true)}>
          <span className="answer-word">Type {unit}</span>
        </button>
      )}
    </div>
  )
}
