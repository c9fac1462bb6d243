import { meaningText, stateWords, type StateWord } from '@nobbet/core'

/** A shape for each state word, so that none is told by colour alone. */
const shapes: Record<StateWord, React.ReactNode> = {
  live: <path d="M1 1h12v12H1z" fill="currentColor" />,
  partial: (
    <>
      <path d="M1 13 13 1v12z" fill="currentColor" />
      <path d="M1 1h12v12H1z" fill="none" stroke="currentColor" strokeWidth="1.6" />
    </>
  ),
  dead: <circle cx="7" cy="7" r="5.2" fill="none" stroke="currentColor" strokeWidth="1.8" />,
  neutral: <path d="M2 5h10M2 9h10" stroke="currentColor" strokeWidth="2" />,
  earth: <path d="M7 1v5M2 6h10M4 9.5h6M6 13h2" stroke="currentColor" strokeWidth="1.6" />,
  floating: (
    <circle cx="7" cy="7" r="5.2" fill="none" stroke="currentColor" strokeWidth="1.6" strokeDasharray="2.2 2.2" />
  ),
  unknown: (
    <text x="7" y="12" textAnchor="middle" fontSize="14" fontWeight="700" fill="currentColor">
      ?
    </text>
  ),
}

interface StateMarkProps {
  state: StateWord
  /** What is read there, with its unit. */
  reads?: string
}

/** A state word with its shape, and beneath or beside it what is read. */
export function StateMark({ state, reads }: StateMarkProps) {
  return (
    <span className={`state-mark ${state}`} title={meaningText({ state })}>
      <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden>
        {shapes[state]}
      </svg>
      {stateWords[state]}
      {reads && <span className="reads">{reads}</span>}
    </span>
  )
}
