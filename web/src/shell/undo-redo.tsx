import { Redo2, Undo2 } from 'lucide-react'
import { Button } from 'react-bootstrap'
import { useHotkeys } from 'react-hotkeys-hook'

interface UndoRedoProps {
  canUndo: boolean
  canRedo: boolean
  undo: () => void
  redo: () => void
}

/** Back and forward through what was done, by button and by keyboard. */
export function UndoRedo({ canUndo, canRedo, undo, redo }: UndoRedoProps) {
  useHotkeys('mod+z', undo)
  useHotkeys('mod+shift+z,mod+y', redo)
  return (
    <>
      <Button variant="outline-dark" aria-label="Undo" title="Undo: Ctrl Z" disabled={!canUndo} onClick={undo}>
        <Undo2 size={18} aria-hidden />
      </Button>
      <Button variant="outline-dark" aria-label="Redo" title="Redo: Ctrl Shift Z" disabled={!canRedo} onClick={redo}>
        <Redo2 size={18} aria-hidden />
      </Button>
    </>
  )
}
