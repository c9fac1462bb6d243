import { CircuitBoard, Droplets, Gauge, Waypoints } from 'lucide-react'
import type { MeterHandle } from './use-meter'

export type Place = 'runs' | 'box' | 'water'

const places = [
  { id: 'runs', name: 'Runs', Icon: Waypoints },
  { id: 'box', name: 'Box', Icon: CircuitBoard },
  { id: 'water', name: 'Water', Icon: Droplets },
] as const

interface PlacesProps {
  here: Place
  onGo: (place: Place) => void
  meter: MeterHandle
}

/** What is looked at where there is room for one only, under the thumb; the meter is in the hand beside any of them. */
export function Places({ here, onGo, meter }: PlacesProps) {
  return (
    <div className="trace-places" role="group" aria-label="What is looked at">
      {places.map(({ id, name, Icon }) => (
        <button key={id} aria-pressed={id === here} onClick={() => onGo(id)}>
          <Icon size={20} aria-hidden /> {name}
        </button>
      ))}
      <button aria-pressed={meter.open} data-place="meter" onClick={meter.toggle}>
        <Gauge size={20} aria-hidden /> Meter
      </button>
    </div>
  )
}
