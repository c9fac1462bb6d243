import { thermostatChoices, timedChoices, timedOf, type ThermostatChoice, type TimedChoice } from '@nobbet/core'
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

/** What feeds a programmable thermostat then, and what that comes to. */
const feeds: Record<TimedChoice, string> = {
  'by-channel': 'fed by the channel: dark while that is off, so leave it on for good',
  'by-itself': 'on permanent line: its clock always runs; the channel does nothing for it, write that on its plate',
}

/** What asks for a zone's heat, and what times it: folded away, since most zones have the usual one. */
export function ZoneThermostat({ zone, thermostat, timed, onThermostat, onTimed }: ZoneThermostatProps) {
  const is = thermostat ? thermostatChoices[thermostat] : usual
  const usuallyTimed = timedOf({ thermostat })
  const isTimed = timed ?? usuallyTimed
  return (
    <details className="zone-thermostat">
      <summary>
        {is}, timed {timedChoices[isTimed].toLowerCase()}
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
        value={isTimed}
        choices={(Object.keys(timedChoices) as TimedChoice[]).map((id) => ({
          id,
          name: timedChoices[id],
          ...(thermostat === 'programmable' && { about: feeds[id] }),
        }))}
        onChoose={(id) => onTimed(id === usuallyTimed ? undefined : id)}
      />
    </details>
  )
}
