import type { Control } from '@nobbet/core'
import { useState } from 'react'
import { Button } from 'react-bootstrap'

interface OneControlProps {
  control: Control
  /** How it stands already. */
  value?: string
  onSet: (value: string) => void
  /** A dial that nobody has read yet shows no figure. */
  blank?: boolean
}

/** A switch's positions, or a dial's figure. */
export function OneControl({ control, value, onSet, blank = false }: OneControlProps) {
  const [text, setText] = useState(value ?? (blank ? '' : String(control.initial)))
  return (
    <div className="one-control" role="group" aria-label={control.label}>
      <span>{control.label}</span>
      {control.kind === 'choice' ? (
        control.values.map(({ id, label }) => (
          <Button key={id} variant="outline-dark" aria-pressed={id === value} onClick={() => onSet(id)}>
            {label}
          </Button>
        ))
      ) : (
        <form
          className="d-flex gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (text !== '') onSet(text)
          }}
        >
          <input
            className="form-control"
            type="number"
            required
            min={control.min}
            max={control.max}
            aria-label={`${control.label} in ${control.unit}`}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <Button type="submit" variant="outline-dark">
            Set to {control.unit}
          </Button>
        </form>
      )}
    </div>
  )
}
