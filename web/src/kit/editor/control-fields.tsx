import type { Control } from '@nobbet/core'
import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { Choice, Figure, Text } from './fields'
import { without } from './ids'

/** The fields of a switch or a dial. */
export function ControlFields({ control: c, onControl }: { control: Control; onControl: (c: Control) => void }) {
  if (c.kind === 'number')
    return (
      <>
        <Text label="Dial" value={c.label} onValue={(label) => onControl({ ...c, label })} />
        <Text label="Unit" value={c.unit} onValue={(unit) => onControl({ ...c, unit })} />
        {(['min', 'initial', 'max', 'step'] as const).map((key) => (
          <Figure
            key={key}
            label={{ min: 'Least', initial: 'As it comes', max: 'Most', step: 'Step' }[key]}
            value={c[key]}
            onValue={(v) => v !== undefined && onControl({ ...c, [key]: v })}
          />
        ))}
        <Choice
          label="Feels"
          optional
          value={c.feels}
          options={[
            ['room', 'the room'],
            ['cylinder', 'the cylinder'],
            ['outdoors', 'the air outdoors'],
            ['water', 'its own water'],
            ['return', 'the return'],
          ]}
          onValue={(feels) =>
            onControl(without({ ...c, feels: feels as typeof c.feels, ambient: feels ? true : undefined }))
          }
        />
        <Text label="Id" mono value={c.id} onValue={(id) => onControl({ ...c, id })} />
      </>
    )
  const words = c.values.map((v) => v.label).join(', ')
  return (
    <>
      <Text label="Switch" value={c.label} onValue={(label) => onControl({ ...c, label })} />
      <Positions
        key={words}
        words={words}
        onWords={(labels) => {
          const values = labels.map((label, i) => ({ id: c.values[i]?.id ?? slug(label), label }))
          onControl({
            ...c,
            values,
            initial: values.some((v) => v.id === c.initial) ? c.initial : (values[0]?.id ?? ''),
          })
        }}
      />
      <Choice
        label="As it comes"
        value={c.initial}
        options={c.values.map((v) => [v.id, v.label] as const)}
        onValue={(initial) => initial && onControl({ ...c, initial })}
      />
      <Text label="Id" mono value={c.id} onValue={(id) => onControl({ ...c, id })} />
    </>
  )
}

const slug = (label: string) =>
  label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'position'

/** The positions of a switch, written one after the other. */
function Positions({ words, onWords }: { words: string; onWords: (labels: string[]) => void }) {
  const [text, setText] = useState(words)
  const leave = () => {
    const labels = text
      .split(',')
      .map((w) => w.trim())
      .filter(Boolean)
    if (labels.join(', ') !== words) onWords(labels)
  }
  return (
    <Form.Group>
      <Form.Label>
        Positions
        <Form.Control value={text} onChange={(e) => setText(e.target.value)} onBlur={leave} />
      </Form.Label>
    </Form.Group>
  )
}
