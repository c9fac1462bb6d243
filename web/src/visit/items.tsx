import { itemKinds, severities, type Item, type Kept } from '@nobbet/contract'
import type { Installation } from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { momentText } from '../drawing/dates'
import { ItemPhotos } from './item-photos'
import { stampOf, type RecordHandle } from './use-record'
import { gravityMarks, gravityWords, itemWords } from './words'

/** Findings and work: found, done, advised, made safe, not ours. */
export function Items({ job, handle }: { job: string; handle: RecordHandle }) {
  const { record, store, state, visit } = handle
  const [editing, setEditing] = useState<string>()
  const [gone, setGone] = useState<Kept<Item>>()
  const items = record?.items ?? []
  const take = (item: Kept<Item>) => {
    setGone(item)
    void store.record({ do: 'item', id: item.id, item: null })
  }
  return (
    <section className="sheet items" aria-label="Found and done">
      <h2>Found and done</h2>
      {gone && (
        <p className="taken" role="status">
          Taken out.{' '}
          <button
            className="btn btn-link p-0"
            onClick={() => {
              const { id, ...item } = gone
              void store.record({ do: 'item', id, item })
              setGone(undefined)
            }}
          >
            Put it back
          </button>
        </p>
      )}
      <ul>
        {items.map((item) => (
          <li key={item.id} className={item.severity} data-item={item.id}>
            <p className="item-head">
              <strong>{itemWords[item.kind]}</strong>
              <span className={`gravity ${item.severity}`}>
                <span aria-hidden>{gravityMarks[item.severity]}</span> {gravityWords[item.severity]}
              </span>
              {item.part && <span className="part">{partName(state?.document.wiring, item.part)}</span>}
              <span className="quiet when">{momentText(item.at)}</span>
            </p>
            <p className="said">{item.text}</p>
            {item.evidence.length > 0 && (
              <details>
                <summary>{item.evidence.length === 1 ? '1 reading' : `${item.evidence.length} readings`}</summary>
                <ul>
                  {item.evidence.map((text) => (
                    <li key={text}>{text}</li>
                  ))}
                </ul>
              </details>
            )}
            <ItemPhotos job={job} item={item.id} visit={visit?.id} />
            <span className="buttons">
              <Button size="sm" variant="link" onClick={() => setEditing(editing === item.id ? undefined : item.id)}>
                Change
              </Button>
              <Button size="sm" variant="link" onClick={() => take(item)}>
                Take out
              </Button>
            </span>
            {editing === item.id && (
              <ItemForm
                wiring={state?.document.wiring}
                start={item}
                onKeep={(said) => {
                  const { id, evidence, at, visit: of } = item
                  void store.record({ do: 'item', id, item: { ...said, evidence, at, visit: of } })
                  setEditing(undefined)
                }}
              />
            )}
          </li>
        ))}
      </ul>
      <ItemForm
        wiring={state?.document.wiring}
        onKeep={(said) =>
          void store.record({ do: 'item', id: newId(), item: { ...said, evidence: [], ...stampOf(visit) } })
        }
      />
    </section>
  )
}

const partName = (wiring: Installation | undefined, part: string): string =>
  [...(wiring?.devices ?? []), ...(wiring?.wiringCentres ?? [])].find(({ id }) => id === part)?.name ??
  wiring?.cables.find(({ id }) => id === part)?.label ??
  part

type Said = Pick<Item, 'kind' | 'severity' | 'text' | 'part'>
const nothing: Said = { kind: 'found', severity: 'fault', text: '' }

function ItemForm({
  wiring,
  start = nothing,
  onKeep,
}: {
  wiring?: Installation
  start?: Said
  onKeep: (said: Said) => void
}) {
  const [said, setSaid] = useState<Said>(() => {
    const { kind, severity, text, part } = start
    return { kind, severity, text, ...(part && { part }) }
  })
  return (
    <Form
      className="item-form"
      aria-label={start === nothing ? 'Write down' : 'Change what is written'}
      onSubmit={(event) => {
        event.preventDefault()
        if (said.text.trim() === '') return
        const { part, ...rest } = said
        onKeep({ ...rest, text: said.text.trim(), ...(part && { part }) })
        setSaid({ ...nothing, kind: said.kind, severity: said.severity })
      }}
    >
      <div className="knob kinds" role="group" aria-label="What it is">
        {itemKinds.map((kind) => (
          <button
            key={kind}
            type="button"
            className={kind === said.kind ? 'on' : ''}
            aria-pressed={kind === said.kind}
            onClick={() => setSaid({ ...said, kind, severity: kind === 'found' ? said.severity : 'remark' })}
          >
            {itemWords[kind]}
          </button>
        ))}
      </div>
      <Form.Control
        as="textarea"
        rows={2}
        aria-label="What is written"
        placeholder="In a sentence, with the reading and its unit"
        value={said.text}
        maxLength={1000}
        onChange={(event) => setSaid({ ...said, text: event.target.value })}
      />
      <div className="add-line">
        <Form.Select
          aria-label="How grave"
          value={said.severity}
          onChange={(event) => setSaid({ ...said, severity: event.target.value as Said['severity'] })}
        >
          {severities.map((severity) => (
            <option key={severity} value={severity}>
              {gravityWords[severity]}
            </option>
          ))}
        </Form.Select>
        <Form.Select
          aria-label="Part"
          value={said.part ?? ''}
          onChange={(event) => setSaid({ ...said, part: event.target.value })}
        >
          <option value="">No one part</option>
          {[...(wiring?.devices ?? []), ...(wiring?.wiringCentres ?? [])].map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Form.Select>
        <Button type="submit" disabled={said.text.trim() === ''}>
          {start === nothing ? 'Write it down' : 'Keep'}
        </Button>
      </div>
    </Form>
  )
}
