import { deviceName, numberText, type Action, type Control, type Rig, type Simulation } from '@nobbet/core'
import { Minus, Plus } from 'lucide-react'
import { useState } from 'react'

type Act = (...actions: Action[]) => void
type NumberControl = Extract<Control, { kind: 'number' }>

interface ControlsProps {
  rig: Rig
  device: string
  controls: readonly Control[]
  act: Act
}

/** A device's controls where it stands in the run: switches to press, a dial to turn up or down, exact figures behind it. */
export function Controls({ rig, device, controls, act }: ControlsProps) {
  const sim = rig.simulation
  const [exact, setExact] = useState(false)
  const numbers = controls.filter((c) => c.kind === 'number')
  const choices = controls.filter((c) => c.kind === 'choice')
  const switches = choices.filter((c) => !c.ambient)
  const standing = choices.filter((c) => c.ambient)
  const dial = numbers.find((c) => !c.ambient)
  const set = (control: string, value: string) => act({ do: 'set', device, control, value })
  const chosen = (c: ChoiceControl) => c.values.find((v) => v.id === sim.control(device, c.id))!.label.toLowerCase()
  const told = [
    ...numbers.map((c) => `${c.label.toLowerCase()} ${numberText(sim.control(device, c.id))} ${c.unit}`),
    ...standing.map((c) => `${c.label.toLowerCase()} ${chosen(c)}`),
  ]
  return (
    <>
      {switches.map((control) => (
        <Choice
          key={control.id}
          sim={sim}
          device={device}
          control={control}
          set={set}
          labelled={switches.length + (dial ? 1 : 0) > 1}
        />
      ))}
      {dial && <UpDown sim={sim} device={device} dial={dial} set={set} />}
      {told.length > 0 && (
        <div className="exact">
          <button
            className="exact-toggle"
            aria-expanded={exact}
            aria-label={`${deviceName(sim.circuit, device)} ${told.join(', ')}`}
            onClick={() => setExact(!exact)}
          >
            {told.join(', ')} <span aria-hidden>{exact ? '▴' : '▾'}</span>
          </button>
          {exact && numbers.map((c) => <Stepper key={c.id} sim={sim} device={device} control={c} set={set} />)}
          {exact && standing.map((c) => <Choice key={c.id} sim={sim} device={device} control={c} set={set} labelled />)}
        </div>
      )}
    </>
  )
}

type ChoiceControl = Extract<Control, { kind: 'choice' }>

interface ChoiceProps {
  sim: Simulation
  device: string
  control: ChoiceControl
  labelled: boolean
  set: (control: string, value: string) => void
}

/** A switch: its positions side by side, the one it stands in pressed. */
function Choice({ sim, device, control, labelled, set }: ChoiceProps) {
  const name = nameOf(sim, device, control)
  const [all, setAll] = useState(false)
  const stands = sim.control(device, control.id)
  // What is seldom used stays out of the way until it is asked for, or is how the switch stands.
  const shown = control.values.filter((v) => all || !v.seldom || v.id === stands)
  const more = control.values.some((v) => v.seldom)
  return (
    <div className={all ? 'knob unfolded' : 'knob'} role="group" aria-label={name}>
      {labelled && <span className="knob-label">{control.label}</span>}
      {shown.map((v) => {
        const on = v.id === stands
        return (
          <button
            key={v.id}
            className={on ? 'on' : ''}
            aria-pressed={on}
            aria-label={`${name} ${v.label.toLowerCase()}`}
            onClick={() => set(control.id, v.id)}
          >
            {v.label}
          </button>
        )
      })}
      {more && (
        <button className="more" aria-expanded={all} aria-label={`${name} more`} onClick={() => setAll(!all)}>
          <span aria-hidden>{all ? '◂' : '…'}</span>
        </button>
      )}
    </div>
  )
}

const nameOf = (sim: Simulation, device: string, control: Control) =>
  `${deviceName(sim.circuit, device)} ${control.label.toLowerCase()}`

interface NumberProps {
  sim: Simulation
  device: string
  set: (control: string, value: string) => void
}

/** Down and up by a whole differential beyond what the thermostat feels: it lets go, or calls, for certain. */
function UpDown({ sim, device, dial, set }: NumberProps & { dial: NumberControl }) {
  const index = sim.circuit.deviceIndex.get(device)!
  const at = sim.circuit.sensors.findIndex((s) => s.device === index && s.part.setPoint === dial.id)
  if (at < 0) return null
  const { part, differential } = sim.circuit.sensors[at]
  const felt = Number(sim.control(device, part.reads))
  const within = (n: number) => String(Math.min(dial.max, Math.max(dial.min, n)))
  const asks = sim.sensorAsks(at)
  const name = deviceName(sim.circuit, device)
  return (
    <div className="knob" role="group" aria-label={`${name} dial`}>
      <button
        className={asks ? '' : 'on'}
        aria-pressed={!asks}
        aria-label={`${name} turn down`}
        onClick={() => set(dial.id, within(Math.floor(felt - differential)))}
      >
        Down
      </button>
      <button
        className={asks ? 'on' : ''}
        aria-pressed={asks}
        aria-label={`${name} turn up`}
        onClick={() => set(dial.id, within(Math.ceil(felt + differential)))}
      >
        Up
      </button>
    </div>
  )
}

function Stepper({ sim, device, control, set }: NumberProps & { control: NumberControl }) {
  const value = Number(sim.control(device, control.id))
  const name = nameOf(sim, device, control)
  // What is felt is set by the heat in the house while temperatures go their own way.
  const felt = sim.heat !== undefined && control.feels !== undefined
  const step = (by: number) => set(control.id, String(Math.min(control.max, Math.max(control.min, value + by))))
  return (
    <div className="dial" role="group" aria-label={name}>
      <span className="dial-label">{control.label}</span>
      <button aria-label={`${name} lower`} disabled={felt || value <= control.min} onClick={() => step(-1)}>
        <Minus size={15} aria-hidden />
      </button>
      <output aria-label={name}>
        {numberText(value)} {control.unit}
      </output>
      <button aria-label={`${name} higher`} disabled={felt || value >= control.max} onClick={() => step(1)}>
        <Plus size={15} aria-hidden />
      </button>
    </div>
  )
}
