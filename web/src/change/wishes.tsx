import { commonChanges, type CommonChange, type PlanBrief } from '@nobbet/core'
import { useMemo } from 'react'

interface WishesProps {
  /** What is fitted, or what is to be so far. */
  from: PlanBrief
  title: string
  onPick: (wish: CommonChange) => void
}

/** What there could be instead, each as a large press. */
export function Wishes({ from, title, onPick }: WishesProps) {
  const wishes = useMemo(() => commonChanges(from), [from])
  return (
    <section aria-label={title}>
      <h2 className="change-title">{title}</h2>
      {wishes.length === 0 && (
        <p className="sheet p-3">
          For this scheme no change is prepared. Lay the new controls out in the brief; what is recorded is kept as a
          revision.
        </p>
      )}
      <div className="wishes">
        {wishes.map((wish) => (
          <button key={wish.id} type="button" className="wish" onClick={() => onPick(wish)}>
            <strong>{wish.name}</strong>
            <span>{wish.about}</span>
          </button>
        ))}
      </div>
    </section>
  )
}
