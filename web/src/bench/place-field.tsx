import { endText, readTyped, typedOptions, type End, type EndRef } from '@nobbet/core'
import { useState, type KeyboardEvent } from 'react'
import { useHand } from './hand'

interface PlaceFieldProps {
  label: string
  /** Whose terminals are meant where only a number or a letter is typed. */
  owner: string | undefined
  at?: End
  onPlace: (to: End) => void
  autoFocus?: boolean
}

/** Where an end is, typed: a terminal's number or first letters, then Enter or Tab. */
export function PlaceField({ label, owner, at, onPlace, autoFocus }: PlaceFieldProps) {
  const { doc } = useHand()
  const [typed, setTyped] = useState<string>()
  const [problem, setProblem] = useState<string>()
  const place = (): boolean => {
    if (typed === undefined || typed.trim() === '') {
      setTyped(undefined)
      setProblem(undefined)
      return true
    }
    const to = readTyped(doc, owner, typed)
    if (typeof to === 'string') {
      setProblem(to)
      return false
    }
    setTyped(undefined)
    setProblem(undefined)
    if (JSON.stringify(to) !== JSON.stringify(at)) onPlace(to)
    return true
  }
  const key = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape') {
      setTyped(undefined)
      setProblem(undefined)
    }
    if (event.key === 'Tab' && !event.shiftKey && !place()) event.preventDefault()
    if (event.key !== 'Enter') return
    event.preventDefault()
    if (place()) nextField(event.currentTarget)
  }
  const options = owner === undefined ? [] : typedOptions(doc, owner)
  return (
    <span className="place-field">
      <input
        aria-label={label}
        autoFocus={autoFocus}
        autoComplete="off"
        spellCheck={false}
        className={problem ? 'wrong-place' : ''}
        value={typed ?? (at ? endText(doc, at) : '')}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={key}
        onBlur={() => place()}
      />
      {problem && (
        <span className="place-problem" role="alert">
          {problem}
        </span>
      )}
      {typed !== undefined && options.length > 0 && options.length <= 16 && (
        <span className="place-options" aria-hidden>
          {options.map((o) => (
            <span key={o.id}>
              {o.number} {o.id}
            </span>
          ))}
        </span>
      )}
    </span>
  )
}

/** The next place to type in, in the order of the page. */
function nextField(from: HTMLInputElement): void {
  const all = [...document.querySelectorAll<HTMLInputElement>('.place-field input')]
  all[all.indexOf(from) + 1]?.focus()
}

export const fieldLabel = (end: EndRef, colour: string): string => `${colour}, end ${end.end + 1}`
