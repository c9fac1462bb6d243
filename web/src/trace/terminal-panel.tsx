import {
  type Background,
  endText,
  livePath,
  potentialText,
  meaningText,
  terminalName,
  thingsOf,
  viaText,
  whyTerminal,
  type Circuit,
  type Rig,
} from '@nobbet/core'
import { CloseButton } from 'react-bootstrap'
import { Link } from 'react-router'
import { Conductor } from '../drawing/conductor'
import { StateMark } from '../drawing/state-mark'
import { Causes } from './causes'
import { conductorRef } from './picked'

interface TerminalPanelProps {
  rig: Rig
  terminal: string
  background: Background
  /** The job it is of; none for an example. */
  job?: string
  onPick: (terminal: string) => void
  onClose: () => void
}

/** One terminal: what it reads, how live gets there hop by hop, and why. */
export function TerminalPanel({ rig, terminal, background, job, onPick, onClose }: TerminalPanelProps) {
  const sim = rig.simulation
  const { circuit } = sim
  const potential = sim.potentialAt(terminal)
  const path = livePath(sim, circuit.atomIndex.get(terminal)!)?.filter((hop) => !isInternal(circuit, hop.to))
  const named = potential.state === 'neutral' || potential.state === 'earth'
  return (
    <section className="sheet terminal-panel" aria-label="Picked terminal">
      <header>
        <h2>{terminalName(circuit, terminal)}</h2>
        <CloseButton onClick={onClose} />
      </header>
      <p className="mb-1">
        <StateMark state={potential.state} reads={potentialText(circuit, potential)} />{' '}
        <span className="quiet">{meaningText(potential)}</span>
      </p>
      {!named && (
        <>
          <h3>Why is it {path ? 'live' : 'not live'}?</h3>
          <Causes circuit={circuit} causes={whyTerminal(sim, terminal, background).because} job={job} onPick={onPick} />
        </>
      )}
      {job && <NoteInHunt job={job} circuit={circuit} terminal={terminal} />}
      <h3>Conductors here</h3>
      <ul className="conductors-here">
        {conductorsAt(circuit, terminal).map(({ cable, core, far }) => (
          <li key={`${cable.id} ${core.id}`}>
            <button className="btn btn-link p-0" onClick={() => onPick(conductorRef(cable.id, core.id))}>
              <Conductor colour={core.colour} sleeve={core.sleeve} /> {endText(circuit.installation, far)}
            </button>
          </li>
        ))}
      </ul>
      {path && (
        <>
          <h3>Live path</h3>
          <ol className="path">
            {path.map((hop, i) => (
              <li key={i}>
                {viaText(circuit, hop.via)} →{' '}
                <button className="btn btn-link p-0" onClick={() => onPick(hop.to)}>
                  {terminalName(circuit, hop.to)}
                </button>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  )
}

/** What is found on site of the device or box it belongs to goes into the hunt. */
function NoteInHunt({ job, circuit, terminal }: { job: string; circuit: Circuit; terminal: string }) {
  const [owner = ''] = terminal.split('.')
  const thing = thingsOf(circuit).find(({ id }) => id === owner)
  if (!thing) return null
  return (
    <p className="note-in-hunt">
      <Link to={`/jobs/${job}/hunt?see=noticed&thing=${owner}`}>Found on site: note it in Hunt</Link>
    </p>
  )
}

/** The cores that end at a terminal, and where their other ends are. */
const conductorsAt = (circuit: Circuit, terminal: string) =>
  circuit.installation.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      ([0, 1] as const).flatMap((end) => {
        const at = core.ends[end]
        const here = (at.at === 'terminal' || at.at === 'parked') && at.terminal === terminal
        return here ? [{ cable, core, far: core.ends[1 - end] }] : []
      }),
    ),
  )

const isInternal = (circuit: Circuit, ref: string) => circuit.atoms[circuit.atomIndex.get(ref)!].kind === 'internal'
