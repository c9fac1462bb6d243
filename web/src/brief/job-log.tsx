import type { Entry, Finding, HuntLine, LogEntry } from '@nobbet/contract'
import { compile, entriesOf, fitsCircuit, huntEntryText, type Circuit } from '@nobbet/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { call, errorText } from '../api/client'
import { momentText } from '../drawing/dates'
import type { JobStore } from '../store/job-store'
import type { JobView } from '../store/job-view'
import { here } from '../store/stores'
import { ownName, setOwnName } from '../store/who'
import { outcomeText } from '../commission/words'
import { itemWords, partWords } from '../visit/words'

/** Entries shown at first; the rest on request. */
const shownAtFirst = 12

/** Everything recorded of a job, the newest first, and a line to add to it. */
export function JobLog({ job, view, store }: { job: string; view: JobView; store: JobStore }) {
  const [all, setAll] = useState(false)
  const sent = useQuery({
    queryKey: ['log', job, view.state?.number],
    placeholderData: keepPreviousData,
    networkMode: 'always',
    retry: false,
    queryFn: () => call('readLog', { params: { job } }),
  })
  const waiting = useQuery({
    queryKey: ['log', job, 'unsent', view.unsent, view.state?.number],
    placeholderData: keepPreviousData,
    networkMode: 'always',
    queryFn: async () => (await here.read(job)).pending.flatMap((p) => (p.kind === 'entry' ? [p.logged] : [])),
  })
  const wiring = view.state?.document.wiring
  const circuit = useMemo(() => wiring && compile(wiring), [wiring])
  const known = sent.data?.entries ?? []
  const arrived = new Set(known.map((e) => e.id))
  const entries: (LogEntry & { number?: number; device?: string })[] = [
    ...known,
    ...(waiting.data ?? []).filter((e) => !arrived.has(e.id)),
  ].reverse()
  const shown = all ? entries : entries.slice(0, shownAtFirst)
  return (
    <section className="sheet job-log" aria-label="Log of this job">
      <h2>Log</h2>
      <Add store={store} />
      {sent.error && (
        <p className="quiet" role="status">
          What was sent cannot be shown now. {errorText(sent.error)}
        </p>
      )}
      <ol reversed start={entries.length}>
        {shown.map((logged) => (
          <li key={logged.id} className={logged.number === undefined ? 'waiting' : ''}>
            <span className="what">{entryText(logged.entry, circuit)}</span>
            <span className="quiet">
              {logged.author || 'Nobody named'}
              {logged.device && ` on ${logged.device}`}, {momentText(logged.at)}
              {logged.number === undefined && ' · kept here, not sent yet'}
            </span>
          </li>
        ))}
      </ol>
      {entries.length > shown.length && (
        <Button variant="link" onClick={() => setAll(true)}>
          All {entries.length} entries
        </Button>
      )}
    </section>
  )
}

/** A note, or what was done on site that alters no wiring; and by whom. */
function Add({ store }: { store: JobStore }) {
  const [kind, setKind] = useState<'act' | 'note'>('act')
  const [text, setText] = useState('')
  const [name, setName] = useState(ownName)
  return (
    <Form
      className="log-add"
      onSubmit={(event) => {
        event.preventDefault()
        const words = text.trim()
        if (words) void store.record({ do: kind, text: words }).then(() => setText(''))
      }}
    >
      <Form.Select
        aria-label="What kind of entry"
        value={kind}
        onChange={(e) => setKind(e.target.value as typeof kind)}
      >
        <option value="act">Done on site</option>
        <option value="note">Note</option>
      </Form.Select>
      <Form.Control
        aria-label="Entry"
        placeholder={kind === 'act' ? 'For example: valve lever put back to auto' : 'What the next visit should know'}
        value={text}
        maxLength={500}
        onChange={(e) => setText(e.target.value)}
      />
      <Form.Control
        aria-label="Your name in the log"
        placeholder="Your name"
        value={name}
        maxLength={120}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => setOwnName(name)}
      />
      <Button type="submit" disabled={text.trim() === ''}>
        Record it
      </Button>
    </Form>
  )
}

