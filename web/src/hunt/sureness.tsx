/** How sure something is, in a word; from 0 to 5 marks stand for it. */
const steps = [
  [0.9, 'all but certain'],
  [0.6, 'probable'],
  [0.3, 'likely'],
  [0.1, 'possible'],
  [0.02, 'unlikely'],
] as const

export function surenessOf(share: number): { word: string; marks: number } {
  const step = steps.findIndex(([from]) => share >= from)
  return step < 0 ? { word: 'hardly', marks: 0 } : { word: steps[step][1], marks: steps.length - step }
}

export const percentText = (share: number): string =>
  share < 0.01 ? 'under 1 %' : share > 0.995 ? 'over 99 %' : `${Math.round(share * 100)} %`

/** As a shape first, then a word, then a figure. */
export function Sureness({ share }: { share: number }) {
  const { word, marks } = surenessOf(share)
  return (
    <span className="sureness">
      <span className="marks" aria-hidden>
        {steps.map((_, i) => (
          <span key={i} className={i < marks ? 'pip full' : 'pip'} />
        ))}
      </span>
      <span className="word">{word}</span> <span className="figure">{percentText(share)}</span>
    </span>
  )
}
