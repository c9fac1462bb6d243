import {
  partName,
  runsOf,
  runsOfDemand,
  voltsText,
  type Action,
  type Circuit,
  type Rig,
  type Run,
  type Simulation,
  type Station,
  type Way,
} from '@nobbet/core'
import { Fragment, useMemo, useState } from 'react'
import { GateStation, groupGates } from './gate-station'
import { LegStation, TerminalChip } from './leg-station'
import { LoadStation } from './load-station'

interface RunsProps {
  rig: Rig
  act: (...actions: Action[]) => void
  picked?: string
  /** The demand that is followed; undefined for all. */
  followed?: string
  onPick: (terminal: string) => void
}

/** Every signal from the spur to its load as a line of stations. The layout never moves; only what is live changes. */
export function Runs(props: RunsProps) {
  const { circuit } = props.rig.simulation
  const demand = circuit.installation.intent.demands.find((d) => d.id === props.followed)
  const runs = useMemo(() => (demand ? runsOfDemand(circuit, demand) : runsOf(circuit)), [circuit, demand])
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set())
  const toggle = (id: string) => {
    const next = new Set(folded)
    if (!next.delete(id)) next.add(id)
    setFolded(next)
  }
  return (
    <section className="runs" aria-label="Runs">
      {runs.map((run) => (
        <RunLine key={run.id} {...props} run={run} folded={folded.has(run.id)} onFold={() => toggle(run.id)} />
      ))}
    </section>
  )
}

function RunLine({ run, folded, onFold, ...props }: RunsProps & { run: Run; folded: boolean; onFold: () => void }) {
  const { simulation } = props.rig
  const { circuit } = simulation
  const { device, part } = circuit.loads[run.load]
  const id = circuit.devices[device].device.id
  const { state } = simulation.potentials()[run.fed]
  const live = state === 'live'
  return (
    <article className={live ? 'run live' : 'run'} data-run={run.id}>
      <header>
        <button className="fold" aria-expanded={!folded} onClick={onFold}>
          <span aria-hidden>{folded ? '▸' : '▾'}</span> {partName(circuit, id, part.id)}
        </button>
        <span className="arrives">{live ? 'live arrives' : state === 'partial' ? 'partial arrives' : 'not live'}</span>
        <LoadReads simulation={simulation} load={run.load} />
      </header>
      {!folded &&
        (run.way.length === 0 ? (
          <p className="m-2">No conductor leads here.</p>
        ) : (
          <ol className="run-line">
            <WayStations {...props} way={run.way} />
            <LoadStation rig={props.rig} run={run} onPick={props.onPick} />
          </ol>
        ))}
    </article>
  )
}

/** Volts across the load and what it takes; of half-waves the mean too. */
function LoadReads({ simulation, load }: { simulation: Simulation; load: number }) {
  const { electrics } = simulation
  const watts = electrics.loadPower(load).re
  const mean = electrics.loadMeans[load]
  return (
    <span className="load-reads">
      {voltsText(electrics.loadVolts[load])} across it
      {mean > 0.5 && `, half-waves, mean ${voltsText(mean)}`}
      {watts >= 0.05 && `, ${watts.toFixed(1)} W`}
    </span>
  )
}

function WayStations({ way, meet, ...props }: RunsProps & { way: Way; meet?: number }) {
  const { circuit } = props.rig.simulation
  return (
    <>
      {groupGates(circuit, way).map((stations, i) => {
        const [station] = stations
        return (
          <Fragment key={i}>
            {station.kind === 'gate' ? (
              <GateStation {...props} gates={stations.filter((s) => s.kind === 'gate')} />
            ) : station.kind === 'leg' ? (
              <LegStation rig={props.rig} leg={station} meet={meet} picked={props.picked} onPick={props.onPick} />
            ) : station.kind === 'split' ? (
              <>
                <li className="station split">
                  {station.branches.map((branch, k) => (
                    <ol key={k} className="run-line branch">
                      <WayStations {...props} way={branch} meet={station.to} />
                    </ol>
                  ))}
                </li>
                <li className="station meet">
                  <TerminalChip rig={props.rig} atom={station.to} picked={props.picked} onPick={props.onPick} />
                </li>
              </>
            ) : (
              <TangleStation circuit={circuit} station={station} />
            )}
          </Fragment>
        )
      })}
    </>
  )
}

function TangleStation({ circuit, station }: { circuit: Circuit; station: Extract<Station, { kind: 'tangle' }> }) {
  const names = station.edges.map((edge) => {
    const e = circuit.edges[edge]
    if (e.kind !== 'contact') return 'fuse'
    const { device, part } = circuit.contacts[e.contact]
    return partName(circuit, circuit.devices[device].device.id, part.id)
  })
  return (
    <li className="station tangle">
      <strong>Ways that cross each other</strong>
      {[...new Set(names)].map((name) => (
        <div key={name}>{name}</div>
      ))}
    </li>
  )
}
