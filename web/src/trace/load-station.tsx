import {
  deviceName,
  leavesOf,
  motionText,
  phaseText,
  travelText,
  valveFeelText,
  valveSigns,
  type Action,
  type Rig,
  type Run,
} from '@nobbet/core'
import { Controls } from './controls'
import { PutInMark } from './put-in-marks'

interface LoadStationProps {
  rig: Rig
  run: Run
  act: (...actions: Action[]) => void
  onPick: (terminal: string) => void
}

/** The end of a run: the load, what it does, and what of it can be heard and felt. */
export function LoadStation({ rig, run, act, onPick }: LoadStationProps) {
  const sim = rig.simulation
  const { circuit } = sim
  const { load, fed } = run
  const { device, part } = circuit.loads[load]
  const { device: fitted, type } = circuit.devices[device]
  const live = sim.potentials()[fed].state === 'live'
  const actuator = circuit.actuators.findIndex((x) => x.drivenBy === load)
  const behaviour = circuit.behaviours.findIndex(
    (b) =>
      b.device === device &&
      Object.values(b.watches)
        .flatMap(leavesOf)
        .some((leaf) => 'energised' in leaf && leaf.energised === part.id),
  )
  const { state, share } = ((): { state: string; share?: number } => {
    if (actuator >= 0)
      return {
        state: motionText(circuit, actuator, sim.actuatorMotion(actuator)),
        share: sim.actuatorPosition(actuator),
      }
    if (behaviour >= 0) return { state: phaseText(circuit, behaviour, sim.phase(behaviour).phase) }
    if (part.work === 'heats') return { state: sim.loadWorking(load) ? 'heating' : 'cold' }
    if (part.work) return { state: sim.loadWorking(load) ? 'running' : 'stopped' }
    return { state: sim.loadEnergised(load) ? 'has supply' : 'no supply' }
  })()
  return (
    <li className={live ? 'station load live' : 'station load'}>
      <button
        className="load-box"
        data-load={`${fitted.id}.${part.id}`}
        onClick={() => onPick(circuit.atoms[fed].ref)}
        title={`Why is ${deviceName(circuit, fitted.id)} so?`}
      >
        <span className="station-name">{deviceName(circuit, fitted.id)}</span>
        <PutInMark rig={rig} at={fitted.id} />
        <span className="load-state">{state}</span>
        {share !== undefined && (
          <span className="travel" aria-label={travelText(circuit, actuator, share)}>
            <span style={{ width: `${share * 100}%` }} />
            <span className="travel-text">{travelText(circuit, actuator, share)}</span>
          </span>
        )}
      </button>
      {actuator >= 0 && <div className="feel">{valveFeelText(valveSigns(sim, actuator))}</div>}
      {/* A device that also stands in its own run as a contact has its controls there. */}
      {!run.devices.includes(fitted.id) && <Controls rig={rig} device={fitted.id} controls={type.controls} act={act} />}
    </li>
  )
}
