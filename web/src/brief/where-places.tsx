import type { Installation } from '@nobbet/core'
import { Whereabouts, whereaboutsHint, type Whereabout } from '../shell/whereabouts'

interface WherePlacesProps {
  /** The plan whose places they might be. */
  plan: Installation | undefined
  places: Partial<Record<string, Whereabout>>
  onChange: (places: Partial<Record<string, Whereabout>> | undefined) => void
}

/** Where the places of the plan are, one of another floor than the next. */
export function WherePlaces({ plan, places, onChange }: WherePlacesProps) {
  const told = Object.keys(places)
  // What was said stays in sight, whether there is a plan or none.
  const rows = [
    ...(plan?.places ?? []).map(({ id, name }) => ({ id, name, ...places[id] })),
    ...(plan ? [] : told.map((id) => ({ id, name: id, ...places[id] }))),
  ]
  if (rows.length < 2) return null
  const put = (at: string, is: Whereabout) => {
    const next = [...Object.entries(places).filter(([id]) => id !== at), [at, is] as const]
    const toldOf = next.filter(([, place]) => Object.keys(place ?? {}).length > 0)
    onChange(toldOf.length > 0 ? Object.fromEntries(toldOf) : undefined)
  }
  return (
    <details className="mt-3" open={told.length > 0}>
      <summary className="fw-bold">
        Where things stand{told.length > 0 ? `: ${told.length} of ${rows.length} told` : ''}
      </summary>
      <p className="quiet mb-0">{whereaboutsHint}</p>
      <Whereabouts places={rows} onPlace={put} />
    </details>
  )
}
