import { edited, EditError, type Command, type Installation } from '@nobbet/core'
import { useMemo } from 'react'
import type { JobStore } from '../store/job-store'
import type { JobView } from '../store/job-view'
import { useJob } from '../store/use-job'

export interface Wiring {
  doc?: Installation
  view: JobView
  /** Does one step at the wiring; where it cannot be done, the view says why. */
  perform(command: Command): void
  /** Makes the wiring another one, as one step. */
  become(label: string, wiring: Installation): void
  undo(): void
  redo(): void
  again(): void
}

/** The wiring of a job, with everything that can be done to it. */
export function useWiring(job: string): Wiring {
  const { store, ...view } = useJob(job)
  const verbs = useMemo(
    () => ({
      perform: (command: Command) => alter(store, command.label, (wiring) => edited(wiring, command).doc),
      become: (label: string, wiring: Installation) => alter(store, label, () => wiring),
      undo: store.undo,
      redo: store.redo,
      again: store.again,
    }),
    [store],
  )
  return { doc: view.state?.document.wiring, view, ...verbs }
}

function alter(store: JobStore, label: string, change: (wiring: Installation) => Installation): void {
  try {
    void store.edit(label, (document) => ({ ...document, wiring: change(document.wiring) }))
  } catch (error) {
    if (!(error instanceof EditError)) throw error
    store.refuse(`Not done: ${error.message}`)
  }
}
