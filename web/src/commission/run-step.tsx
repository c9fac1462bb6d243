import type { KeptRow } from '@nobbet/contract'
import { formatAction, isDeadRow, meets, type Found, type RowText, type RunRow } from '@nobbet/core'
import { Crosshair, RotateCcw } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useHotkeys } from 'react-hotkeys-hook'
import { Link } from 'react-router'
import { IsolationStep } from '../shell/isolation-step'
import { ByHand } from './by-hand'
import { NotSoPanel } from './not-so'
import { put } from './put'
import { doneRow, notSoRow, placesOf, type NotSo } from './row-done'
import { RowLooks } from './row-looks'
import { stoodText } from './stood-text'
import { Timer } from './timer'
import type { RunInHand } from './use-run'
import { outcomeMarks, outcomeText, outcomeWords } from './words'

interface RunStepProps {
  job: string
  hand: RunInHand
  /** As it is done now. */
  row: RunRow
  text: RowText
  number: number
  of: number
  /** What came of it, where that is known; of another wiring than the one now where `stale`. */
  came?: KeptRow
  stale: boolean
  /** The run up to here in Trace. */
  trace: string
  onNext?: () => void
  onHunt: () => void
}

/** One step, to be read at arm's length: what to do, what to expect where, and one press. */
export function RunStep(props: RunStepProps) {
  const { job, hand, row, text, number, of, came, stale, trace, onNext, onHunt } = props
  const [again, setAgain] = useState(false)
  const isOpen = !came || stale || again
  return (
    <section
      className="sheet run-step"
      aria-label="This step"
      data-row={row.id}
      data-step={JSON.stringify({ acts: row.acts.map(formatAction), waitMs: row.waitMs, looks: row.looks })}
    >
      <p className="quiet row-number">
        Step {number} of {of}, about {Math.max(1, Math.round(row.minutes))} min
        <Link to={trace}>{hand.isAltered ? 'What the wiring as drawn does' : 'What it should look like'}</Link>
      </p>
      <h2 className="row-title">{text.title}</h2>
      {came && stale && (
        <p className="row-stale" role="status">
          The wiring has been altered since this was done ({outcomeWords[came.how].toLowerCase()}): it asks for
          something else now. Do it again.
        </p>
      )}
      {text.amiss !== undefined && (
        <p className="row-stale" role="note">
          {text.amiss} <Link to={`/jobs/${job}/checks`}>Checks</Link>
        </p>
      )}
      {isOpen ? (
        <OpenRow key={`${row.id} ${came?.id}`} job={job} hand={hand} row={row} text={text} />
      ) : (
        <Came hand={hand} came={came} onAgain={() => setAgain(true)} onNext={onNext} onHunt={onHunt} />
      )}
    </section>
  )
}

