import { instruments, instrumentWords, type HuntOptions } from '@nobbet/core'
import { Form } from 'react-bootstrap'
import type { HuntScreen } from './hunt-screen'
import type { Comfort } from './use-comfort'
import { useOptions } from './use-options'

const strategyWords: Record<HuntOptions['strategy'], string> = {
  'most-information': 'What tells most for its time (usual)',
  'source-to-load': 'From the source to the load',
  'from-the-middle': 'From the middle of the line',
}

/** How the hunt is led, and how it is read. */
export function LedBy({ screen, comfort }: { screen: HuntScreen; comfort: Comfort }) {
  const { options, change } = useOptions(screen)
  const { installation } = screen.circuit
  const toggle = <T,>(list: readonly T[], one: T): T[] =>
    list.includes(one) ? list.filter((other) => other !== one) : [...list, one]
  return (
    <details className="sheet led-by">
      <summary>How to hunt: instruments, places, order, reading</summary>
      <fieldset>
        <legend>Where to look first</legend>
        {(Object.keys(strategyWords) as HuntOptions['strategy'][]).map((strategy) => (
          <Form.Check
            key={strategy}
            type="radio"
            name="strategy"
            id={`strategy-${strategy}`}
            label={strategyWords[strategy]}
            checked={options.strategy === strategy}
            onChange={() => change({ strategy })}
          />
        ))}
      </fieldset>
      <fieldset>
        <legend>Today</legend>
        <Switch id="dead-only" label="No live work" on={options.deadOnly} set={(deadOnly) => change({ deadOnly })} />
        <Switch
          id="as-wired"
          label="Wiring stays as it is: nothing lifted, linked or taken off its plate"
          on={options.asWired}
          set={(asWired) => change({ asWired })}
        />
        <Switch
          id="helper"
          label="Somebody helps at the controls"
          on={options.helper}
          set={(helper) => change({ helper })}
        />
        <Switch id="stay" label="Stay where I am" on={options.stay} set={(stay) => change({ stay })} />
        <Switch
          id="stood-still"
          label="Not asked for in months"
          on={options.stoodStill}
          set={(stoodStill) => change({ stoodStill })}
        />
      </fieldset>
      <fieldset>
        <legend>At hand</legend>
        {instruments.map((one) => (
          <Switch
            key={one}
            id={`has-${one}`}
            label={instrumentWords[one].name}
            on={options.instruments.includes(one)}
            set={() => change({ instruments: toggle(options.instruments, one) })}
          />
        ))}
      </fieldset>
      <fieldset>
        <legend>Nobody gets in there today</legend>
        {installation.places.map(({ id, name }) => (
          <Switch
            key={id}
            id={`shut-${id}`}
            label={name}
            on={options.outOfReach.includes(id)}
            set={() => change({ outOfReach: toggle(options.outOfReach, id) })}
          />
        ))}
      </fieldset>
      <fieldset>
        <legend>Worked on lately</legend>
        {installation.devices.map(({ id, name }) => (
          <Switch
            key={id}
            id={`worked-${id}`}
            label={name}
            on={options.workedOn.includes(id)}
            set={() => change({ workedOn: toggle(options.workedOn, id) })}
          />
        ))}
      </fieldset>
      <fieldset>
        <legend>Reading</legend>
        <Switch id="large-text" label="Large text" on={comfort.large} set={comfort.setLarge} />
        <Switch id="night" label="Night: dark screen for a dark cupboard" on={comfort.night} set={comfort.setNight} />
        <p className="quiet mb-0">{comfort.awake}</p>
      </fieldset>
    </details>
  )
}

interface SwitchProps {
  id: string
  label: string
  on: boolean
  set: (on: boolean) => void
}

const Switch = ({ id, label, on, set }: SwitchProps) => (
  <Form.Check type="checkbox" id={id} label={label} checked={on} onChange={(event) => set(event.target.checked)} />
)
