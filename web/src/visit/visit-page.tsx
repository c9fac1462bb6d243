import { FileText, LogOut, Play, ShieldCheck, Undo2 } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { momentText } from '../drawing/dates'
import { IsolationStep } from '../shell/isolation-step'
import { Failed, Loading } from '../shell/notes'
import { useJob } from '../store/use-job'
import { beginVisit } from './begin-visit'
import { FollowUps } from './follow-ups'
import { ItemPhotos } from './item-photos'
import { Items } from './items'
import { Measures } from './measures'
import { Parts } from './parts'
import { AddDisturbed, PutBackList } from './put-back-list'
import { ToldList } from './told'
import { useRecord, type RecordHandle } from './use-record'

/** One visit and what it leaves: what is to be put back, what was found and done, what is left until a day. */
export function VisitPage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  const handle = useRecord(job)
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the visits" />
  return (
    <main className="page visit-page">
      <h1 className="visually-hidden">Visit</h1>
      <OpenVisit job={job} handle={handle} />
      <div className="visit-columns">
        <div>
          <PutBackSheet handle={handle} />
          <Items job={job} handle={handle} />
        </div>
        <div>
          <Measures handle={handle} />
          <FollowUps job={job} handle={handle} />
          <Parts handle={handle} />
          <ToldList handle={handle} />
          <section className="sheet" aria-label="Photos of the job">
            <h2>Photos</h2>
            <ItemPhotos job={job} visit={handle.visit?.id} />
          </section>
          <History handle={handle} />
        </div>
      </div>
    </main>
  )
}

function OpenVisit({ job, handle }: { job: string; handle: RecordHandle }) {
  const { visit, store, left, record } = handle
  const [why, setWhy] = useState('')
  const [tried, setTried] = useState(false)
  const handover = (
    <Link className="btn btn-outline-primary" to={`/jobs/${job}/visit/handover`}>
      <FileText size={18} aria-hidden /> Handover
    </Link>
  )
  if (!visit)
    return (
      <section className="sheet open-visit none" aria-label="The visit">
        <Form
          className="add-line"
          onSubmit={(event) => {
            event.preventDefault()
            void beginVisit(store, why.trim()).then(() => setWhy(''))
          }}
        >
          <h2>No visit is open</h2>
          <Form.Control
            aria-label="Why you are here"
            placeholder="Why you are here"
            value={why}
            maxLength={300}
            onChange={(event) => setWhy(event.target.value)}
          />
          <Button type="submit" size="lg">
            <Play size={18} aria-hidden /> Begin {record?.visits.length ? 'the next visit' : 'a visit'}
          </Button>
          {handover}
        </Form>
      </section>
    )
  const change = (part: { who?: string; why?: string }) => {
    const { id, who, why: reason, at } = visit
    void store.record({ do: 'visit', visit: { id, who, why: reason, at, ...part } })
  }
  return (
    <section className="sheet open-visit" aria-label="The visit">
      <div className="visit-head">
        <h2>
          <span className="dot" aria-hidden /> Visit {record!.visits.indexOf(visit) + 1}, since {momentText(visit.at)}
        </h2>
        <Told label="Who" value={visit.who} placeholder="Who is here" onKeep={(who) => change({ who })} />
        <Told
          label="Why"
          value={visit.why}
          placeholder="Why you are here"
          onKeep={(reason) => change({ why: reason })}
        />
        <span className="buttons">
          {handover}
          <Button
            onClick={() => {
              setTried(left.length > 0)
              if (left.length === 0) void store.record({ do: 'visit-ends', visit: visit.id })
            }}
          >
            <LogOut size={18} aria-hidden /> End the visit
          </Button>
        </span>
      </div>
      {visit.isolated ? (
        <p className="quiet isolated">
          <ShieldCheck size={18} aria-hidden /> Isolation step acknowledged {momentText(visit.isolated)}
        </p>
      ) : (
        <IsolationStep job={job} before="any cover comes off" />
      )}
      {tried && left.length > 0 && (
        <p className="refused" role="alert">
          The visit is not ended: {left.length === 1 ? 'one thing is' : `${left.length} things are`} to be put back. Put
          each back, say that it stays so, or leave it for now with a day.
        </p>
      )}
    </section>
  )
}

/** A line of text that is kept when it is left. */
function Told({
  label,
  value,
  placeholder,
  onKeep,
}: {
  label: string
  value: string
  placeholder: string
  onKeep: (text: string) => void
}) {
  const [text, setText] = useState<string>()
  return (
    <Form.Control
      aria-label={label}
      placeholder={placeholder}
      value={text ?? value}
      maxLength={120}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (text !== undefined && text.trim() !== value) onKeep(text.trim())
        setText(undefined)
      }}
    />
  )
}

function PutBackSheet({ handle }: { handle: RecordHandle }) {
  const { left, record, store } = handle
  const settled = record?.disturbed.filter((one) => one.settled) ?? []
  return (
    <section
      className={left.length > 0 ? 'sheet put-back-sheet some' : 'sheet put-back-sheet'}
      aria-label="To put back"
    >
      <h2>
        To put back <span className="count">{left.length}</span>
      </h2>
      {left.length === 0 && <p className="quiet">Nothing that Nobbet knows of is disturbed.</p>}
      <PutBackList handle={handle} />
      <AddDisturbed store={store} />
      {settled.length > 0 && (
        <details>
          <summary>{settled.length} settled</summary>
          <ul className="plain-list">
            {settled.map(({ id, what, settled: how }) => (
              <li key={id}>
                {what} <strong>{how?.how === 'stays' ? 'stays so' : 'is put back'}</strong>
                <span className="buttons">
                  <Button
                    size="sm"
                    variant="link"
                    onClick={() => void store.record({ do: 'settle', disturbed: id, how: null })}
                  >
                    <Undo2 size={16} aria-hidden /> Not so
                  </Button>
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

/** The visits there were, the last one first. */
function History({ handle }: { handle: RecordHandle }) {
  const { record, store, visit } = handle
  const ended = record?.visits.filter((one) => one.ended) ?? []
  if (ended.length === 0) return null
  return (
    <section className="sheet" aria-label="Earlier visits">
      <h2>Earlier visits</h2>
      <ul className="plain-list">
        {ended.toReversed().map((one) => (
          <li key={one.id}>
            <strong>{momentText(one.at)}</strong> {one.who}
            {one.why && `, ${one.why}`}
            <span className="quiet"> until {momentText(one.ended!)}</span>
            {!visit && one === ended.at(-1) && (
              <span className="buttons">
                <Button
                  size="sm"
                  variant="link"
                  onClick={() => void store.record({ do: 'visit-goes-on', visit: one.id })}
                >
                  It goes on
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
