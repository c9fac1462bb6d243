import { Check, CloudOff, LoaderCircle, TriangleAlert } from 'lucide-react'
import { UndoRedo } from '../shell/undo-redo'
import type { Sending } from '../store/sending'
import type { Wiring } from './use-wiring'

/** Whether what was done is saved, in three words. */
export function SavingNote({ sending }: { sending: Sending }) {
  switch (sending.is) {
    case 'saved':
      return (
        <span className="saving" role="status">
          <Check size={16} aria-hidden /> Saved with the job
        </span>
      )
    case 'saving':
      return (
        <span className="saving" role="status">
          <LoaderCircle size={16} aria-hidden /> Kept here, saving
        </span>
      )
    case 'kept-here':
      return (
        <span className="saving here" role="status">
          <CloudOff size={16} aria-hidden /> Kept in this browser; sent when the server is back
        </span>
      )
    case 'stopped':
      return (
        <span className="saving here" role="status">
          <TriangleAlert size={16} aria-hidden /> Kept in this browser; not sent
        </span>
      )
  }
}

/** Undo, redo, and whether all is saved: the same on every screen that alters the job. */
export function WiringTools({ view, undo, redo }: Pick<Wiring, 'view' | 'undo' | 'redo'>) {
  return (
    <>
      <UndoRedo canUndo={view.done.length > 0} canRedo={view.undone.length > 0} undo={undo} redo={redo} />
      <SavingNote sending={view.sending} />
    </>
  )
}
