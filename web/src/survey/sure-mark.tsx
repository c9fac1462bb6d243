import type { Sureness } from '@nobbet/core'

const words: Record<Sureness, string> = { certain: 'certain', likely: 'likely', open: 'open' }

/** How sure something is: a shape, a word, and how likely. */
export function SureMark({ sure, share, brief = false }: { sure: Sureness; share: number; brief?: boolean }) {
  return (
    <span className={`sure ${sure}`}>
      <svg width="13" height="13" viewBox="0 0 14 14" aria-hidden>
        {sure === 'certain' && <path d="M0 0h14v14H0z M3 7l3 3 5-6" className="full" />}
        {sure === 'likely' && (
          <>
            <path d="M1 1h12v12H1z" className="line" />
            <path d="M1 13V7h12v6z" className="fill" />
          </>
        )}
        {sure === 'open' && <path d="M1 1h12v12H1z" className="line dashed" />}
      </svg>
      {brief ? <span className="visually-hidden">{words[sure]}</span> : words[sure]}
      {sure !== 'certain' && share > 0 && <span className="share">{Math.round(share * 100)} %</span>}
    </span>
  )
}
