import { errorText } from '../api/client'
import { differencesOf, type Installation } from '@nobbet/core'
import type { Revision, RevisionWrite } from '@nobbet/contract'
import { useMemo, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { useRevisions, useSaveRevision } from '../api/hooks'
import { momentText } from '../drawing/dates'
import { useHand } from './hand'
import { Photos } from './photos'

const kindWords: Record<RevisionWrite['kind'], string> = {
  planned: 'Planned',
  'as-found': 'As found',
  altered: 'Altered',
}
const now = 'now'

/** Named states of the wiring, and any two of them side by side. */
export function Revisions({ job }: { job: string }) {
  const { doc } = useHand()
  const revisions = useRevisions(job)
  const keep = useSaveRevision(job)
  const [kind, setKind] = useState<RevisionWrite['kind']>('as-found')
  const [name, setName] = useState('')
  const list = revisions.data ?? []
  return (
    <>
      <Form
        className="bench-add"
        onSubmit={(event) => {
          event.preventDefault()
          const write = { kind, name: name.trim() || kindWords[kind], installation: doc }
          keep.mutate({ id: newId(), write }, { onSuccess: () => setName('') })
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
        <Button type="submit" disabled={keep.isPending}>
          Keep the wiring as it is now
        </Button>
        {keep.error && (
          <span role="alert" className="text-danger">
            Not kept: {errorText(keep.error)}
          </span>
        )}
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
  const { conductors, links, devices, same } = useMemo(() => differencesOf(before, after), [before, after])
  const shown = revisions.find((r) => r.id === left) ?? revisions.find((r) => r.id === right)
  const none = conductors.length + links.length + devices.length === 0
  return (
    <section className="compare" aria-label="Two states side by side">
      <div className="compare-heads">
        {choice('Left', left, setLeft)}
        {choice('Right', right, setRight)}
      </div>
      <p className="compare-sum">
        {none
          ? 'No conductor, link or device differs.'
          : `${conductors.length} conductors differ, ${same} are the same.`}
      </p>
      {conductors.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              <th scope="col">Conductor</th>
              <th scope="col">Left</th>
              <th scope="col">Right</th>
            </tr>
          </thead>
          <tbody>
            {conductors.map((c) => (
              <tr key={`${c.cable}.${c.core}`} data-change={c.change}>
                <td>{c.name}</td>
                <td>{c.before?.join(' to ') ?? 'not there'}</td>
                <td>{c.after?.join(' to ') ?? 'not there'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {links.length > 0 && (
        <ul>
          {links.map((l) => (
            <li key={`${l.name} ${l.change}`}>
              Link {l.name}: {l.change}
            </li>
          ))}
        </ul>
      )}
      {devices.length > 0 && (
        <ul>
          {devices.map((d) => (
            <li key={d.id}>
              {d.name}: {d.change}
            </li>
          ))}
        </ul>
      )}
      {shown && <Photos job={job} revision={shown} />}
    </section>
  )
}
