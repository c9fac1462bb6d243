import { Whereabouts, whereaboutsHint } from '../shell/whereabouts'
import { useHand } from './hand'

/** Where the places of the installation are. */
export function Places() {
  const { doc, alter } = useHand()
  if (doc.places.length < 2) return null
  return (
    <details className="device-card">
      <summary>
        <strong>Where places are</strong>
      </summary>
      <p className="quiet mb-0">{whereaboutsHint}</p>
      <Whereabouts
        key={JSON.stringify(doc.places)}
        places={doc.places}
        onPlace={(at, is) => {
          const place = doc.places.find((one) => one.id === at)
          if (!place) return
          const { id, name, room } = place
          const value = { id, name, ...(room && { room }), ...is }
          alter({ label: `Where ${name} is`, changes: [{ do: 'put', in: 'places', value }] })
        }}
      />
    </details>
  )
}
