import {
  deviceName,
  feelWords,
  flowText,
  travelText,
  waterRounds,
  wayStates,
  type Action,
  type GateTree,
  type Rig,
  type WayState,
} from '@nobbet/core'
import { Controls } from './controls'

interface WaterPanelProps {
  rig: Rig
  act: (...actions: Action[]) => void
}

/** The water from each boiler's flow round to its return: what moves, and how every pipe feels to a hand. */
export function WaterPanel({ rig, act }: WaterPanelProps) {
  const { circuit } = rig.simulation
  const rounds = waterRounds(circuit)
  const states = wayStates(rig.simulation)
  if (rounds.length === 0)
    return <p className="sheet p-3">No boiler is in this document, so there is no water to show.</p>
  return (
    <section className="sheet water" aria-label="Water">
      <header>
        <h2>Water</h2>
        <span className="quiet small">
          Feel:{' '}
          {(['hot', 'warm', 'cold'] as const).map((feel) => (
            <Pipe key={feel} feel={feel} legend />
          ))}
        </span>
      </header>
      {rounds.map(({ way, source, tree }) => (
        <div className="round" key={source}>
          <Boiler rig={rig} way={way} state={states[way]} side="flow" />
          {tree ? (
            <Tree tree={tree} rig={rig} states={states} act={act} />
          ) : (
            <p className="quiet m-0">No pipe joins its flow to its return.</p>
          )}
          <Boiler rig={rig} way={way} state={states[way]} side="return" />
        </div>
      ))}
    </section>
  )
}

/** A length of pipe in the style of how it feels; the word stands with it. */
function Pipe({ feel, moving = true, legend }: { feel: WayState['before']; moving?: boolean; legend?: boolean }) {
  return (
    <span className={`pipe ${feel} ${moving ? 'moving' : 'still'} ${legend ? 'legend' : ''}`}>
      <i aria-hidden />
      <b>{feelWords[feel]}</b>
    </span>
  )
}

interface BoilerProps {
  rig: Rig
  way: number
  state: WayState
  side: 'flow' | 'return'
}

/** The two ends of a boiler: the flow leaves at the top, the return comes in at the foot. */
function Boiler({ rig, way, state, side }: BoilerProps) {
  const { circuit, heat } = rig.simulation
  const { device } = circuit.water.ways[way]
  const { device: boiler } = circuit.devices[device]
  const celsius = state.celsius[side === 'flow' ? 1 : 0]
  const feel = side === 'flow' ? state.behind : state.before
  return (
    <div className={`boiler-end ${side}`} data-boiler={boiler.id} data-side={side}>
      <strong>
        {boiler.name} {side}
      </strong>
      <Pipe feel={feel} moving={state.flow !== 0} />
      <span className="figures">
        {heat && <b>{Math.round(celsius)} °C</b>} {side === 'flow' ? flowText(state.flow) : ''}
      </span>
    </div>
  )
}

interface TreeProps extends WaterPanelProps {
  tree: GateTree
  states: WayState[]
}

function Tree({ tree, ...rest }: TreeProps) {
  switch (tree.kind) {
    case 'gate':
      return (
        <Way way={tree.edge} turned={rest.rig.simulation.circuit.water.ways[tree.edge].from !== tree.from} {...rest} />
      )
    case 'series':
      return (
        <div className="series">
          {tree.items.map((item, i) => (
            <Tree key={i} tree={item} {...rest} />
          ))}
        </div>
      )
    case 'parallel':
      return (
        <ul className="branches">
          {tree.branches.map((branch, i) => (
            <li key={i}>
              <Tree tree={branch} {...rest} />
            </li>
          ))}
        </ul>
      )
    case 'tangle':
      return (
        <div className="tangle">
          <p className="quiet m-0">These pipes cross: they are neither in a row nor side by side.</p>
          {tree.edges.map((edge) => (
            <Way key={edge} way={edge} turned={false} {...rest} />
          ))}
        </div>
      )
  }
}

/** One piece of plant in the water's way: the pipe before it, what it is and how it stands, the pipe behind it. */
function Way({
  way,
  turned,
  rig,
  states,
  act,
}: WaterPanelProps & { way: number; turned: boolean; states: WayState[] }) {
  const { simulation } = rig
  const { circuit, heat } = simulation
  const { device, part, port, pump } = circuit.water.ways[way]
  const { device: plant, type, actuatorIndex } = circuit.devices[device]
  const state = states[way]
  const emitter = circuit.water.emitters.findIndex((e) => e.way === way)
  const [before, behind] = turned ? [state.behind, state.before] : [state.before, state.behind]
  const said = (() => {
    if (port !== undefined) {
      const { actuator, part: gate } = circuit.ports[port]
      const position = simulation.actuatorPosition(actuator)
      const open = position >= gate.openFrom && position <= gate.openTo
      const ends = circuit.actuators[actuator].part.ends !== undefined
      if (open) return ends ? 'open' : travelText(circuit, actuator, position)
      return simulation.portPasses(port) ? 'shut, passes' : 'shut'
    }
    if (pump) return simulation.loadWorking(pump.load) ? (state.flow === 0 ? 'runs, moves nothing' : 'runs') : 'stopped'
    if (emitter >= 0) return state.flow === 0 ? 'no flow' : flowText(state.flow)
    return state.flow === 0 ? 'shut' : `open, ${flowText(state.flow)}`
  })()
  const space = emitter >= 0 && heat ? heat.celsius[heat.lumps.warms[emitter]] : undefined
  const ambient = type.controls.filter((c) => c.kind === 'choice' && c.ambient && c.id === 'draw')
  const manyPorts = [...actuatorIndex].length > 0 && type.primitives.filter((p) => p.kind === 'port').length > 1
  return (
    <div className={`way ${state.flow === 0 ? 'still' : 'moving'}`} data-way={`${plant.id}.${part.id}`}>
      <Pipe feel={before} moving={state.flow !== 0} />
      <div className={emitter >= 0 ? 'plant emitter' : 'plant'}>
        <strong>
          {deviceName(circuit, plant.id)}
          {manyPorts ? `, ${part.label}` : ''}
        </strong>{' '}
        <span className="said">{said}</span>
        {space !== undefined && (
          <span className="space">
            {circuit.water.emitters[emitter].part.into === 'room' ? 'room' : 'hot water'} <b>{space.toFixed(1)} °C</b>
          </span>
        )}
        {emitter >= 0 && (
          <span className="behind">
            back <Pipe feel={behind} moving={state.flow !== 0} />
            {heat && <b>{Math.round(state.celsius[turned ? 0 : 1])} °C</b>}
          </span>
        )}
        {ambient.length > 0 && <Controls rig={rig} device={plant.id} controls={ambient} act={act} />}
      </div>
    </div>
  )
}
