import type { Place } from '@nobbet/core'
import { Form } from 'react-bootstrap'

/** Where a place is. */
export type Whereabout = Pick<Place, 'floor' | 'apartMin'>

const usualFloors = [-1, 0, 1, 2, 3]
const floorWords = (floor: number): string => {
  if (floor === 0) return 'Ground floor'
  if (floor < 0) return floor === -1 ? 'Cellar' : `${-floor} floors down`
  return floor === 1 ? '1 floor up' : `${floor} floors up`
}
const untold = 'untold'

/** Nothing stands for what is not told. */
const told = (floor: number | undefined, apartMin: number | undefined): Whereabout => ({
  ...(floor !== undefined && { floor }),
  ...(apartMin !== undefined && { apartMin }),
})

interface WhereaboutsProps {
  places: readonly Pick<Place, 'id' | 'name' | 'floor' | 'apartMin'>[]
  onPlace: (id: string, is: Whereabout) => void
}

/** Where each place is: its floor, and what it takes to get there beside that. */
export function Whereabouts({ places, onPlace }: WhereaboutsProps) {
  return (
    <ul className="whereabouts" aria-label="Places">
      {places.map(({ id, name, floor, apartMin }) => (
        <li key={id} data-place={id}>
          <strong>{name}</strong>
          <Form.Select
            aria-label={`${name}: floor`}
            value={floor ?? untold}
            onChange={({ target }) =>
              onPlace(id, told(target.value === untold ? undefined : Number(target.value), apartMin))
            }
          >
            <option value={untold}>Floor not told</option>
            {[...new Set([...usualFloors, ...(floor === undefined ? [] : [floor])])].map((one) => (
              <option key={one} value={one}>
                {floorWords(one)}
              </option>
            ))}
          </Form.Select>
          <label>
            <input
              type="number"
              inputMode="decimal"
              min={0}
              max={120}
              step="any"
              aria-label={`${name}: minutes more, min`}
              placeholder="0"
              defaultValue={apartMin ?? ''}
              onBlur={({ target }) => {
                const minutes = Number(target.value)
                if (!target.validity.valid || minutes < 0 || minutes > 120) return
                const more = minutes === 0 ? undefined : minutes
                if (more !== apartMin) onPlace(id, told(floor, more))
              }}
            />
            min more
          </label>
        </li>
      ))}
    </ul>
  )
}

/** What the ways count as. */
export const whereaboutsHint =
  'A walk counts 1 minute, and 1 for each floor; more where a place lies apart or is locked. Hunt weighs its next test by it.'
