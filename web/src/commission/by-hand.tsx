import type { HandCheck, RunRow } from '@nobbet/core'
import { Form } from 'react-bootstrap'
import { OneControl } from '../hunt/one-control'
import { controlOf, stoodText } from './stood-text'
import type { RunInHand } from './use-run'

interface ByHandProps {
  hand: RunInHand
  row: RunRow
  texts: readonly string[]
  /** What is not so, and the remark to it, by the number of the check. */
  wrong: ReadonlyMap<number, string>
  onWrong: (check: number, note: string | undefined) => void
}

/** What hand and eye see to. A press says that it is not so; how a control stands is set down as it is. */
export function ByHand({ hand, row, texts, wrong, onWrong }: ByHandProps) {
  return (
    <ul className="by-hand">
      {row.byHand.map((check, i) =>
        check.check === 'stands' ? (
          <li key={texts[i]}>
            <Stands hand={hand} check={check} text={texts[i]} />
          </li>
        ) : (
          <li key={texts[i]} className={wrong.has(i) ? 'wrong' : ''}>
            <span>{texts[i]}</span>
            <button
              type="button"
              className="found"
              aria-pressed={wrong.has(i)}
              onClick={() => onWrong(i, wrong.has(i) ? undefined : '')}
            >
              {wrong.has(i) ? '✕ Not so' : 'Not so…'}
            </button>
            {wrong.has(i) && (
              <Form.Control
                aria-label={`What is the case: ${texts[i]}`}
                placeholder="What is the case"
                maxLength={300}
                value={wrong.get(i)}
                onChange={(event) => onWrong(i, event.target.value)}
              />
            )}
          </li>
        ),
      )}
    </ul>
  )
}

interface StandsProps {
  hand: RunInHand
  check: Extract<HandCheck, { check: 'stands' }>
  text: string
}

/** How a control stands before the run: it is put back so at the end. */
function Stands({ hand, check, text }: StandsProps) {
  const { options } = hand
  const control = controlOf(hand, check)
  const name = `${check.device}.${check.control}`
  const stood = stoodText(hand, check)
  if (!control) return null
  return (
    <div className="stands">
      <span>
        {text} {stood !== undefined && <strong>✓ {stood}</strong>}
      </span>
      <OneControl
        control={control}
        value={options.stood[name]}
        blank
        onSet={(value) => hand.want({ ...options, stood: { ...options.stood, [name]: value } })}
      />
    </div>
  )
}
