import {
  applied,
  installationShape,
  otherId,
  problemsOf,
  referenceProblems,
  renamedChange,
  same,
  typeDirectory,
  type DocumentProblem,
  type FieldChange,
  type Ground,
  type Renaming,
  type Shape,
} from '@nobbet/core'
import { huntAfter, isHuntDeed, noHunt } from './hunt-record'
import type { Entry, JobState, LogEntry, NumberedEntry } from './log'
import { jobDocumentSchema, type JobDocument } from './schemas'
import { isSiteDeed, noRecord, recordAfter, type Measure, type SiteRecord } from './site-record'
import { disturbedAfter } from './wiring-disturbed'

/** An entry that the log cannot take where it stands. */
export class LogError extends Error {
  constructor(
    readonly field: string,
    reason: string,
  ) {
    super(reason)
    this.name = 'LogError'
  }
}

export const jobShape: Shape = {
  fields: { brief: { fields: { fitted: { fields: {} } } }, wiring: installationShape },
}

/** What is wrong with a job's document, by field; empty where it makes sense as a whole and is written as it is kept. */
export function documentProblems(document: JobDocument): DocumentProblem[] {
  const read = jobDocumentSchema.safeParse(document)
  if (!read.success) return problemsOf(read.error)
  if (!same(read.data, document))
    return [
      { field: '', reason: 'says something that is not kept as it is written: unknown fields, or blanks about a text' },
    ]
  return referenceProblems(document.wiring, typeDirectory).map((p) => ({ ...p, field: `wiring.${p.field}` }))
}

/** What making a change again on somebody else's work has to know of a job. */
export const jobGround: Ground<JobDocument> = {
  shape: jobShape,
  sensible: (document) => documentProblems(document).length === 0,
  freeId: (document, path, id, reserved) => otherId(document.wiring, path, id, reserved),
  renamed: renamedChange,
}

/** An entry that was not recorded yet, with something it speaks of renamed. */
export function renamedEntry(entry: Entry, renaming: Renaming): Entry {
  if (entry.do === 'edit') return { ...entry, changes: entry.changes.map((change) => renamedChange(change, renaming)) }
  if (entry.do !== 'observe') return entry
  const finding = renamedChange({ do: 'set', path: ['finding'], now: entry.finding }, renaming)
  return { ...entry, finding: (finding as { now: typeof entry.finding }).now }
}

/** The document after an entry. Throws {@link LogError} or ChangeError where the entry does not fit there. */
export function documentAfter(document: JobDocument | undefined, entry: Entry): JobDocument {
  if (entry.do === 'open') {
    if (document) throw new LogError('entry.do', 'the job was begun before')
    const { brief, status, wiring } = entry
    return { brief, status, wiring }
  }
  if (!document) throw new LogError('entry.do', 'the first entry of a job opens it')
  return entry.do === 'edit' ? applied(jobShape, document, entry.changes) : document
}

/** A job after one entry more. Throws as {@link documentAfter}. */
export function grown(
  state: JobState | undefined,
  logged: LogEntry & Partial<Pick<NumberedEntry, 'number'>>,
  id: string,
): JobState {
  const { entry } = logged
  const document = documentAfter(state?.document, entry)
  const before = state ?? {
    id,
    number: 0,
    findings: [],
    revisions: [],
    ticks: [],
    scenarios: [],
    hunt: noHunt,
    record: noRecord,
  }
  const after: JobState = { ...before, document, number: logged.number ?? before.number }
  // What was kept before there was a hunt's log, or before there were ticks, has none.
  if (isHuntDeed(entry)) return { ...after, hunt: huntAfter((before as Partial<JobState>).hunt ?? noHunt, entry) }
  if (isSiteDeed(entry)) return { ...after, record: recordAfter(recordOf(before), entry, logged.at, logged.visit) }
  switch (entry.do) {
    case 'edit': {
      const record = recordOf(before)
      const disturbed = disturbedAfter(record, state!.document.wiring, entry.changes, logged)
      return disturbed === record.disturbed ? after : { ...after, record: { ...record, disturbed } }
    }
    case 'observe':
      return { ...after, findings: [...without(before.findings, entry.finding.id), entry.finding] }
    case 'retract':
      return { ...after, findings: without(before.findings, entry.finding) }
    case 'keep': {
      const { revision, kind, name, installation = document.wiring } = entry
      const kept = { id: revision, kind, name, installation, createdAt: logged.at }
      return { ...after, revisions: [...without(before.revisions, revision), kept] }
    }
    case 'tick': {
      const others = ((before as Partial<JobState>).ticks ?? []).filter((step) => step !== entry.step)
      return { ...after, ticks: entry.done ? [...others, entry.step] : others }
    }
    case 'scenario': {
      const others = without((before as Partial<JobState>).scenarios ?? [], entry.id)
      return { ...after, scenarios: entry.scenario ? [...others, { ...entry.scenario, id: entry.id }] : others }
    }
    default:
      return after
  }
}

/** What is recorded of a job's visits; one that was kept in a browser before there were visits has its measures with its hunt. */
export function recordOf(state: object): SiteRecord {
  const { record, hunt } = state as { record?: SiteRecord; hunt?: { measures?: Measure[] } }
  return record ?? { ...noRecord, measures: hunt?.measures ?? [] }
}

const without = <T extends { id: string }>(list: readonly T[], id: string): T[] => list.filter((x) => x.id !== id)

/** What entries have changed, in order. */
export const changesOf = (entries: readonly { entry: Entry }[]): FieldChange[] =>
  entries.flatMap(({ entry }) => (entry.do === 'edit' ? entry.changes : []))
