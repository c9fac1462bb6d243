import {
  dayNames,
  isRoomSetPoint,
  programmeValues,
  roomSetPoint,
  spansOfDay,
  stepsOfDay,
  timedWeeks,
  timeText,
  typeIn,
  withDay,
  withPosition,
  withProgramme,
  type Control,
  type Installation,
  type Programme,
} from '@nobbet/core'
import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useSearchValue } from '../shell/use-search-value'

interface WeekEditorProps {
  installation: Installation
  onChange: (installation: Installation) => void
}

/** Every clock, one of them open: seven days as bars, the steps of the day that was pressed beneath. */
export function WeekEditor({ installation, onChange }: WeekEditorProps) {
  const weeks = timedWeeks(installation)
  const [open, setOpen] = useSearchValue('clock')
  const [day, setDay] = useState(0)
  const idOf = (w: (typeof weeks)[number]) => `${w.device.id}.${w.control.id}`
  const shown = weeks.find((w) => idOf(w) === open) ?? weeks[0]
  return (
    <>
      <Setpoints installation={installation} onChange={onChange} />
      {shown ? (
        <>
          <Form.Select
            aria-label="Clock"
            value={idOf(shown)}
            onChange={(e) => setOpen(e.target.value)}
            className="mb-2 fw-bold"
          >
            {weeks.map((w) => (
              <option key={idOf(w)} value={idOf(w)}>
                {w.device.name}: {w.control.label.toLowerCase()}
                {w.usual ? '' : ' (changed)'}
              </option>
            ))}
          </Form.Select>
          <Days programme={shown.programme} control={shown.control} day={day} onDay={setDay} />
          <Steps
            key={`${idOf(shown)} ${day}`}
            control={shown.control}
            programme={shown.programme}
            day={day}
            onChange={(programme) =>
              onChange(withProgramme(installation, shown.device.id, shown.control.id, programme))
            }
          />
          {!shown.usual && (
            <Button
              variant="outline-dark"
              className="mt-2"
              onClick={() => onChange(withProgramme(installation, shown.device.id, shown.control.id, undefined))}
            >
              Back to the week it came with
            </Button>
          )}
        </>
      ) : (
        <p>Nothing in this installation has a clock: its thermostats alone decide.</p>
      )}
    </>
  )
}

/** What the rooms' thermostats are set to, and how each channel is run. */
function Setpoints({ installation, onChange }: WeekEditorProps) {
  const knobs = installation.devices.flatMap((device) =>
    typeIn(installation, device.type).controls.flatMap((control) => {
      if (control.timed?.turns) return []
      const mode = control.kind === 'choice' && control.timed !== undefined
      return mode || isRoomSetPoint(control) || isMode(control) ? [{ device, control }] : []
    }),
  )
  return (
    <div className="week-knobs">
      {knobs.map(({ device, control }) => {
        const stands = device.positions?.[control.id]
        const id = `knob-${device.id}-${control.id}`
        const set = (value: string | number) => onChange(withPosition(installation, device.id, control.id, value))
        return (
          <Form.Group key={id} controlId={id}>
            <Form.Label>
              {device.name}
              {control.kind === 'choice' && `: ${control.label.toLowerCase()}`}
            </Form.Label>
            {control.kind === 'choice' ? (
              <Form.Select
                value={String(stands ?? (control.timed ? 'timed' : control.initial))}
                onChange={(e) => set(e.target.value)}
              >
                {control.values.map((v) => (
                  <option key={v.id} value={v.id}>
                    {v.label}
                  </option>
                ))}
              </Form.Select>
            ) : (
              <NumberField control={control} value={Number(stands ?? roomSetPoint)} onValue={set} />
            )}
          </Form.Group>
        )
      })}
    </div>
  )
}

/** A switch that says whether a week is followed. */
const isMode = (control: Control) =>
  control.kind === 'choice' && control.values.some((v) => v.id === 'followed' || v.id === 'timed')

type NumberControl = Extract<Control, { kind: 'number' }>

/** A number with its unit: taken over when it is left and within its range, told when it is not. */
function NumberField({
  control,
  value,
  onValue,
}: {
  control: NumberControl
  value: number
  onValue: (value: number) => void
}) {
  const [text, setText] = useState<string>()
  const number = Number(text ?? value)
  const bad = text !== undefined && (text.trim() === '' || !(number >= control.min && number <= control.max))
  const leave = () => {
    if (text !== undefined && !bad && number !== value) onValue(number)
    if (!bad) setText(undefined)
  }
  return (
    <div className="with-unit">
      <Form.Control
        type="number"
        min={control.min}
        max={control.max}
        step={control.step}
        value={text ?? value}
        isInvalid={bad}
        onChange={(e) => setText(e.target.value)}
        onBlur={leave}
        onKeyDown={(e) => e.key === 'Enter' && leave()}
      />
      <span>{control.unit}</span>
      {bad && (
        <span className="wrong">
          {control.min} to {control.max} {control.unit}
        </span>
      )}
    </div>
  )
}

const valueText = (control: Control, value: string | number): string => {
  if (control.kind === 'number') return `${value} ${control.unit}`
  if (value === 'on') return 'On'
  if (value === 'off') return 'Off'
  return control.values.find((v) => v.id === value)?.label ?? String(value)
}

