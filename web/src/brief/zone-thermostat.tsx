import { thermostatChoices, timedChoices, type ThermostatChoice, type TimedChoice } from '@nobbet/core'
import { Form } from 'react-bootstrap'

interface ZoneThermostatProps {
  /** The number of its circuit. */
  zone: number
  thermostat?: ThermostatChoice
  timed?: TimedChoice
  onThermostat: (is: ThermostatChoice | undefined) => void
  onTimed: (is: TimedChoice | undefined) => void
}

const usual = 'Usual thermostat'

/** What asks for a zone's heat, and what times it: folded away, since most zones have the usual one. */
export function ZoneThermostat({ zone, thermostat, timed, onThermostat, onTimed }: ZoneThermostatProps) {
  const is = thermostat ? thermostatChoices[thermostat] : usual
  return (
    <details className="zone-thermostat">
      <summary>
        {is}, timed {timedChoices[timed ?? 'by-channel'].toLowerCase()}
      </summary>
      <div>
        <Form.Select
          aria-label={`Circuit ${zone} thermostat`}
          value={thermostat ?? ''}
          onChange={({ target }) => onThermostat((target.value || undefined) as ThermostatChoice | undefined)}
        >
          <option value="">{usual}</option>
          {Object.entries(thermostatChoices).map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Form.Select>
        <Form.Select
          aria-label={`Circuit ${zone} timed`}
          value={timed ?? 'by-channel'}
          onChange={({ target }) => onTimed(target.value === 'by-itself' ? 'by-itself' : undefined)}
        >
          {Object.entries(timedChoices).map(([id, name]) => (
            <option key={id} value={id}>
              Timed {name.toLowerCase()}
            </option>
          ))}
        </Form.Select>
      </div>
    </details>
  )
}
