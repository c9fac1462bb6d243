import { Check, CloudOff, LoaderCircle, TriangleAlert } from 'lucide-react'
import { Button } from 'react-bootstrap'
import { UndoRedo } from '../shell/undo-redo'
import type { WiringState, WiringStore } from './store'

/** Whether what was done is saved, in three words. */
export function SavingNote({ saving }: Pick<WiringState, 'saving'>) {
  switch (saving.is) {
    case 'saved':
      return (
        <span className="saving" role="status">
          <Check size={16} aria-hidden /> Saved with the job
        </span>
      )
    case 'saving':
      return (
        <span className="saving" role="status">
          <LoaderCircle size={16} aria-hidden /> Saving
        </span>
      )
    case 'kept-here':
      return (
        <span className="saving here" role="status">
          <CloudOff size={16} aria-hidden /> Kept in this browser; sent when the server is back
        </span>
      )
    case 'changed':
      return (
        <span className="saving here" role="status">
          <TriangleAlert size={16} aria-hidden /> Not saved: changed by somebody else
        </span>
      )
    case 'refused':
      return (
        <span className="saving here" role="alert">
          <TriangleAlert size={16} aria-hidden /> Not saved: {saving.reason}
        </span>
      )
  }
}

/** Two have changed the wiring: what to do is asked where the work is. */
export function Changed({ saving, store }: Pick<WiringState, 'saving'> & { store: WiringStore }) {
  if (saving.is !== 'changed') return null
  return (
    <section className="changed-meanwhile" role="alert" aria-label="Changed by somebody else">
      <strong>Somebody has changed this wiring meanwhile.</strong> What you did is still here, and not lost.
      {saving.problem && <p className="text-danger mb-1">{saving.problem}</p>}
      <div className="d-flex gap-2 flex-wrap mt-2">
        <Button onClick={() => store.replayOnTheirs()}>Do my steps again on theirs</Button>
        <Button variant="outline-primary" onClick={() => void store.keepMineAsRevision()}>
          Keep mine as a revision, go on with theirs
        </Button>
      </div>
    </section>
  )
}

/** Undo, redo, and whether all is saved: the same on every screen that alters the wiring. */
export function WiringTools({ state, store }: { state: WiringState; store: WiringStore }) {
  return (
    <>
      <UndoRedo canUndo={state.done.length > 0} canRedo={state.undone.length > 0} undo={store.undo} redo={store.redo} />
      <SavingNote saving={state.saving} />
    </>
  )
}
