import { exampleById, type Installation } from '@nobbet/core'
import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import { ExampleHead } from '../kit/example-head'
import { LostPage } from '../shell/lost-page'
import { UndoRedo } from '../shell/undo-redo'
import { Week } from './week'

/** The week of a shipped example: nothing of it is kept. */
export function ExampleWeek() {
  const { example = '' } = useParams()
  const found = exampleById(example)
  useEffect(() => {
    document.title = found ? `Week · ${found.name} · Nobbet` : 'Nobbet'
  }, [found])
  if (!found) return <LostPage />
  return (
    <>
      <ExampleHead example={found} />
      <Tried key={example} installation={found.installation} />
    </>
  )
}

/** Changes that can be taken back for as long as the page is open. */
function Tried({ installation }: { installation: Installation }) {
  const [{ states, at }, set] = useState({ states: [installation], at: 0 })
  const go = (to: number) => set({ states, at: to })
  return (
    <Week
      installation={states[at]}
      onChange={(wanted) => set({ states: [...states.slice(0, at + 1), wanted], at: at + 1 })}
      tools={
        <>
          <UndoRedo
            canUndo={at > 0}
            canRedo={at < states.length - 1}
            undo={() => go(Math.max(0, at - 1))}
            redo={() => go(Math.min(states.length - 1, at + 1))}
          />
          <span className="quiet" role="status">
            Nothing here is kept
          </span>
        </>
      }
    />
  )
}
