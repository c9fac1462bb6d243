import { thermostatChoices, timedChoices, type ThermostatChoice, type TimedChoice } from '@nobbet/core'
import { ChoiceTiles } from './choice-tiles'

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
      <ChoiceTiles<ThermostatChoice | ''>
        legend={`Circuit ${zone}: thermostat`}
        name={`thermostat-${zone}`}
        value={thermostat ?? ''}
        choices={[
          { id: '', name: usual },
          ...(Object.keys(thermostatChoices) as ThermostatChoice[]).map((id) => ({ id, name: thermostatChoices[id] })),
        ]}
        onChoose={(id) => onThermostat(id || undefined)}
      />
      <ChoiceTiles<TimedChoice>
        legend={`Circuit ${zone}: timed`}
        name={`timed-${zone}`}
        value={timed ?? 'by-channel'}
        choices={(Object.keys(timedChoices) as TimedChoice[]).map((id) => ({
          id,
          name: timedChoices[id][0].toUpperCase() + timedChoices[id].slice(1),
        }))}
        onChoose={(id) => onTimed(id === 'by-itself' ? id : undefined)}
      />
    </details>
  )
}
