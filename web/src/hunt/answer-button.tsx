import { answerText, type Circuit, type Found, type NextLook, type WrittenLook } from '@nobbet/core'

interface AnswerButtonProps {
  circuit: Circuit
  see: WrittenLook
  found: Found
  /** Under the word: what it would leave. */
  leaves?: string
  /** Nobody in question would show it. */
  unexpected?: boolean
  disabled?: boolean
  /** The key that gives it too. */
  digit?: number
  onAnswer: (found: Found) => void
}

/** One answer of a look, big enough for a gloved thumb. */
export function AnswerButton({
  circuit,
  see,
  found,
  leaves,
  unexpected,
  disabled,
  digit,
  onAnswer,
}: AnswerButtonProps) {
  const about = 'value' in found && found.value !== null ? 'about ' : ''
  return (
    <button
      type="button"
      className={unexpected ? 'answer unexpected' : 'answer'}
      data-answer={'word' in found ? found.word : `${found.value} ${found.unit}`}
      disabled={disabled}
      onClick={() => onAnswer(found)}
      title={digit === undefined ? undefined : `Key ${digit}`}
    >
      <span className="answer-word">
        {about}
        {answerText(circuit, see, found)}
      </span>
      {leaves !== undefined && <span className="leaves">{leaves}</span>}
    </button>
  )
}

/** What an answer would leave, as it stands under it; nothing where that was not worked out. */
export const leavesText = (
  outcomes: NextLook['outcomes'],
  outcome: NextLook['outcomes'][number] | undefined,
): string | undefined => (outcomes.length === 0 ? undefined : outcome ? `leaves ${outcome.remaining}` : 'unexpected')
