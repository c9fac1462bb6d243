import { Check, CornerUpLeft } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import type { JobStore } from '../store/job-store'
import { LeaveForNow } from './leave-for-now'
import { putBack } from './put-back'
import type { RecordHandle } from './use-record'

/** What is most often disturbed, so that it is written down with one press. */
const usual = ['Cover off', 'Plate off', 'Core lifted', 'Link in', 'Dial turned', 'Hygiene run switched off'] as const

/** What has been disturbed and has to go back before anybody leaves: each thing is put back, stays, or is left until a day. */
export function PutBackList({ handle }: { handle: RecordHandle }) {
  const { left, store } = handle
  const [leaving, setLeaving] = useState<string>()
  return (
    <ul className="left-open">
      {left.map((one) => (
        <li key={one.id} data-left={one.id}>
          <span className="act">{one.text}</span>
          <span className="buttons">
            <Button variant="outline-primary" onClick={() => void putBack(store, one)}>
              <CornerUpLeft size={18} aria-hidden /> Put back
            </Button>
            {one.by !== 'hunt' && (
              <Button
                variant="outline-dark"
                onClick={() => void store.record({ do: 'settle', disturbed: one.id, how: 'stays' })}
              >
                Stays so
              </Button>
            )}
            <Button
              variant="link"
              aria-expanded={leaving === one.id}
              onClick={() => setLeaving(leaving === one.id ? undefined : one.id)}
            >
              Leave it for now
            </Button>
          </span>
          {leaving === one.id && <LeaveForNow handle={handle} open={one} onDone={() => setLeaving(undefined)} />}
        </li>
      ))}
    </ul>
  )
}

/** Something disturbed that no act of a hunt and no change of the wiring tells of. */
export function AddDisturbed({ store }: { store: JobStore }) {
  const [text, setText] = useState('')
  const add = (what: string) => void store.record({ do: 'disturb', disturbed: { id: newId(), what } })
  return (
    <Form
      className="add-disturbed"
      onSubmit={(event) => {
        event.preventDefault()
        if (text.trim() === '') return
        add(text.trim())
        setText('')
      }}
    >
      <div className="chips" role="group" aria-label="Disturbed">
        {usual.map((what) => (
          <Button key={what} variant="outline-dark" onClick={() => setText(`${what}: `)}>
            {what}
          </Button>
        ))}
      </div>
      <div className="add-line">
        <Form.Control
          aria-label="What was disturbed"
          placeholder="What was disturbed, and where"
          value={text}
          maxLength={300}
          onChange={(event) => setText(event.target.value)}
        />
        <Button type="submit" disabled={text.trim() === ''}>
          <Check size={18} aria-hidden /> Add
        </Button>
      </div>
    </Form>
  )
}
