import {
  demandStates,
  demandWords,
  openPointText,
  phaseWords,
  type Circuit,
  type DemandState,
  type Rig,
} from '@nobbet/core'

/** The demands across the top, each in one of four words. */
export function DemandStrip({ rig, onWhy }: { rig: Rig; onWhy: (terminal: string) => void }) {
  const { circuit } = rig.simulation
  const atRest = rig.simulation.nextEventAt() === Infinity
  return (
    <section className="demands" aria-label="Demands">
      {demandStates(rig.simulation).map((state) => (
        <div
          key={state.demand.id}
          className={`demand ${state.word} ${atRest ? 'at-rest' : ''}`}
          data-demand={state.demand.id}
        >
          <div className="demand-name">{state.demand.name}</div>
          <div className="demand-word">{demandWords[state.word]}</div>
          {state.word === 'held-up' && (
            <div className="demand-at">
              at {state.openPoints.map((point) => openPointText(circuit, point)).join(' or ')}
              <button className="btn btn-link btn-sm" onClick={() => onWhy(goalOf(circuit, state))}>
                Why?
              </button>
            </div>
          )}
        </div>
      ))}
      <Plant rig={rig} />
    </section>
  )
}

/** What comes of it: the boiler's phase and whether the pump runs. */
function Plant({ rig }: { rig: Rig }) {
  const { simulation } = rig
  const { circuit } = simulation
  const name = (device: number) => circuit.devices[device].device.name
  return (
    <div className="demand plant">
      {circuit.behaviours.map(({ device }, i) => (
        <div key={i}>
          <span className="demand-name">{name(device)}</span>{' '}
          <span className="demand-word">{phaseWords[simulation.phase(i).phase] ?? simulation.phase(i).phase}</span>
        </div>
      ))}
      {circuit.loads.map(({ device, part }, i) =>
        part.work ? (
          <div key={i}>
            {name(device)} <strong>{simulation.loadWorking(i) ? 'running' : 'stopped'}</strong>
          </div>
        ) : null,
      )}
    </div>
  )
}

/** The terminal the demand ends at: asked why it is dead, the whole chain is told. */
function goalOf(circuit: Circuit, { demand }: DemandState): string {
  const { type } = circuit.devices[circuit.deviceIndex.get(demand.call.boiler)!]
  return `${demand.call.boiler}.${type.inputs.find((i) => i.id === demand.call.input)!.terminal}`
}
