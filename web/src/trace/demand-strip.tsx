import {
  demandDetailText,
  demandHeadline,
  demandStates,
  phaseText,
  signsOf,
  unmetDemands,
  type DemandState,
  type Rig,
} from '@nobbet/core'

interface DemandStripProps {
  rig: Rig
  /** The demand whose runs alone are shown. */
  followed?: string
  onFollow: (demand: string | undefined) => void
  /** Of a demand or a boiler, by its id. */
  onWhy: (of: string) => void
}

/** The demands in one line, each in one of four words or on its way; pressed, its own runs alone are shown. */
export function DemandStrip({ rig, followed, onFollow, onWhy }: DemandStripProps) {
  const { circuit } = rig.simulation
  const atRest = rig.simulation.nextEventAt() === Infinity
  // What is called for and stays cold once everything rests.
  const cold = new Set(atRest ? unmetDemands(rig.simulation) : [])
  return (
    <section
      className={circuit.installation.intent.demands.length > 3 ? 'demands many' : 'demands'}
      aria-label="Demands"
    >
      {demandStates(rig.simulation).map((state) => (
        <div
          key={state.demand.id}
          className={`demand ${state.travelling?.length ? 'travelling' : state.word} ${atRest && !waits(state) ? 'at-rest' : ''} ${followed === state.demand.id ? 'followed' : ''}`}
          data-demand={state.demand.id}
        >
          <button
            className="demand-name"
            aria-pressed={followed === state.demand.id}
            title="Show this demand's runs alone"
            onClick={() => onFollow(followed === state.demand.id ? undefined : state.demand.id)}
          >
            {state.demand.name}
          </button>
          <DemandWord text={demandHeadline(rig.simulation, state)} travels={Boolean(state.travelling?.length)} />
          <DemandDetail rig={rig} state={state} />
          {(state.word === 'held-up' || cold.has(state.demand)) && (
            <button className="btn btn-link btn-sm" onClick={() => onWhy(state.demand.id)}>
              Why?
            </button>
          )}
        </div>
      ))}
      <Plant rig={rig} onWhy={onWhy} />
    </section>
  )
}

/** A phone has no room for more letters. */
const longest = 14

/** Where there is no room for more, how far a valve has come is told without the word for it. */
function DemandWord({ text, travels }: { text: string; travels: boolean }) {
  const cut = travels ? text.lastIndexOf(' ') + 1 : 0
  return (
    <div className={text.length > longest ? 'demand-word long' : 'demand-word'} title={text}>
      {cut > 0 && <span className="motion">{text.slice(0, cut)}</span>}
      {text.slice(cut)}
    </div>
  )
}

/** Where it is held up, which valve is on its way, a run of a device's own. */
function DemandDetail({ rig, state }: { rig: Rig; state: DemandState }) {
  const { circuit } = rig.simulation
  const text = state.travelling?.length
    ? state.travelling.map((actuator) => circuit.devices[circuit.actuators[actuator].device].device.name).join(', ')
    : demandDetailText(rig.simulation, state)
  return text ? (
    <div className="demand-way" title={text}>
      {text}
    </div>
  ) : null
}

/** Held up only by another demand that goes first: the way of the scheme, no fault. */
const waits = (state: DemandState) => state.openPoints.some((point) => point.at === 'priority')

const workWords = { runs: ['stopped', 'running'], heats: ['cold', 'heating'] } as const

/** What comes of it: the boiler's phase, whether the pump runs, and which circuits warm. */
function Plant({ rig, onWhy }: Pick<DemandStripProps, 'rig' | 'onWhy'>) {
  const { simulation } = rig
  const { circuit } = simulation
  const name = (device: number) => circuit.devices[device].device.name
  const warming = new Set(signsOf(simulation).warm)
  const warm = circuit.installation.intent.demands.filter((d) => warming.has(d.id)).map((d) => d.name)
  return (
    <div className="demand plant">
      {circuit.behaviours.map(({ device }, i) => (
        <div key={i} className="boiler">
          <button
            className="demand-name"
            title="Why is it so, and what would have to change?"
            onClick={() => onWhy(circuit.devices[device].device.id)}
          >
            {name(device)}
          </button>{' '}
          <span className="demand-word">{phaseText(circuit, i, simulation.phase(i).phase)}</span>
        </div>
      ))}
      {circuit.loads.map(({ device, part }, i) =>
        part.work ? (
          <div key={i}>
            {name(device)} {part.work === 'heats' && part.label}{' '}
            <strong>{workWords[part.work][simulation.loadWorking(i) ? 1 : 0]}</strong>
          </div>
        ) : null,
      )}
      <div className="warms">
        Warms <strong>{warm.length > 0 ? warm.join(', ') : 'nothing'}</strong>
      </div>
    </div>
  )
}
