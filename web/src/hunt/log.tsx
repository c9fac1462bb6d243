import { weighed, type LogLine } from '@nobbet/contract'
import { deviceSetOf, huntEntryText, passes, settle, waitOf, waitText, type HuntEntry } from '@nobbet/core'
import { ChevronDown, ChevronUp, Undo2 } from 'lucide-react'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { momentText } from '../drawing/dates'
import { Answers } from './answers'
import type { HuntScreen } from './hunt-screen'
import { OneControl } from './one-control'

/** What was done, seen and heard, in order: each line can be changed, moved, taken back. */
export function HuntLog({ screen }: { screen: HuntScreen }) {
  const { lines, writer, view } = screen
  const [open, setOpen] = useState<string>()
  const [taken, setTaken] = useState<{ lines: LogLine[]; before?: string }>()
  const takeBack = (line: LogLine) => {
    const with_ = line.older ? lines.filter(({ older }) => older === line.older) : [line, ...sameRemedy(lines, line)]
    const at = lines.findIndex(({ entry }) => entry.id === line.entry.id)
    const after = lines.slice(at + with_.length).find(({ older }) => older === undefined)
    setTaken(line.older ? undefined : { lines: with_, before: after?.entry.id })
    setOpen(undefined)
    writer.takeBack(with_)
  }
  const doubtful = new Set((view.standing?.contradictions ?? []).map(({ id }) => id))
  return (
    <section className="sheet finding-log" aria-label="Log">
      <h2>Log</h2>
      {taken && (
        <p className="taken" role="status">
          Taken back.{' '}
          <button
            className="btn btn-link"
            onClick={() => {
              writer.putBack(taken.lines, taken.before)
              setTaken(undefined)
            }}
          >
            Put it back
          </button>
        </p>
      )}
      {lines.length === 0 && (
        <p className="quiet">Nothing yet. Answer the card, or enter what you have noticed already.</p>
      )}
      <ol>
        {lines.map((line, i) =>
          isWithBefore(lines, i) ? null : (
            <Line
              key={line.entry.id}
              screen={screen}
              line={line}
              number={i + 1}
              more={sameRemedy(lines, line).length}
              doubtful={doubtful.has(line.entry.id)}
              open={open === line.entry.id}
              onOpen={() => setOpen(open === line.entry.id ? undefined : line.entry.id)}
              onTakeBack={() => takeBack(line)}
            />
          ),
        )}
      </ol>
    </section>
  )
}

/** Was this put right by the same remedy as the line before it? One press wrote both. */
function isWithBefore(lines: readonly LogLine[], i: number): boolean {
  const [before, line] = [lines[i - 1], lines[i]]
  return i > 0 && 'mended' in before.entry && 'mended' in line.entry && before.at === line.at
}

/** The lines behind this one that the same remedy put right. */
function sameRemedy(lines: readonly LogLine[], line: LogLine): LogLine[] {
  const from = lines.indexOf(line) + 1
  const rest = lines.slice(from)
  const end = rest.findIndex((_, i) => !isWithBefore(lines, from + i))
  return end < 0 ? rest : rest.slice(0, end)
}

interface LineProps {
  screen: HuntScreen
  line: LogLine
  number: number
  /** How much more the same remedy put right. */
  more: number
  doubtful: boolean
  open: boolean
  onOpen: () => void
  onTakeBack: () => void
}

const kindOf = (entry: HuntEntry): 'act' | 'seen' | 'said' | 'mended' =>
  'see' in entry ? 'seen' : 'do' in entry ? 'act' : 'says' in entry || 'blamed' in entry ? 'said' : 'mended'
const kindWords = { act: 'Done', seen: 'Found', said: 'Heard', mended: 'Mended' } as const

const waits = ['wait=5s', 'wait=20s', 'wait=40s', 'wait=2min', 'wait=5min', settle]

