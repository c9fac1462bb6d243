import {
  deviceName,
  phaseText,
  terminalName,
  type Action,
  type BusReading,
  type Rig,
  type Simulation,
} from '@nobbet/core'
import { Controls } from './controls'

interface BusPanelProps {
  rig: Rig
  act: (...actions: Action[]) => void
  onPick: (terminal: string) => void
}

/** The digital links: what each controller asks, what the boiler answers, and where a link that is not answered stops. */
export function BusPanel({ rig, act, onPick }: BusPanelProps) {
  const readings = rig.simulation.busReadings()
  return (
    <>
      {readings.map((reading) => (
        <Link key={reading.controller} rig={rig} reading={reading} act={act} onPick={onPick} />
      ))}
    </>
  )
}

const requestWords = { heating: 'heating', 'hot-water': 'hot water' } as const

function Link({ rig, reading, act, onPick }: BusPanelProps & { reading: BusReading }) {
  const sim = rig.simulation
  const { circuit } = sim
  const { device, part } = circuit.buses[reading.controller]
  const { device: controller, type } = circuit.devices[device]
  const asks = reading.asks.map((request) => requestWords[request])
  const flow = part.flow === undefined ? undefined : sim.control(controller.id, part.flow)
  const state = reading.linked ? 'answered' : reading.boiler === undefined ? 'not joined' : 'not answered'
  return (
    <section className="sheet bus" aria-label="Bus monitor" data-bus={controller.id} data-linked={reading.linked}>
      <header>
        <h2>Bus</h2>
        <span className={reading.linked ? 'bus-state' : 'bus-state failed'}>
          {reading.waiting ? 'waiting for the answer' : state}
        </span>
      </header>
      <div className="bus-sides">
        <div>
          <h3>{controller.name} asks</h3>
          <p className="bus-said">
            {asks.length > 0 ? `${asks.join(' and ')}${flow === undefined ? '' : `, flow ${flow}\u00a0°C`}` : 'no heat'}
          </p>
        </div>
        <div>
          <h3>
            {reading.boiler === undefined
              ? 'Nobody'
              : circuit.devices[circuit.buses[reading.boiler].device].device.name}{' '}
            answers
          </h3>
          <p className="bus-said">{reading.linked ? answer(sim, reading.boiler!) : 'nothing'}</p>
        </div>
      </div>
      {!reading.linked && <Stop sim={sim} reading={reading} onPick={onPick} />}
      <Controls rig={rig} device={controller.id} controls={type.controls} act={act} />
      <p className="quiet small m-0">
        Two extra-low-voltage wires, either way round. Never mains.{' '}
        {reading.linked && `While it is answered, the relays of ${deviceName(circuit, controller.id)} stay out.`}
      </p>
    </section>
  )
}

/** Flame, and what the boiler says it does. */
function answer(sim: Simulation, port: number): string {
  const { circuit } = sim
  const at = circuit.buses[port].device
  const behaviour = circuit.behaviours.findIndex((b) => b.device === at)
  if (behaviour < 0) return 'here'
  const { phase } = sim.phase(behaviour)
  const fault = phase === 'lockout' ? ', fault: locked out' : ''
  return `${phaseText(circuit, behaviour, phase)}, flame ${phase === 'firing' ? 'on' : 'off'}${fault}`
}

/** Where a link that is not answered has to be looked at. */
function Stop({ sim, reading, onPick }: { sim: Simulation; reading: BusReading; onPick: (terminal: string) => void }) {
  const { circuit } = sim
  const ports = [reading.controller, ...(reading.boiler === undefined ? [] : [reading.boiler])]
  return (
    <p className="m-0">
      {reading.boiler === undefined
        ? 'The two wires do not both reach a boiler. Look at '
        : 'Both wires reach the boiler and one side is silent. Look at '}
      {ports
        .flatMap((port) => [circuit.buses[port].a, circuit.buses[port].b])
        .map((atom) => (
          <button key={atom} className="btn btn-link btn-sm p-0 me-2" onClick={() => onPick(circuit.atoms[atom].ref)}>
            {terminalName(circuit, circuit.atoms[atom].ref)}
          </button>
        ))}
    </p>
  )
}
