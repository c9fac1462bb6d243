import { deviceName, motionText, phaseWords, travelText, type Rig, type Run } from '@nobbet/core'

/** The end of a run: the load, and what it does. */
export function LoadStation({ rig, run, onPick }: { rig: Rig; run: Run; onPick: (terminal: string) => void }) {
  const sim = rig.simulation
  const { circuit } = sim
  const { load, fed } = run
  const { device, part } = circuit.loads[load]
  const { device: fitted } = circuit.devices[device]
  const live = sim.potentials()[fed].state === 'live'
  const actuator = circuit.actuators.findIndex((x) => x.drivenBy === load)
  const behaviour = circuit.behaviours.findIndex((b) => b.device === device && Object.values(b.watches).includes(load))
  const { state, share } = ((): { state: string; share?: number } => {
    if (actuator >= 0)
      return {
        state: motionText(circuit, actuator, sim.actuatorMotion(actuator)),
        share: sim.actuatorPosition(actuator),
      }
    if (behaviour >= 0) {
      const { phase } = sim.phase(behaviour)
      return { state: phaseWords[phase] ?? phase }
    }
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
        <span className="load-state">{state}</span>
        {share !== undefined && (
          <span className="travel" aria-label={travelText(circuit, actuator, share)}>
            <span style={{ width: `${share * 100}%` }} />
            <span className="travel-text">{travelText(circuit, actuator, share)}</span>
          </span>
        )}
      </button>
    </li>
  )
}
