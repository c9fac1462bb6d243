import {
  deviceName,
  leavesThatMatter,
  motionText,
  travelText,
  type Action,
  type Circuit,
  type Control,
  type Gate,
  type Rig,
  type Simulation,
  type Station,
  type Way,
} from '@nobbet/core'
import { Controls } from './controls'
import { PutInMark } from './put-in-marks'

/** Gates of one device that follow each other without wiring between them are one station: a spur's poles and fuse. */
export function groupGates(circuit: Circuit, way: Way): Station[][] {
  const groups: Station[][] = []
  for (const station of way) {
    const last = groups[groups.length - 1]
    const before = last?.[last.length - 1]
    if (station.kind === 'gate' && before?.kind === 'gate' && ownerOf(circuit, before) === ownerOf(circuit, station))
      last.push(station)
    else groups.push([station])
  }
  return groups
}

function ownerOf(circuit: Circuit, gate: Gate): number {
  const edge = circuit.edges[gate.edge]
  return edge.kind === 'contact'
    ? circuit.contacts[edge.contact].device
    : edge.kind === 'fuse'
      ? circuit.fuses[edge.fuse].device
      : -1
}

/** How a gate stands just now, in one word and a shape. */
function standing(sim: Simulation, gate: Gate): { shut: boolean; word: string; label: string; failed: boolean } {
  const edge = sim.circuit.edges[gate.edge]
  if (edge.kind === 'fuse') {
    const blown = sim.fuseBlown(edge.fuse)
    return {
      shut: !blown,
      word: blown ? 'blown' : 'whole',
      label: sim.circuit.fuses[edge.fuse].part.label,
      failed: blown,
    }
  }
  if (edge.kind !== 'contact') return { shut: true, word: '', label: '', failed: false }
  const shut = sim.contactClosed(edge.contact)
  const failed = sim.contactHeld(edge.contact) && sim.contactShouldBeClosed(edge.contact) !== shut
  const word = failed ? (shut ? 'stuck made' : 'does not make') : shut ? 'made' : 'open'
  return { shut, word, label: sim.circuit.contacts[edge.contact].part.label, failed }
}

interface GateStationProps {
  rig: Rig
  gates: Gate[]
  act: (...actions: Action[]) => void
  onPick: (terminal: string) => void
}

/** A gate that stands open or shut, named by its device, operated right here. */
export function GateStation({ rig, gates, act, onPick }: GateStationProps) {
  const sim = rig.simulation
  const { circuit } = sim
  const device = ownerOf(circuit, gates[0])
  const { device: fitted, type, actuatorIndex } = circuit.devices[device]
  const states = gates.map((gate) => standing(sim, gate))
  const shut = states.every((s) => s.shut)
  const stop = states.find((s) => !s.shut)
  const told = stop ?? states.find((s) => s.failed) ?? states[states.length - 1]
  const potentials = sim.potentials()
  // Inside a source the origin is live whatever happens; outside, the terminal says.
  const before = potentials[gates[0].from].state === 'live'
  const after = potentials[gates[gates.length - 1].to].state === 'live'
  const [actuator] = actuatorIndex.values()
  return (
    <li
      className={`station gate ${before ? 'in' : ''} ${after ? 'out' : ''} ${shut ? 'shut' : 'open'}`}
      data-gate={`${fitted.id}`}
    >
      <GateDrawing shut={shut} before={before} after={after} />
      <div className="station-body">
        <button
          className="station-name"
          title={`Why is ${deviceName(circuit, fitted.id)} so?`}
          onClick={() => onPick(terminalBehind(circuit, gates))}
        >
          {deviceName(circuit, fitted.id)}
        </button>
        <PutInMark rig={rig} at={fitted.id} />
        <div className={told.failed ? 'stands failed' : 'stands'}>
          {told.label} <strong>{told.word}</strong>
          {before && !after && <span className="flag">live to here</span>}
        </div>
        {actuator !== undefined && (
          <div className="small">
            valve {motionText(circuit, actuator, sim.actuatorMotion(actuator))},{' '}
            {travelText(circuit, actuator, sim.actuatorPosition(actuator))}
          </div>
        )}
        {gates.map((gate) => (
          <NewFuse key={gate.edge} rig={rig} gate={gate} act={act} />
        ))}
        <Controls
          rig={rig}
          device={fitted.id}
          controls={type.controls.filter((c) => concerns(circuit, gates, c))}
          act={act}
        />
      </div>
    </li>
  )
}

/** The terminal behind the gates; inside a device, the one before them. */
function terminalBehind({ atoms }: Circuit, gates: readonly Gate[]): string {
  const [behind, before] = [gates[gates.length - 1].to, gates[0].from].map((atom) => atoms[atom])
  return behind.kind === 'internal' ? before.ref : behind.ref
}

/** A blown fuse is replaced where it stands; what blew it is still there unless it has been taken out. */
function NewFuse({ rig, gate, act }: { rig: Rig; gate: Gate; act: (...actions: Action[]) => void }) {
  const { circuit } = rig.simulation
  const edge = circuit.edges[gate.edge]
  if (edge.kind !== 'fuse' || !rig.simulation.fuseBlown(edge.fuse)) return null
  const { device, part } = circuit.fuses[edge.fuse]
  const fault = `${circuit.devices[device].device.id}.${part.id}.blown`
  if (!rig.faults.has(fault)) return null
  return (
    <button className="btn btn-outline-dark btn-sm" onClick={() => act({ do: 'mend', fault })}>
      Cause found: new fuse
    </button>
  )
}

/** Does a control have a say in these contacts? A programmer's other channel does not. */
function concerns(circuit: Circuit, gates: Gate[], control: Control): boolean {
  return gates.some((gate) => {
    const edge = circuit.edges[gate.edge]
    if (edge.kind !== 'contact') return false
    const { closedWhen, device } = circuit.contacts[edge.contact]
    return leavesThatMatter(closedWhen, circuit.devices[device]).some((leaf) => {
      if ('control' in leaf) return leaf.control === control.id
      if (!('sensor' in leaf)) return false
      const { part } = circuit.sensors[circuit.devices[device].sensorIndex.get(leaf.sensor)!]
      return part.reads === control.id || part.setPoint === control.id
    })
  })
}

function GateDrawing({ shut, before, after }: { shut: boolean; before: boolean; after: boolean }) {
  return (
    <div className="gate-drawing" aria-hidden>
      <span className={before ? 'wire live' : 'wire'} />
      <svg width="56" height="36" viewBox="0 0 56 36">
        <path d={shut ? 'M12 24H44' : 'M12 24 40 6'} className={shut && before && after ? 'lever live' : 'lever'} />
        <circle cx="10" cy="24" r="5" className={before ? 'pin live' : 'pin'} />
        <circle cx="46" cy="24" r="5" className={after ? 'pin live' : 'pin'} />
      </svg>
      <span className={after ? 'wire live' : 'wire'} />
    </div>
  )
}
