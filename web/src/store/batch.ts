import type { Entry, LogEntry } from '@nobbet/contract'
import type { Pending } from './kept'

/** Entries sent at once, and their size in characters: well below what the server takes. */
export const mostEntries = 60
const mostCharacters = 900_000

const pendingWords: Record<Exclude<Entry['do'], 'edit'>, string> = {
  open: 'the new job',
  keep: 'a kept state of the wiring',
  observe: 'a finding',
  retract: 'a finding taken back',
  hunt: 'what was found',
  unhunt: 'a line of the hunt taken back',
  'hunt-with': 'how the hunt is led',
  conclude: 'what the hunt came to',
  measure: 'what was left for now',
  'measure-ends': 'the end of what was left for now',
  visit: 'a visit',
  isolated: 'the isolation step',
  'visit-ends': 'the end of a visit',
  'visit-goes-on': 'a visit that goes on',
  sign: 'a signature',
  disturb: 'what was disturbed',
  settle: 'what was put back',
  item: 'a line of the record',
  part: 'a part',
  told: 'who was told',
  'follow-up': 'a follow-up',
  'change-to': 'the change of controls',
  'survey-terminals': 'the terminals of the survey',
  'survey-link': 'a link of the survey',
  'survey-cable': 'a cable of the survey',
  'survey-fact': 'a finding of the survey',
  'survey-complete': 'how far the survey is',
  'survey-taken': 'the wiring as found',
  run: 'a run',
  'run-row': 'a step of the run',
  'run-ends': 'the end of a run',
  'run-goes-on': 'a run that goes on',
  act: 'what was done on site',
  tick: 'a step ticked off',
  scenario: 'a scenario',
  note: 'a note',
  aside: 'a change that was put aside',
}

/** The entries that go next: those before the next photo, as many as are allowed and as fit. */
export function batchOf(pending: readonly Pending[], most: number): LogEntry[] {
  const entries: LogEntry[] = []
  let size = 0
  for (const one of pending) {
    if (one.kind !== 'entry' || entries.length === most) break
    size += JSON.stringify(one.logged).length
    if (entries.length > 0 && size > mostCharacters) break
    entries.push(one.logged)
  }
  return entries
}

/** What waits, in words; nothing where nothing does. */
export function labelOf(first: Pending | undefined): string | undefined {
  if (first?.kind !== 'entry') return first && 'a photo'
  const { entry } = first.logged
  return entry.do === 'edit' ? entry.label : pendingWords[entry.do]
}