function entryText(entry: Entry, circuit: Circuit | undefined): string {
  switch (entry.do) {
    case 'open':
      return 'Job begun'
    case 'edit':
      return entry.label
    case 'keep':
      return `Wiring kept as “${entry.name}”`
    case 'observe':
      return `Found: ${foundText(entry.finding, circuit)}`
    case 'retract':
      return 'A finding taken back'
    case 'hunt':
      return `Hunt: ${linesText(entry.lines, circuit)}`
    case 'unhunt':
      return entry.lines.length === 1
        ? 'A line of the hunt taken back'
        : `${entry.lines.length} lines of the hunt taken back`
    case 'hunt-with':
      return 'How the hunt is led was changed'
    case 'conclude':
      return entry.finding
        ? `Finding: ${entry.finding.causes.map(({ label }) => label).join('; ')}${entry.finding.remedy ? `. ${entry.finding.remedy}` : ''}`
        : 'The hunt goes on after all'
    case 'measure':
      return `Left until ${entry.measure.until}: ${entry.measure.what}`
    case 'measure-ends':
      return 'What was left for now has ended'
    case 'visit':
      return `Visit begun${entry.visit.why ? `: ${entry.visit.why}` : ''}`
    case 'isolated':
      return 'Isolation step acknowledged'
    case 'visit-ends':
      return 'Visit ended'
    case 'visit-goes-on':
      return 'The visit goes on'
    case 'sign':
      return entry.signed ? `Signed by ${entry.signed.name}` : 'A signature taken back'
    case 'disturb':
      return `Disturbed: ${entry.disturbed.what}`
    case 'settle':
      return entry.how === 'back' ? 'Put back' : entry.how === 'stays' ? 'Stays so' : 'To be put back after all'
    case 'item':
      return entry.item ? `${itemWords[entry.item.kind]}: ${entry.item.text}` : 'A line of the record taken back'
    case 'part':
      return entry.part ? `${partWords[entry.part.use]}: ${entry.part.count} × ${entry.part.what}` : 'A part taken back'
    case 'told':
      return entry.told ? `Told ${entry.told.whom}: ${entry.told.what}` : 'Who was told, taken back'
    case 'follow-up':
      return entry.followUp
        ? `${entry.followUp.done ? 'Done' : `By ${entry.followUp.on}`}: ${entry.followUp.what}`
        : 'A follow-up taken back'
    case 'change-to':
      return entry.change
        ? `${entry.change.done ? 'Changed' : 'To be changed'}: ${entry.change.name}`
        : 'The change of controls is dropped'
    case 'survey-terminals':
      return `Survey: the box has ${entry.terminals.length} terminals`
    case 'survey-link':
      return entry.link ? `Survey: link ${entry.link.between.join(' to ')}` : 'Survey: a link taken back'
    case 'survey-cable':
      return entry.cable
        ? `Survey: ${entry.cable.label}, ${entry.cable.cores.map(({ colour }) => colour).join(', ')}`
        : 'Survey: a cable taken back'
    case 'survey-fact':
      return entry.fact ? 'Survey: something was found out' : 'Survey: a finding taken back'
    case 'survey-complete':
      return entry.complete ? 'Survey: every cable is written down' : 'Survey: cables are still to come'
    case 'survey-taken':
      return 'The wiring as found was made of the survey'
    case 'run':
      return `Run ${entry.run.purpose === 'arrival' ? 'on arrival' : 'on leaving'}: begun, or wanted otherwise`
    case 'run-row':
      return entry.row ? `Run: ${entry.row.title}: ${outcomeText(entry.row)}` : 'Run: a step taken back'
    case 'run-ends':
      return entry.open.length === 0 ? 'Run ended' : `Run ended, ${entry.open.length} steps not done`
    case 'run-goes-on':
      return 'The run goes on'
    case 'act':
      return `Done: ${entry.text}`
    case 'tick':
      return entry.done ? 'A step ticked off' : 'A tick taken back'
    case 'scenario':
      return entry.scenario ? `Scenario kept: ${entry.scenario.name}` : 'A scenario is no longer kept'
    case 'note':
      return `Note: ${entry.text}`
    case 'aside':
      return `Not chosen: ${entry.label}`
  }
}

const gone = 'something the present wiring does not have'

function foundText(finding: Finding, circuit: Circuit | undefined): string {
  if (!circuit || !fitsCircuit(circuit, finding)) return gone
  const look = entriesOf(circuit, finding, []).at(-1)!
  return huntEntryText(circuit, look, [], (id) => id)
}

/** Lines of a hunt in one sentence; what the present wiring does not have is told as that. */
function linesText(lines: readonly HuntLine[], circuit: Circuit | undefined): string {
  const said = lines.map(({ entry }) => {
    try {
      return circuit ? huntEntryText(circuit, entry, [], (id) => id) : gone
    } catch {
      return gone
    }
  })
  return said.join('; ')
}
