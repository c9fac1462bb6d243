import type { DeviceType } from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'

/** The whole type as text, for what the form does not reach; taken over when it can be read. */
export function JsonTab({ type, onType }: { type: DeviceType; onType: (type: DeviceType) => void }) {
  const [text, setText] = useState(() => JSON.stringify(type, null, 2))
  const [problem, setProblem] = useState<string>()
  return (
    <Form.Group controlId="type-json">
      <Form.Label>The whole type, as docs/catalogue.md describes it</Form.Label>
      <Form.Control
        as="textarea"
        rows={24}
        className="mono"
        value={text}
        isInvalid={problem !== undefined}
        onChange={(e) => setText(e.target.value)}
        spellCheck={false}
      />
      {problem && <p className="wrong">{problem}</p>}
      <Button
        className="mt-2"
        onClick={() => {
          try {
            const read = JSON.parse(text) as DeviceType & { format?: string }
            const lists = ['terminals', 'controls', 'settings', 'primitives', 'inputs'] as const
            if (!lists.every((key) => Array.isArray(read[key])))
              throw new Error(`lists are needed of ${lists.join(', ')}`)
            delete read.format
            setProblem(undefined)
            onType({ ...read, id: type.id, version: type.version })
          } catch (error) {
            setProblem(`This cannot be read: ${(error as Error).message}`)
          }
        }}
      >
        Take it over
      </Button>
    </Form.Group>
  )
}
