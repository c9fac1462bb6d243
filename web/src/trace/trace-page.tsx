import type { KeptScenario } from '@nobbet/contract'
import { compile, type Installation } from '@nobbet/core'
import { useMemo, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useParams } from 'react-router'
import type { Sitting } from '../store/kept'
import { useJob } from '../store/use-job'
import { Failed, Loading } from '../shell/notes'
import { planOf } from '../wiring/plan-of'
import { Alarms } from './alarms'
import { BusPanel } from './bus-panel'
import { ConductorPanel } from './conductor-panel'
import { DemandStrip } from './demand-strip'
import { FindDialog, type Command } from './find-dialog'
import { KeysDialog } from './keys-dialog'
import { Meter, MeterButton } from './meter'
import { Places, type Place } from './places'
import { Runs } from './runs'
import { askedOf, isConductor, whyRef } from './picked'
import { TerminalPanel } from './terminal-panel'
import { TimeBar, type TimeDialog } from './time-bar'
import { useBackground } from './use-background'
import { useDesk, useLeftSitting } from './use-desk'
import { useMeter } from './use-meter'
import { useSession } from './use-session'
import { WaterPanel } from './water-panel'
import { WhyPanel } from './why-panel'
import { WiringCentre } from './wiring-centre'

export function TracePage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  const left = useLeftSitting(job)
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the wiring" />
  if (!left) return <Loading what="where you were" />
  return (
    <Trace
      key={job}
      installation={state.document.wiring}
      job={job}
      left={left}
      plan={planOf(state)}
      scenarios={state.scenarios}
    />
  )
}

interface TraceProps {
  installation: Installation
  /** The job it is of; none for an example. */
  job?: string
  /** How Trace was left there. */
  left?: Sitting
  /** The plan it was wired by, where there is one. */
  plan?: Installation
  scenarios?: readonly KeptScenario[]
}

/**
 * Demands in one line, time in another; the runs and the wiring centre have all the room between them, each with its own scrolling.
 * Where there is room for one only, it is chosen under the thumb.
 */
export function Trace({ installation, job, left, plan, scenarios }: TraceProps) {
  const circuit = useMemo(() => compile(installation), [installation])
  const desk = useDesk(job, left)
  const handle = useSession(circuit, desk)
  const { session } = handle
  const background = useBackground(session, plan)
  const picked = desk.one('at')
  const setPicked = (ref: string | undefined) => desk.put('at', ref)
  const asked = askedOf(picked)
  const meter = useMeter(desk)
  const followed = desk.one('follow')
  const water = desk.one('side') === 'water'
  const beside = water || desk.one('place') === 'beside'
  const go = (place: Place) => {
    desk.set({
      place: place === 'runs' ? undefined : ['beside'],
      side: place === 'water' ? ['water'] : undefined,
    })
  }
  const here: Place = !beside ? 'runs' : water ? 'water' : 'box'
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
  useHotkeys('w', () => desk.put('side', water ? undefined : 'water'))
  const [dialog, setDialog] = useState<TimeDialog>()
  useHotkeys(
    '/',
    (event) => {
      event.preventDefault()
      setDialog('find')
    },
    { useKey: true },
  )
  const commands: Command[] = [
    { name: handle.running ? 'Pause' : 'Run', key: 'Space', run: () => handle.setRunning(!handle.running) },
    { name: 'Next event', key: 'N', run: handle.step },
    { name: 'Undo', key: 'U', run: handle.undo },
    { name: 'Reset', key: 'Shift R', run: handle.reset },
    { name: meter.open ? 'Meter away' : 'Meter in the hand', key: 'M', run: meter.toggle },
    { name: 'Water', key: 'W', run: () => desk.put('side', 'water') },
    { name: 'Wiring centre', key: 'W', run: () => desk.put('side', undefined) },
    { name: 'Put a fault in', run: () => setDialog('faults') },
    { name: 'Heat', run: () => setDialog('heat') },
    { name: 'Share or keep', run: () => setDialog('share') },
    { name: 'Keys', key: '?', run: () => setKeys(true) },
  ]
  const [keys, setKeys] = useState(false)
  useHotkeys('?', () => setKeys(true), { useKey: true, ignoreModifiers: true })
  useHotkeys('escape', () => {
    setPicked(undefined)
    meter.arm(undefined)
  })

  return (
    <main className="trace">
      <h1 className="visually-hidden">Trace</h1>
      <DemandStrip
        rig={session.rig}
        followed={followed}
        onFollow={(demand) => desk.put('follow', demand)}
        onWhy={(of) => setPicked(whyRef(of))}
      />
      <Alarms rig={session.rig} background={background} act={handle.act} problem={session.problem} onWhy={setPicked} />
      <div className={`trace-grid ${beside ? 'beside' : ''} ${picked ? 'looked' : ''}`}>
        <Runs rig={session.rig} act={handle.act} picked={picked} desk={desk} followed={followed} onPick={touch} />
        <div className="trace-looked">
          {meter.open && <Meter simulation={session.rig.simulation} meter={meter} job={job} />}
          {picked && isConductor(picked) && (
            <ConductorPanel
              rig={session.rig}
              conductor={picked}
              onPick={setPicked}
              onClose={() => setPicked(undefined)}
            />
          )}
          {asked !== undefined && (
            <WhyPanel
              key={asked}
              handle={handle}
              of={asked}
              background={background}
              job={job}
              onPick={setPicked}
              onClose={() => setPicked(undefined)}
            />
          )}
          {picked && circuit.atomIndex.has(picked) && (
            <TerminalPanel
              rig={session.rig}
              terminal={picked}
              background={background}
              job={job}
              onPick={setPicked}
              onClose={() => setPicked(undefined)}
            />
          )}
        </div>
        <aside className="trace-side">
          <BusPanel rig={session.rig} act={handle.act} onPick={touch} />
          <div className="side-head">
            <div className="side-tabs" role="tablist" aria-label="Beside the runs">
              <button role="tab" aria-selected={!water} onClick={() => desk.put('side', undefined)}>
                Wiring centre
              </button>
              <button role="tab" aria-selected={water} onClick={() => desk.put('side', 'water')}>
                Water
              </button>
            </div>
            <MeterButton meter={meter} />
          </div>
          {water && <WaterPanel rig={session.rig} act={handle.act} />}
          {!water && (
            <WiringCentre session={session} picked={picked} leads={meter.open ? meter.leads : {}} onPick={touch} />
          )}
        </aside>
      </div>
      {dialog === 'find' && (
        <FindDialog circuit={circuit} commands={commands} onPick={setPicked} onClose={() => setDialog(undefined)} />
      )}
      {keys && <KeysDialog onClose={() => setKeys(false)} />}
      <Places here={here} onGo={go} meter={meter} />
      <TimeBar
        handle={handle}
        happened={desk.one('happened') !== undefined}
        job={job}
        scenarios={scenarios}
        dialog={dialog}
        onDialog={setDialog}
      />
    </main>
  )
}
