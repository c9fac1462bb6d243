import {
  partName,
  returnsOf,
  runsOf,
  runsOfDemand,
  voltsText,
  type Action,
  type Circuit,
  terminalName,
  trunkOf,
  type ReturnWay,
  type Rig,
  type Run,
  type Simulation,
  type Station,
  type Way,
} from '@nobbet/core'
import { Fragment, useMemo } from 'react'
import type { Desk } from './desk'
import { GateStation, groupGates } from './gate-station'
import { LegStation, TerminalChip } from './leg-station'
import { LoadStation } from './load-station'

interface RunsProps {
  rig: Rig
  act: (...actions: Action[]) => void
  /** The terminal, or conductor as `~cable.core`, that is looked at. */
  picked?: string
  /** The demand that is followed; undefined for all. */
  followed?: string
  /** Where it stands which runs are folded away. */
  desk: Desk
  onPick: (ref: string) => void
}

/**
 * Every signal from the spur to its load as a line of stations; what they have in common is a trunk, drawn once, and each leaves it. The
 * layout never moves; only what is live changes.
 */
export function Runs(props: RunsProps) {
  const { circuit } = props.rig.simulation
  const demand = circuit.installation.intent.demands.find((d) => d.id === props.followed)
  const runs = useMemo(() => (demand ? runsOfDemand(circuit, demand) : runsOf(circuit)), [circuit, demand])
  const trunk = useMemo(() => trunkOf(runs), [runs])
  const end = trunk?.way.at(-1)
  const fed = end && props.rig.simulation.potentials()[end.to].state === 'live'
  const { desk } = props
  const folded = new Set(desk.all('folded'))
  const setFolded = (ids: readonly string[]) => desk.set({ folded: ids })
  const returns = desk.one('returns') !== undefined
  const toggle = (id: string) => setFolded(folded.has(id) ? [...folded].filter((f) => f !== id) : [...folded, id])
  return (
    <section className="runs" aria-label="Runs">
      <div className="runs-head">
        <label>
          <input
            type="checkbox"
            checked={returns}
            onChange={(event) => desk.put('returns', event.target.checked ? 'shown' : undefined)}
          />{' '}
          Neutral and earth ways
        </label>
        {runs.length > 2 && (
          <button
            className="btn btn-link btn-sm"
            onClick={() => setFolded(folded.size > 0 ? [] : runs.map((r) => r.id))}
          >
            {folded.size > 0 ? 'Unfold all' : 'Fold all'}
          </button>
        )}
      </div>
      {trunk && (
        <article className={fed ? 'run trunk live' : 'run trunk'} aria-label="What all have in common">
          <ol className="run-line">
            <WayStations {...props} way={trunk.way} />
          </ol>
        </article>
      )}
      {runs.map((run) => (
        <RunLine
          key={run.id}
          {...props}
          run={run}
          branch={trunk?.branches.get(run.id)}
          fed={fed}
          returns={returns}
          folded={folded.has(run.id)}
          onFold={() => toggle(run.id)}
        />
      ))}
    </section>
  )
}

interface RunLineProps extends RunsProps {
  run: Run
  /** What of its way is its own, where it leaves the trunk; and whether it is fed there. */
  branch?: Way
  fed?: boolean
  folded: boolean
  returns: boolean
  onFold: () => void
}

function RunLine({ run, branch, fed, folded, returns, onFold, ...props }: RunLineProps) {
  const { simulation } = props.rig
  const { circuit } = simulation
  const { device, part } = circuit.loads[run.load]
  const id = circuit.devices[device].device.id
  const { state } = simulation.potentials()[run.fed]
  const live = state === 'live'
  const leaves = branch ? (fed ? 'leaves fed' : 'leaves') : ''
  return (
    <article className={`run ${live ? 'live' : ''} ${leaves} ${folded ? 'folded' : ''}`} data-run={run.id}>
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
            <WayStations {...props} way={branch ?? run.way} />
            <LoadStation rig={props.rig} run={run} act={props.act} onPick={props.onPick} />
          </ol>
        ))}
      {!folded &&
        returns &&
        returnsOf(circuit, run).map((back) => <ReturnLine key={`${back.pole} ${back.at}`} {...props} back={back} />)}
    </article>
  )
}

/** The way of a neutral or an earth to the load's device: thinner than the signal, and named. */
function ReturnLine({ back, ...props }: RunsProps & { back: ReturnWay }) {
  const { circuit } = props.rig.simulation
  const joined = props.rig.simulation.potentials()[back.at].state
  const behind = circuit.devices[circuit.deviceIndex.get(circuit.atoms[back.at].owner)!].type.terminals.some(
    (t) => t.extraLow && `${circuit.atoms[back.at].owner}.${t.id}` === circuit.atoms[back.at].ref,
  )
  const name = back.pole === 'earth' ? 'Earth' : behind ? 'Return' : 'Neutral'
  const right = back.pole === 'earth' ? joined === 'earth' : joined === 'neutral'
  return (
    <div
      className={right ? 'return-line' : 'return-line wrong'}
      data-return={`${back.pole} ${circuit.atoms[back.at].ref}`}
    >
      <span className="return-name">{name}</span>
      {back.way.length === 0 ? (
        <span>no conductor leads to {terminalName(circuit, circuit.atoms[back.at].ref)}</span>
      ) : (
        <ol className="run-line">
          <WayStations {...props} way={back.way} />
          <li className="station return-end">
            {terminalName(circuit, circuit.atoms[back.at].ref)} {right ? '' : `is not joined to ${name.toLowerCase()}`}
          </li>
        </ol>
      )}
    </div>
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
