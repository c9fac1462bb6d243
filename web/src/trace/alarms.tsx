import {
  claimText,
  deviceName,
  failedIn,
  partName,
  signsOf,
  unaskedCalls,
  warmUnasked,
  type Action,
  type Background,
  type Rig,
} from '@nobbet/core'

interface AlarmsProps {
  rig: Rig
  background: Background
  act: (...actions: Action[]) => void
  /** An action of the address that could not be done. */
  problem?: string
  onWhy: (terminal: string) => void
}

/** What must not be missed: calls nobody asked for, shorts, hunting, an address that could not be replayed. */
export function Alarms({ rig, background, act, problem, onWhy }: AlarmsProps) {
  const { simulation } = rig
  const { circuit } = simulation
  const blown = circuit.fuses.filter((_, i) => simulation.fuseBlown(i))
  const tripped = circuit.trips.filter(
    ({ device, part }) =>
      simulation.control(circuit.devices[device].device.id, part.throws.control) === part.throws.to &&
      simulation.history.some((e) => e.kind === 'trip' && e.device === circuit.devices[device].device.id),
  )
  const signs = signsOf(simulation)
  const burnt = simulation.history.flatMap((e) => (e.kind === 'burnt' ? [e] : []))
  return (
    <div className="alarms" role="status">
      {unaskedCalls(simulation, background).map(({ boiler, input, cause }) => {
        const failed = failedIn(cause).map((c) => claimText(circuit, c.claim, true))
        const type = circuit.devices[circuit.deviceIndex.get(boiler)!].type
        const terminal = `${boiler}.${type.inputs.find((i) => i.id === input)!.terminal}`
        return (
          <p key={terminal} className="alarm">
            <strong>{deviceName(circuit, boiler)} is called with no demand.</strong>{' '}
            {failed.length > 0 ? `Cause: ${failed.join('; ')}.` : null}{' '}
            <button className="btn btn-link btn-sm" onClick={() => onWhy(terminal)}>
              Why?
            </button>
          </p>
        )
      })}
      {simulation.shortNow && (
        <p className="alarm">
          <strong>Short circuit.</strong> Line is joined to neutral or earth.
        </p>
      )}
      {blown.map(({ device, part }) => (
        <p key={device} className="alarm">
          <strong>
            {circuit.devices[device].device.name} {part.label} has blown.
          </strong>{' '}
          A fuse has a cause: find it before a new one goes in.
        </p>
      ))}
      {tripped.map(({ device, part }) => (
        <p key={`${device} ${part.id}`} className="alarm">
          <strong>
            {circuit.devices[device].device.name} {part.label} has tripped.
          </strong>{' '}
          Current comes back by earth. Find where before it is switched on again.
        </p>
      ))}
      {burnt.map((event) => (
        <p key={`${event.device} ${event.part}`} className="alarm">
          <strong>{partName(circuit, event.device, event.part)} is burnt out.</strong> More volts stood on it, or for
          longer, than it takes.
        </p>
      ))}
      <Lockouts rig={rig} act={act} />
      {signs.deadHeads.map((load) => (
        <p key={load} className="alarm">
          <strong>{deviceName(circuit, circuit.devices[circuit.loads[load].device].device.id)} moves nothing.</strong>{' '}
          It runs against shut valves, or no pipe leads round.
        </p>
      ))}
      {signs.roundOnly && simulation.nextEventAt() === Infinity && (
        <p className="alarm">
          <strong>Water goes round and warms nothing.</strong> It goes by the bypass, or by a short cut from flow to
          return.
        </p>
      )}
      {/* In passing, a valve warms the other circuit for seconds, by design: only what stays is told. */}
      {simulation.nextEventAt() === Infinity &&
        warmUnasked(simulation).map((demand) => (
          <p key={demand.id} className="alarm">
            <strong>{demand.name} warms unasked.</strong> Water gets to it while the boiler serves another demand.
          </p>
        ))}
      {simulation.hunting && (
        <p className="alarm">
          <strong>Hunting.</strong> The same states come round again with nobody touching anything. Time stands still
          here until a control is changed.
        </p>
      )}
      {problem && (
        <p className="alarm">
          <strong>Not everything in this link could be done:</strong> {problem}
        </p>
      )}
    </div>
  )
}

/** Boilers that have locked themselves out, with the hand that resets them. */
function Lockouts({ rig, act }: Pick<AlarmsProps, 'rig' | 'act'>) {
  const { simulation } = rig
  const { circuit } = simulation
  return circuit.behaviours.map(({ device, part }, i) => {
    if (simulation.phase(i).phase !== 'lockout' || simulation.behaviourLockedOut(i) || !part.throws) return null
    const { id, name } = circuit.devices[device].device
    return (
      <p key={id} className="alarm">
        <strong>{name} has locked itself out.</strong> No water went through it, or it overheated. Find why before it is
        reset.{' '}
        <button
          className="btn btn-outline-dark btn-sm"
          onClick={() =>
            act({
              do: 'set',
              device: id,
              control: part.throws!.control,
              value: resting(rig, device, part.throws!.control),
            })
          }
        >
          Reset it
        </button>
      </p>
    )
  })
}

const resting = (rig: Rig, device: number, control: string): string =>
  String(rig.simulation.circuit.devices[device].type.controls.find((c) => c.id === control)!.initial)