/** What was done, to be said otherwise: another position, another time. What was done to the wiring is taken back instead. */
function ActAgain({ screen, act, onAct }: { screen: HuntScreen; act: string; onAct: (act: string) => void }) {
  const { circuit } = screen
  if (passes(act))
    return (
      <div className="one-control" role="group" aria-label="Waited">
        <span>Waited</span>
        {waits.map((one) => (
          <Button key={one} variant="outline-dark" aria-pressed={one === act} onClick={() => onAct(one)}>
            {one === settle ? 'Until all was at rest' : waitText(waitOf(one) ?? 0)}
          </Button>
        ))}
      </div>
    )
  const device = deviceSetOf(act)
  const at = device === undefined ? undefined : circuit.deviceIndex.get(device)
  const [name, value] = act.split('=')
  const control =
    at === undefined ? undefined : circuit.devices[at].type.controls.find((c) => `${device}.${c.id}` === name)
  return control ? <OneControl control={control} value={value} onSet={(next) => onAct(`${name}=${next}`)} /> : null
}

/** A line in words; undefined of what the present wiring does not have, before it is known to be set aside. */
function textOf({ circuit, labelOf }: HuntScreen, entry: HuntEntry, before: readonly HuntEntry[]): string | undefined {
  try {
    return huntEntryText(circuit, entry, before, labelOf)
  } catch {
    return undefined
  }
}

function Line({ screen, line, number, more, doubtful, open, onOpen, onTakeBack }: LineProps) {
  const { lines, view, writer } = screen
  const { entry, at, note, older } = line
  const misfit = line.gone
    ? { reason: 'the present wiring does not have it' }
    : view.aside.find((one) => one.entry === entry.id)
  const before = weighed(lines.slice(0, number - 1))
  const kind = kindOf(entry)
  const text = textOf(screen, entry, before)
  const [remark, setRemark] = useState(note)
  return (
    <li className={`${kind}${misfit ? ' aside' : ''}${doubtful ? ' doubtful-line' : ''}`} data-line={entry.id}>
      <button type="button" className="line-head" aria-expanded={open} onClick={onOpen}>
        <span className="no">{number}</span>
        <span className="kind">{kindWords[kind]}</span>
        <span className="what">
          {misfit ? 'Something no longer there' : (text ?? 'Something the present wiring does not have')}
          {more > 0 && <span className="quiet">and {more} more that the same remedy cures</span>}
          {doubtful && <strong className="mistaken"> Perhaps mistaken</strong>}
          {misfit && <span className="quiet">Set aside: {misfit.reason}</span>}
          {note && <span className="quiet">{note}</span>}
        </span>
        <span className="when quiet">{momentText(at)}</span>
      </button>
      {open && (
        <div className="line-open">
          {'see' in entry && entry.after === undefined && !older && !misfit && (
            <Answers
              screen={screen}
              see={entry.see}
              onAnswer={(found) => {
                writer.edit({ ...line, entry: { ...entry, found } })
                onOpen()
              }}
            />
          )}
          {'do' in entry && !older && !misfit && (
            <ActAgain
              screen={screen}
              act={entry.do}
              onAct={(act) => {
                writer.edit({ ...line, entry: { ...entry, do: act } })
                onOpen()
              }}
            />
          )}
          {!older && (
            <form
              className="remark"
              onSubmit={(event) => {
                event.preventDefault()
                writer.edit({ ...line, note: remark })
                onOpen()
              }}
            >
              <input
                className="form-control"
                aria-label={`Remark on line ${number}`}
                placeholder="Remark"
                value={remark}
                maxLength={500}
                onChange={(event) => setRemark(event.target.value)}
              />
              <Button type="submit" variant="outline-dark" disabled={remark === note}>
                Keep
              </Button>
            </form>
          )}
          <div className="line-moves">
            {!older && (
              <>
                <Button
                  variant="outline-dark"
                  aria-label={`Line ${number} earlier`}
                  onClick={() => writer.move(entry.id, -1)}
                >
                  <ChevronUp size={18} aria-hidden /> Earlier
                </Button>
                <Button
                  variant="outline-dark"
                  aria-label={`Line ${number} later`}
                  onClick={() => writer.move(entry.id, 1)}
                >
                  <ChevronDown size={18} aria-hidden /> Later
                </Button>
              </>
            )}
            <Button variant="outline-danger" aria-label={`Take back line ${number}`} onClick={onTakeBack}>
              <Undo2 size={18} aria-hidden /> Take back
            </Button>
          </div>
        </div>
      )}
    </li>
  )
}
