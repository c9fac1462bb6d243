import type { RunPurpose } from '@nobbet/contract'
import type { RunOptions } from '@nobbet/core'
import { Form } from 'react-bootstrap'

interface RunOptionsFieldsProps {
  purpose: RunPurpose
  options: RunOptions
  onWant: (options: RunOptions) => void
}

/** How a run is wanted. */
export function RunOptionsFields({ purpose, options, onWant }: RunOptionsFieldsProps) {
  const check = (name: 'short' | 'helper' | 'coversOn' | 'insulation', label: string, hint: string) => (
    <Form.Check
      key={name}
      id={`run-${name}`}
      checked={options[name]}
      label={
        <>
          {label} <span className="quiet">{hint}</span>
        </>
      }
      onChange={(event) => onWant({ ...options, [name]: event.target.checked })}
    />
  )
  return (
    <div className="run-options">
      <div className="knob" role="group" aria-label="What goes first">
        {(['heating', 'hot-water'] as const).map((first) => (
          <button
            key={first}
            type="button"
            className={options.first === first ? 'on' : ''}
            aria-pressed={options.first === first}
            onClick={() => onWant({ ...options, first })}
          >
            {first === 'heating' ? 'Heating first' : 'Hot water first'}
          </button>
        ))}
      </div>
      {check('short', 'Short run', 'each demand alone: what stood still all summer is moved')}
      {check('helper', 'Somebody is at the controls', 'setting them costs no walk')}
      {purpose === 'leaving' && check('coversOn', 'Covers stay on', 'nothing is counted or measured behind one')}
      {purpose === 'leaving' && !options.coversOn && check('insulation', 'Insulation as well', 'to earth, isolated')}
    </div>
  )
}
