import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { momentText } from '../drawing/dates'
import { stampOf, type RecordHandle } from './use-record'

/** Who was told what, and when. */
export function ToldList({ handle }: { handle: RecordHandle }) {
  const { record, store, visit } = handle
  const [whom, setWhom] = useState('')
  const [what, setWhat] = useState('')
  const fits = whom.trim() !== '' && what.trim() !== ''
  return (
    <section className="sheet" aria-label="Who was told">
      <h2>Who was told</h2>
      <ul className="plain-list">
        {record?.told.map(({ id, ...told }) => (
          <li key={id} data-told={id}>
            <strong>{told.whom}</strong> {told.what} <span className="quiet">{momentText(told.at)}</span>
            <span className="buttons">
              <Button size="sm" variant="link" onClick={() => void store.record({ do: 'told', id, told: null })}>
                Take out
              </Button>
            </span>
          </li>
        ))}
      </ul>
      <Form
        className="add-line"
        onSubmit={(event) => {
          event.preventDefault()
          if (!fits) return
          const told = { whom: whom.trim(), what: what.trim(), ...stampOf(visit) }
          void store.record({ do: 'told', id: newId(), told })
          setWhat('')
        }}
      >
        <Form.Control
          aria-label="Whom"
          placeholder="Whom"
          value={whom}
          maxLength={120}
          onChange={(event) => setWhom(event.target.value)}
        />
        <Form.Control
          aria-label="What they were told"
          placeholder="What"
          value={what}
          maxLength={1000}
          onChange={(event) => setWhat(event.target.value)}
        />
        <Button type="submit" disabled={!fits}>
          Add
        </Button>
      </Form>
    </section>
  )
}
