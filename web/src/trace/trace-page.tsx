import { compile, type Installation } from '@nobbet/core'
import { useMemo, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useParams } from 'react-router'
import { useDraft } from '../api/hooks'
import { Failed, Loading } from '../shell/notes'
import { Alarms } from './alarms'
import { DemandStrip } from './demand-strip'
import { Runs } from './runs'
import { TerminalPanel } from './terminal-panel'
import { TimeBar } from './time-bar'
import { useSession } from './use-session'
import { WiringCentre } from './wiring-centre'

export function TracePage() {
  const { job = '' } = useParams()
  const { data, error, refetch } = useDraft(job)
  if (error) return <Failed error={error} retry={() => void refetch()} />
  if (!data) return <Loading what="the wiring" />
  return <Trace installation={data.installation} />
}

/** Demands across the top, the runs below, the wiring centre beside them, time at the foot. */
function Trace({ installation }: { installation: Installation }) {
  const circuit = useMemo(() => compile(installation), [installation])
  const handle = useSession(circuit)
  const { session } = handle
  const [picked, setPicked] = useState<string>()

  useHotkeys('space', (event) => {
    event.preventDefault()
    handle.setRunning(!handle.running)
  })
  useHotkeys('n', handle.step)
  useHotkeys('u', handle.undo)
  useHotkeys('shift+r', handle.reset)
  useHotkeys('escape', () => setPicked(undefined))

  return (
    <main className="trace">
      <h1 className="visually-hidden">Trace</h1>
      <DemandStrip rig={session.rig} onWhy={setPicked} />
      <Alarms rig={session.rig} problem={session.problem} onWhy={setPicked} />
      <div className="trace-grid">
        <Runs rig={session.rig} act={handle.act} picked={picked} onPick={setPicked} />
        <aside className="trace-side">
          {picked && circuit.atomIndex.has(picked) && (
            <TerminalPanel
              rig={session.rig}
              terminal={picked}
              onPick={setPicked}
              onClose={() => setPicked(undefined)}
            />
          )}
          <WiringCentre rig={session.rig} picked={picked} onPick={setPicked} />
        </aside>
      </div>
      <TimeBar handle={handle} />
    </main>
  )
}
