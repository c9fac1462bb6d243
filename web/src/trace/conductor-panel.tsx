import { conductorName, endText, terminalName, type EdgeId, type Rig } from '@nobbet/core'
import { CloseButton } from 'react-bootstrap'
import { Conductor } from '../drawing/conductor'
import { StateMark } from '../drawing/state-mark'
import { conductorOf } from './picked'
import { PutInMark } from './put-in-marks'

interface ConductorPanelProps {
  rig: Rig
  /** As `~cable.core`. */
  conductor: string
  onPick: (ref: string) => void
  onClose: () => void
}

/** One conductor: its colour, where each end is, and what is on it there. */
export function ConductorPanel({ rig, conductor, onPick, onClose }: ConductorPanelProps) {
  const { circuit } = rig.simulation
  const of = conductorOf(conductor)
  const cable = circuit.installation.cables.find((c) => c.id === of.cable)
  const core = cable?.cores.find((k) => k.id === of.core)
  if (!cable || !core) return null
  const edge = circuit.edges.findIndex((e) => e.kind === 'core' && e.core === core) as EdgeId
  const broken = edge >= 0 && rig.simulation.edgeBroken(edge)
  return (
    <section className="sheet terminal-panel" aria-label="Picked conductor">
      <header>
        <h2>{conductorName(circuit, cable.id, core.id)}</h2>
        <CloseButton onClick={onClose} />
      </header>
      <p className="mb-1">
        <Conductor colour={core.colour} sleeve={core.sleeve} /> {core.areaMm2} mm²
        {cable.lengthM !== undefined && `, ${cable.lengthM} m`} {broken && <strong className="failed">open</strong>}{' '}
        <PutInMark rig={rig} at={conductor} />
      </p>
      <ol className="ends">
        {core.ends.map((end, i) => (
          <li key={i}>
            {end.at === 'terminal' ? (
              <>
                <button className="btn btn-link p-0" onClick={() => onPick(end.terminal)}>
                  {terminalName(circuit, end.terminal)}
                </button>{' '}
                <StateMark state={rig.simulation.potentialAt(end.terminal).state} />
              </>
            ) : (
              endText(circuit.installation, end)
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}