function OpenRow({ job, hand, row, text }: Pick<RunStepProps, 'job' | 'hand' | 'row' | 'text'>) {
  const [found, setFound] = useState<ReadonlyMap<number, Found>>(new Map())
  const [wrong, setWrong] = useState<ReadonlyMap<number, string>>(new Map())
  const [note, setNote] = useState('')
  const [notSo, setNotSo] = useState<NotSo>()
  const [busy, setBusy] = useState(false)
  const byHand = row.byHand.map((check, i) =>
    check.check === 'stands' ? stoodText(hand, check, text.byHand[i]) : text.byHand[i],
  )
  const pressed = { circuit: hand.circuit, row, title: text.title, byHand }
  const isOtherwise = wrong.size > 0 || [...found].some(([i, was]) => !meets(row.looks[i], was))
  const write = (rest: boolean) => {
    if (busy) return
    setBusy(true)
    const how = isOtherwise ? 'otherwise' : 'as-expected'
    void hand.write(doneRow(pressed, found, wrong, how, rest, note.trim())).finally(() => setBusy(false))
  }
  useHotkeys(
    'enter',
    // A button or link that has the focus is what Enter presses.
    ({ target }) => {
      if (!(target instanceof Element && target.closest('button, a, summary'))) write(true)
    },
    { enabled: notSo === undefined && !isOtherwise },
    [found, wrong, note, busy],
  )
  return (
    <>
      {isDeadRow(row) && <IsolationStep job={job} before="the box is opened" />}
      {text.acts.length > 0 && (
        <ul className="run-do" aria-label="Do">
          {text.acts.map((act, i) => (
            <li key={i}>{act}</li>
          ))}
        </ul>
      )}
      {row.waitMs >= 5000 && <Timer key={row.id} ms={row.waitMs} />}
      {row.looks.length > 0 && (
        <RowLooks
          job={job}
          circuit={hand.circuit}
          looks={row.looks}
          places={placesOf(hand.circuit, row.looks)}
          found={found}
          onFound={(i, was) => setFound(put(found, i, was))}
        />
      )}
      {row.byHand.length > 0 && (
        <ByHand
          hand={hand}
          row={row}
          texts={text.byHand}
          wrong={wrong}
          onWrong={(i, said) => setWrong(put(wrong, i, said))}
        />
      )}
      {notSo ? (
        <NotSoPanel
          key={notSo}
          job={job}
          hand={hand}
          row={row}
          how={notSo}
          onBack={() => setNotSo(undefined)}
          onDone={(done) => void hand.write(notSoRow(pressed, done))}
        />
      ) : (
        <>
          <Form.Control
            className="row-note"
            aria-label="Remark"
            placeholder="Remark, if any"
            maxLength={500}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
          <div className="row-press">
            {isOtherwise ? (
              <>
                <Button size="lg" variant="danger" disabled={busy} onClick={() => write(true)}>
                  Not as expected; the rest is
                </Button>
                <Button size="lg" variant="outline-danger" disabled={busy} onClick={() => write(false)}>
                  Rest not looked at
                </Button>
              </>
            ) : (
              <Button size="lg" className="as-expected" disabled={busy} onClick={() => write(true)}>
                {pressWords(row)}
              </Button>
            )}
          </div>
          {row.kind !== 'as-it-stood' && (
            <div className="row-else">
              {(['another-way', 'deferred', 'left-out'] as const).map((how) => (
                <Button key={how} variant="outline-dark" onClick={() => setNotSo(how)}>
                  {outcomeWords[how]}
                </Button>
              ))}
            </div>
          )}
        </>
      )}
    </>
  )
}

const pressWords = ({ kind, looks, byHand }: RunRow): string => {
  if (kind === 'as-it-stood') return 'Written down'
  if (looks.length > 0) return '✓ As expected'
  return byHand.length > 0 ? '✓ Seen to' : '✓ Done'
}

interface CameProps {
  hand: RunInHand
  came: KeptRow
  onAgain: () => void
  onNext?: () => void
  onHunt: () => void
}

/** What came of it; and where it was not as expected, what to do about it. */
function Came({ hand, came, onAgain, onNext, onHunt }: CameProps) {
  const earlier = hand.run?.done.filter(({ row, id }) => row === came.row && id !== came.id) ?? []
  return (
    <>
      <p className={`row-came ${came.how}`} role="status">
        <span aria-hidden>{outcomeMarks[came.how]}</span> {outcomeText(came)}
      </p>
      {earlier.length > 0 && (
        <ul className="row-earlier" aria-label="Earlier">
          {earlier.map((one) => (
            <li key={one.id}>
              Before: <span aria-hidden>{outcomeMarks[one.how]}</span> {outcomeText(one)}
            </li>
          ))}
        </ul>
      )}
      <div className="row-press">
        {came.how === 'otherwise' && (
          <Button size="lg" variant="danger" onClick={onHunt}>
            <Crosshair size={20} aria-hidden /> Hunt it, with all that is known
          </Button>
        )}
        {onNext && (
          <Button size="lg" variant={came.how === 'otherwise' ? 'outline-dark' : 'primary'} onClick={onNext}>
            Go on
          </Button>
        )}
      </div>
      <div className="row-else">
        <Button variant="outline-dark" onClick={onAgain}>
          <RotateCcw size={18} aria-hidden /> Do it again
        </Button>
        <Button variant="outline-dark" onClick={() => hand.takeBack(came.id)}>
          Take it back
        </Button>
      </div>
    </>
  )
}
