import type { Part } from '@nobbet/contract'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { stampOf, type RecordHandle } from './use-record'
import { partWords } from './words'

/** Parts that were used, and parts to bring next time. */
export function Parts({ handle }: { handle: RecordHandle }) {
  const { record, store, visit } = handle
  const [what, setWhat] = useState('')
  const [count, setCount] = useState('1')
  const [use, setUse] = useState<Part['use']>('used')
  const number = Number(count)
  const fits = what.trim() !== '' && Number.isInteger(number) && number >= 1 && number <= 999
  return (
    <section className="sheet" aria-label="Parts">
      <h2>Parts</h2>
      <ul className="plain-list">
        {record?.parts.map(({ id, ...part }) => (
          <li key={id} data-part={id}>
            <strong>{partWords[part.use]}</strong> {part.count} × {part.what}
            <span className="buttons">
              {part.use === 'bring' && (
                <Button
                  size="sm"
                  variant="link"
                  onClick={() =>
                    void store.record({ do: 'part', id, part: { ...part, use: 'used', ...stampOf(visit) } })
                  }
                >
                  Used now
                </Button>
              )}
              <Button size="sm" variant="link" onClick={() => void store.record({ do: 'part', id, part: null })}>
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
          const part = { what: what.trim(), count: number, use, ...stampOf(visit) }
          void store.record({ do: 'part', id: newId(), part })
          setWhat('')
          setCount('1')
        }}
      >
        <Form.Select
          aria-label="Used or to bring"
          value={use}
          onChange={(event) => setUse(event.target.value as Part['use'])}
        >
          <option value="used">Used</option>
          <option value="bring">To bring</option>
        </Form.Select>
        <Form.Control
          className="count"
          aria-label="How many"
          inputMode="numeric"
          value={count}
          isInvalid={count !== '' && !(number >= 1 && number <= 999)}
          onChange={(event) => setCount(event.target.value)}
        />
        <Form.Control
          aria-label="Which part"
          placeholder="Two-port head, 230 V"
          value={what}
          maxLength={200}
          onChange={(event) => setWhat(event.target.value)}
        />
        <Button type="submit" disabled={!fits}>
          Add
        </Button>
      </Form>
    </section>
  )
}
