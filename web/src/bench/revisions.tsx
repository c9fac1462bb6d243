import { differencesOf, type Installation } from '@nobbet/core'
import type { Revision } from '@nobbet/contract'
import { useMemo, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { momentText } from '../drawing/dates'
import { useJob } from '../store/use-job'
import { DifferenceTable } from './difference-table'
import { useHand } from './hand'
import { Photos } from './photos'

const kindWords: Record<Revision['kind'], string> = {
  planned: 'Planned',
  'as-found': 'As found',
  altered: 'Altered',
  'as-left': 'As left',
}
const now = 'now'

/** Named states of the wiring, and any two of them side by side. */
export function Revisions({ job }: { job: string }) {
  const { doc } = useHand()
  const { state, store } = useJob(job)
  const [kind, setKind] = useState<Revision['kind']>('as-found')
  const [name, setName] = useState('')
  const list = state?.revisions ?? []
  return (
    <>
      <Form
        className="bench-add"
        onSubmit={(event) => {
          event.preventDefault()
          const entry = { do: 'keep', revision: newId(), kind, name: name.trim() || kindWords[kind] } as const
          void store.record(entry).then(() => setName(''))
        }}
      >
        <Form.Select
          aria-label="Kind of revision"
          value={kind}
          onChange={(e) => setKind(e.target.value as typeof kind)}
        >
          {Object.entries(kindWords).map(([id, word]) => (
            <option key={id} value={id}>
              {word}
            </option>
          ))}
        </Form.Select>
        <Form.Control
          aria-label="Name of the revision"
          placeholder="Name, for example Before the pump was changed"
          value={name}
          maxLength={120}
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="submit">Keep the wiring as it is now</Button>
      </Form>
      {list.length === 0 ? (
        <p className="quiet">Nothing is kept yet. A kept state never changes, and can be laid beside any other.</p>
      ) : (
        <Compare job={job} revisions={list} doc={doc} />
      )}
    </>
  )
}

function Compare({ job, revisions, doc }: { job: string; revisions: Revision[]; doc: Installation }) {
  const [left, setLeft] = useState(revisions[0].id)
  const [right, setRight] = useState(now)
  const of = (id: string) => (id === now ? doc : (revisions.find((r) => r.id === id)?.installation ?? doc))
  const choice = (label: string, value: string, set: (id: string) => void) => (
    <Form.Select aria-label={label} value={value} onChange={(e) => set(e.target.value)}>
      <option value={now}>As it is now</option>
      {revisions.map((r) => (
        <option key={r.id} value={r.id}>
          {kindWords[r.kind]}: {r.name}, {momentText(r.createdAt)}
        </option>
      ))}
    </Form.Select>
  )
  const before = of(left)
  const after = of(right)
  const differences = useMemo(() => differencesOf(before, after), [before, after])
  const shown = revisions.find((r) => r.id === left) ?? revisions.find((r) => r.id === right)
  return (
    <section className="compare" aria-label="Two states side by side">
      <div className="compare-heads">
        {choice('Left', left, setLeft)}
        {choice('Right', right, setRight)}
      </div>
      <DifferenceTable differences={differences} before={before} after={after} left="Left" right="Right" />
      {shown && <Photos job={job} revision={shown} />}
    </section>
  )
}
