import { compile, type Installation } from '@nobbet/core'
import { useMemo, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useParams } from 'react-router'
import { useDraft } from '../api/hooks'
import { Failed, Loading } from '../shell/notes'
import { useSearchValue } from '../shell/use-search-value'
import { Alarms } from './alarms'
import { BusPanel } from './bus-panel'
import { ConductorPanel } from './conductor-panel'
import { DemandStrip } from './demand-strip'
import { Meter } from './meter'
import { Runs } from './runs'
import { isConductor } from './picked'
import { TerminalPanel } from './terminal-panel'
import { TimeBar } from './time-bar'
import { useMeter } from './use-meter'
import { useSession } from './use-session'
import { WaterPanel } from './water-panel'
import { WiringCentre } from './wiring-centre'

export function TracePage() {
  const { job = '' } = useParams()
  const { data, error, refetch } = useDraft(job)
  if (error) return <Failed error={error} retry={() => void refetch()} />
  if (!data) return <Loading what="the wiring" />
  return <Trace installation={data.installation} />
}

/** Demands across the top, the runs below, the wiring centre beside them, time at the foot. */
export function Trace({ installation }: { installation: Installation }) {
  const circuit = useMemo(() => compile(installation), [installation])
  const handle = useSession(circuit)
  const { session } = handle
  const [picked, setPicked] = useState<string>()
  const meter = useMeter()
  const [followed, follow] = useSearchValue('follow')
  const [side, setSide] = useSearchValue('side')
  const water = side === 'water'
  /** A terminal that is touched takes the meter's lead, where one is in the hand; else it is looked at. */
  const touch = (terminal: string) => {
    if (isConductor(terminal) || !meter.put(terminal)) setPicked(terminal)
  }

  useHotkeys('space', (event) => {
    event.preventDefault()
    handle.setRunning(!handle.running)
  })
  useHotkeys('n', handle.step)
  useHotkeys('u', handle.undo)
  useHotkeys('shift+r', handle.reset)
  useHotkeys('m', meter.toggle)
  useHotkeys('w', () => setSide(water ? undefined : 'water'))
  useHotkeys('escape', () => {
    setPicked(undefined)
    meter.arm(undefined)
  })

  return (
    <main className="trace">
      <h1 className="visually-hidden">Trace</h1>
      <DemandStrip rig={session.rig} followed={followed} onFollow={follow} onWhy={setPicked} />
      <Alarms rig={session.rig} act={handle.act} problem={session.problem} onWhy={setPicked} />
      <div className="trace-grid">
        <Runs rig={session.rig} act={handle.act} picked={picked} followed={followed} onPick={touch} />
        <aside className="trace-side">
          <Meter simulation={session.rig.simulation} meter={meter} />
          <BusPanel rig={session.rig} act={handle.act} onPick={touch} />
          {picked && isConductor(picked) && (
            <ConductorPanel
              rig={session.rig}
              conductor={picked}
              onPick={setPicked}
              onClose={() => setPicked(undefined)}
            />
          )}
          {picked && circuit.atomIndex.has(picked) && (
            <TerminalPanel
              rig={session.rig}
              terminal={picked}
              onPick={setPicked}
              onClose={() => setPicked(undefined)}
            />
          )}
          <div className="side-tabs" role="tablist" aria-label="Beside the runs">
            <button role="tab" aria-selected={!water} onClick={() => setSide(undefined)}>
              Wiring centre
            </button>
            <button role="tab" aria-selected={water} onClick={() => setSide('water')}>
              Water
            </button>
          </div>
          {water && <WaterPanel rig={session.rig} act={handle.act} />}
          {!water && (
            <WiringCentre session={session} picked={picked} leads={meter.open ? meter.leads : {}} onPick={touch} />
          )}
        </aside>
      </div>
      <TimeBar handle={handle} />
    </main>
  )
}