/** Does a value ask for something: drawn solid, the others as a line. */
const asks = (control: Control, programme: Programme, value: string | number): boolean => {
  if (control.kind === 'number') return Number(value) >= Math.max(...programme.map((s) => Number(s.value)))
  const rest = control.timed?.turns ? control.initial : 'off'
  return value !== rest
}

interface DaysProps {
  programme: Programme
  control: Control
  day: number
  onDay: (day: number) => void
}

/** Seven bars of twenty-four hours; one is pressed. */
function Days({ programme, control, day, onDay }: DaysProps) {
  return (
    <div className="days">
      <div className="hours" aria-hidden>
        {[0, 6, 12, 18, 24].map((h) => (
          <span key={h}>{h}</span>
        ))}
      </div>
      {dayNames.map((name, i) => {
        const spans = spansOfDay(programme, i)
        const told = stepsOfDay(programme, i).map((s) => `${timeText(s.minute)} ${valueText(control, s.value)}`)
        return (
          <button key={name} className={i === day ? 'day on' : 'day'} aria-pressed={i === day} onClick={() => onDay(i)}>
            <b>{name.slice(0, 3)}</b>
            <span className="visually-hidden">{told.join(', ') || 'no steps'}</span>
            <span className="bar" aria-hidden>
              {spans.map((s) => (
                <i
                  key={s.from}
                  className={asks(control, programme, s.value) ? 'asks' : ''}
                  style={{ left: `${(s.from / 1440) * 100}%`, width: `${((s.to - s.from) / 1440) * 100}%` }}
                >
                  {s.to - s.from >= 150 ? valueText(control, s.value) : ''}
                </i>
              ))}
            </span>
          </button>
        )
      })}
    </div>
  )
}

interface StepsProps {
  control: Control
  programme: Programme
  day: number
  onChange: (programme: Programme) => void
}

/** The steps of one day, each with its time; added, taken out, or put on other days too. */
function Steps({ control, programme, day, onChange }: StepsProps) {
  const steps = stepsOfDay(programme, day)
  const put = (next: { minute: number; value: string | number }[]) => onChange(withDay(programme, day, next))
  const values = programmeValues(control)
  const copy = (days: number[]) => onChange(days.reduce((all, d) => withDay(all, d, steps), programme))
  const add = () => {
    const last = steps[steps.length - 1]
    const minute = last ? Math.min(1430, last.minute + 60) : 7 * 60
    const rest = last ? values.find((v) => v !== last.value) : values[0]
    put([...steps, { minute, value: rest ?? (control.kind === 'number' ? control.initial : '') }])
  }
  return (
    <div className="steps" role="group" aria-label={`Steps of ${dayNames[day]}`}>
      <h3>{dayNames[day]}</h3>
      {steps.length === 0 && <p className="quiet m-0">No steps: it stays as it was the day before.</p>}
      <ul>
        {steps.map((step, i) => {
          const change = (next: Partial<typeof step>) => put(steps.map((s, k) => (k === i ? { ...s, ...next } : s)))
          return (
            <li key={`${step.minute} ${i}`}>
              <TimeField minute={step.minute} onMinute={(minute) => change({ minute })} />
              {control.kind === 'number' ? (
                <NumberField control={control} value={Number(step.value)} onValue={(value) => change({ value })} />
              ) : (
                <Form.Select
                  aria-label={`From ${timeText(step.minute)}`}
                  value={String(step.value)}
                  onChange={(e) => change({ value: e.target.value })}
                >
                  {values.map((v) => (
                    <option key={v} value={v}>
                      {valueText(control, v)}
                    </option>
                  ))}
                </Form.Select>
              )}
              <Button
                variant="outline-dark"
                aria-label={`Take out ${timeText(step.minute)}`}
                onClick={() => put(steps.filter((_, k) => k !== i))}
              >
                <Trash2 size={18} aria-hidden />
              </Button>
            </li>
          )
        })}
      </ul>
      <div className="step-acts">
        <Button variant="dark" onClick={add} disabled={steps.length >= 20}>
          <Plus size={18} aria-hidden /> Add a step
        </Button>
        <Button variant="outline-dark" onClick={() => copy([0, 1, 2, 3, 4])}>
          To Mon–Fri
        </Button>
        <Button variant="outline-dark" onClick={() => copy([0, 1, 2, 3, 4, 5, 6])}>
          To every day
        </Button>
      </div>
    </div>
  )
}

/** A time of day, taken over when it is left. */
function TimeField({ minute, onMinute }: { minute: number; onMinute: (minute: number) => void }) {
  const [text, setText] = useState<string>()
  const match = /^(\d{2}):(\d{2})$/.exec(text ?? timeText(minute))
  const leave = () => {
    if (text !== undefined && match) {
      const wanted = Number(match[1]) * 60 + Number(match[2])
      if (wanted !== minute) onMinute(wanted)
    }
    setText(undefined)
  }
  return (
    <Form.Control
      type="time"
      aria-label="Time"
      value={text ?? timeText(minute)}
      isInvalid={!match}
      onChange={(e) => setText(e.target.value)}
      onBlur={leave}
      onKeyDown={(e) => e.key === 'Enter' && leave()}
    />
  )
}
