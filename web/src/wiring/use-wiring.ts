import { edited, type Command, type Installation } from '@nobbet/core'
import { useMemo } from 'react'
import type { JobView } from '../store/job-store'
import { useJob } from '../store/use-job'

export interface Wiring {
  doc?: Installation
  view: JobView
  /** Does one step at the wiring. Throws EditError where it cannot be done. */
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
      perform: (command: Command) =>
        void store.edit(command.label, (document) => ({ ...document, wiring: edited(document.wiring, command).doc })),
      become: (label: string, wiring: Installation) => void store.edit(label, (document) => ({ ...document, wiring })),
      undo: store.undo,
      redo: store.redo,
      again: store.again,
    }),
    [store],
  )
  return { doc: view.state?.document.wiring, view, ...verbs }
}
