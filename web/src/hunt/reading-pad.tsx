import { answersTo, answerText, lookAt, toolText, type Found, type WrittenLook } from '@nobbet/core'
import { Delete, Gauge } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { Button } from 'react-bootstrap'
import { here } from '../store/stores'
import { actionsOf, TraceSession } from '../trace/session'
import type { HuntScreen } from './hunt-screen'

interface ReadingPadProps {
  screen: Pick<HuntScreen, 'circuit' | 'job'>
  see: WrittenLook
  unit: 'V' | 'Ω' | 'MΩ' | 'W' | '°C'
  onRead: (found: Found) => void
  onCancel: () => void
}

const keys = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.'] as const
const most = { V: 1e4, Ω: 1e9, MΩ: 1e9, W: 1e9, '°C': 1e9 } as const

/** A large pad for a reading, the instrument named; or the reading of the simulated meter. */
export function ReadingPad({ screen, see, unit, onRead, onCancel }: ReadingPadProps) {
  const [text, setText] = useState('')
  const [scale, setScale] = useState(1)
  const [problem, setProblem] = useState('')
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => field.current?.focus(), [])
  const value = Number(text) * scale
  const readable = text !== '' && Number.isFinite(value) && value >= 0 && value <= most[unit]
  const write = () => {
    if (readable) onRead({ value, unit })
    else setProblem(`A number from 0 to ${most[unit].toLocaleString('en')} ${unit} is needed.`)
  }
  const over = answersTo(screen.circuit, see).words.find((found) => 'unit' in found && found.value === null)
  const fromMeter = async () => {
    const read = await meterReading(screen, see)
    if ('problem' in read) setProblem(read.problem)
    else onRead(read)
  }
  return (
    <form
      className="reading-pad"
      aria-label="Reading"
      onSubmit={(event) => {
        event.preventDefault()
        write()
      }}
    >
      <label className="readout">
        <span className="tool">{toolText(see)}</span>
        <input
          ref={field}
          inputMode="none"
          aria-label={`Reading in ${unit}`}
          value={text}
          onChange={(event) => setText(event.target.value.replace(/[^0-9.]/g, '').slice(0, 9))}
        />
        <span className="unit">{scale === 1000 ? `k${unit}` : unit}</span>
      </label>
      <div className="pad">
        {keys.map((key) => (
          <button key={key} type="button" onClick={() => setText((before) => (before + key).slice(0, 9))}>
            {key}
          </button>
        ))}
        <button type="button" aria-label="Delete a digit" onClick={() => setText((before) => before.slice(0, -1))}>
          <Delete size={22} aria-hidden />
        </button>
      </div>
      {problem && (
        <p className="problem" role="alert">
          {problem}
        </p>
      )}
      <div className="pad-foot">
        <Button type="submit" size="lg" disabled={text === ''}>
          Write it down
        </Button>
        {unit === 'Ω' && (
          <Button variant="outline-dark" aria-pressed={scale === 1000} onClick={() => setScale(scale === 1 ? 1000 : 1)}>
            kΩ
          </Button>
        )}
        {over && (
          <Button variant="outline-dark" onClick={() => onRead(over)}>
            {answerText(screen.circuit, see, over)}
          </Button>
        )}
        <Button variant="outline-dark" onClick={() => void fromMeter()}>
          <Gauge size={18} aria-hidden /> Simulated meter
        </Button>
        <Button variant="link" onClick={onCancel}>
          Back
        </Button>
      </div>
    </form>
  )
}

/** The simulated meter reads the system as it stands in Trace, with whatever was put in there. */
async function meterReading(
  { job, circuit }: Pick<HuntScreen, 'circuit' | 'job'>,
  see: WrittenLook,
): Promise<Found | { problem: string }> {
  const sitting = await here.sitting(job).catch(() => undefined)
  const { actions } = actionsOf(sitting?.do ?? [])
  if (actions.length === 0)
    return { problem: 'The simulated meter reads the system in Trace, and nothing has been done there yet.' }
  const { simulation } = new TraceSession(circuit, actions).rig
  const shown = lookAt(simulation, see.at === 'clicks' ? { ...see, at: 'clicks', since: 0 } : see)
  if ('unknown' in shown || 'chances' in shown)
    return { problem: 'The simulated meter reads nothing there as the system stands in Trace.' }
  if ('word' in shown) return shown
  const rounded = shown.value === null ? null : Math.round(shown.value * 10) / 10
  return { value: rounded, unit: shown.unit } as Found
}
