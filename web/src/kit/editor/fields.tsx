import { useId, useState, type ReactNode } from 'react'
import { Form } from 'react-bootstrap'

interface TextProps {
  label: string
  value: string
  onValue: (value: string) => void
  long?: boolean
  mono?: boolean
}

/** A text that is taken over as it is typed. */
export function Text({ label, value, onValue, long, mono }: TextProps) {
  const id = useId()
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      {long ? (
        <Form.Control as="textarea" rows={3} value={value} onChange={(e) => onValue(e.target.value)} />
      ) : (
        <Form.Control className={mono ? 'mono' : undefined} value={value} onChange={(e) => onValue(e.target.value)} />
      )}
    </Form.Group>
  )
}

interface NumberProps {
  label: string
  unit?: string
  value: number | undefined
  onValue: (value: number | undefined) => void
  optional?: boolean
}

/** A number with its unit; what is no number yet stays as it is typed. */
export function Figure({ label, unit, value, onValue, optional }: NumberProps) {
  const id = useId()
  const [text, setText] = useState<string>()
  return (
    <Form.Group controlId={id}>
      <Form.Label>
        {label}
        {unit ? `, ${unit}` : ''}
      </Form.Label>
      <Form.Control
        type="text"
        inputMode="decimal"
        value={text ?? value ?? ''}
        placeholder={optional ? 'left out' : undefined}
        isInvalid={text !== undefined && text.trim() !== '' && !Number.isFinite(Number(text))}
        onChange={(e) => {
          const typed = e.target.value
          setText(typed)
          if (typed.trim() === '') {
            if (optional) onValue(undefined)
          } else if (Number.isFinite(Number(typed))) onValue(Number(typed))
        }}
        onBlur={() => setText(undefined)}
      />
    </Form.Group>
  )
}

interface ChoiceProps {
  label: string
  value: string | undefined
  options: readonly (readonly [id: string, text: string])[]
  onValue: (value: string | undefined) => void
  optional?: boolean
}

/** One of several; a value that is not among them is shown, so that it can be seen to be wrong. */
export function Choice({ label, value, options, onValue, optional }: ChoiceProps) {
  const id = useId()
  const there = value === undefined || options.some(([o]) => o === value)
  return (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Select
        value={value ?? ''}
        isInvalid={!there}
        onChange={(e) => onValue(e.target.value === '' ? undefined : e.target.value)}
      >
        {(optional || value === undefined) && <option value="">{optional ? 'none' : 'choose'}</option>}
        {!there && <option value={value}>{value} (not there)</option>}
        {options.map(([o, text]) => (
          <option key={o} value={o}>
            {text}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  )
}

interface RowsProps<T> {
  title: string
  rows: readonly T[]
  /** What is wrong in each row, by its number. */
  wrong: (row: number) => string[]
  add: { label: string; make: () => T }
  onRows: (rows: T[]) => void
  children: (row: T, change: (row: T) => void, index: number) => ReactNode
}

/** A list whose rows are added, taken out and moved. */
export function Rows<T>({ title, rows, wrong, add, onRows, children }: RowsProps<T>) {
  const move = (i: number, by: number) => {
    const all = [...rows]
    const [row] = all.splice(i, 1)
    all.splice(i + by, 0, row)
    onRows(all)
  }
  return (
    <section className="rows" aria-label={title}>
      {rows.map((row, i) => (
        <div key={i} className={wrong(i).length > 0 ? 'row-card bad' : 'row-card'}>
          <div className="row-fields">
            {children(row, (next) => onRows(rows.map((r, k) => (k === i ? next : r))), i)}
          </div>
          <div className="row-acts">
            <button aria-label={`Move up, ${title} ${i + 1}`} disabled={i === 0} onClick={() => move(i, -1)}>
              ↑
            </button>
            <button
              aria-label={`Move down, ${title} ${i + 1}`}
              disabled={i === rows.length - 1}
              onClick={() => move(i, 1)}
            >
              ↓
            </button>
            <button aria-label={`Take out, ${title} ${i + 1}`} onClick={() => onRows(rows.filter((_, k) => k !== i))}>
              ×
            </button>
          </div>
          {wrong(i).map((reason) => (
            <p key={reason} className="wrong">
              {reason}
            </p>
          ))}
        </div>
      ))}
      <button className="btn btn-outline-dark" onClick={() => onRows([...rows, add.make()])}>
        {add.label}
      </button>
    </section>
  )
}
