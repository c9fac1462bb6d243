import { jobShape, type Entry, type JobDocument } from '@nobbet/contract'
import { changesBetween, edited, same, type Command, type Installation } from '@nobbet/core'
import { v4 as newId } from 'uuid'
import type { NewPending } from './kept'
import { entryOf } from './who'

/** How the first version of this store kept a job's wiring, one record a tab. */
export interface FirstKept {
  job: string
  version: number
  doc: Installation
  done: { command: Command; inverse: Command }[]
  undone: { command: Command; inverse: Command }[]
  pending: Command[]
}

/**
 * What a record of the first version had not sent, as entries of the log: step by step where the steps can be followed back,
 * else the wiring as it was left, as a kept state.
 */
export function fromFirst(kept: FirstKept): (NewPending & { job: string })[] {
  if (kept.pending.length === 0) return []
  const entries = stepsOf(kept) ?? [
    {
      do: 'keep',
      revision: newId(),
      kind: 'altered',
      name: 'As it was left in this browser',
      installation: kept.doc,
    } as const,
  ]
  // Made on a log that was not there yet: every entry is looked at again before it is sent.
  return entries.map((entry) => ({ job: kept.job, kind: 'entry', logged: entryOf(entry, ''), on: -1 }))
}

function stepsOf({ doc, done, undone, pending }: FirstKept): Entry[] | undefined {
  const known = [...done, ...undone]
  const states = [doc]
  for (const command of [...pending].reverse()) {
    const step = known.find((s) => same(s.command, command) || same(s.inverse, command))
    if (!step) return undefined
    try {
      states.unshift(edited(states[0], same(step.command, command) ? step.inverse : step.command).doc)
    } catch {
      return undefined
    }
  }
  const of = (wiring: Installation) => ({ wiring }) as JobDocument
  return pending.flatMap((command, i): Entry[] => {
    const changes = changesBetween(jobShape, of(states[i]), of(states[i + 1]))
    return changes.length > 0 ? [{ do: 'edit', label: command.label, changes }] : []
  })
}
