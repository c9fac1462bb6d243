import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a single zone on a mains call: a wireless receiver beside the boiler, its common fed on a core of its own, switches
 * the boiler's live. The boiler's linked thermostat pair has its factory link out. Takes a brief for one heating circuit.
 */
export function planSingleZoneMains(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const [zone] = circuitsOf(brief).heating
  system.mains()
  layout.function('call', 'Boiler call')
  system.spur()
  system.device('receiver', `${zone} receiver`, 'wireless-receiver')
  layout.cable(
    'receiver-cable',
    `${zone} receiver cable`,
    'receiver',
    [
      { terminal: 'L', use: 'line', to: 'L' },
      { terminal: 'N', use: 'neutral', to: 'N' },
      { terminal: null, use: 'earth', to: 'E' },
      { terminal: 'COM', use: 'switched', to: 'L' },
      { terminal: 'NO', use: 'switched', to: 'call' },
    ],
    2,
    { cores: 5 },
  )
  system.boiler('boiler-linked-pair', 'Boiler', { SL: 'call' })
  layout.link('boiler.T1', 'boiler.T2', 'cut')
  system.pump()
  system.demand({
    id: 'heating-1',
    name: zone,
    kind: 'heating',
    channel: null,
    thermostat: { device: 'receiver', contact: 'contact' },
    circuit: { valves: [] },
    call: { boiler: 'boiler', input: 'SL' },
  })
  return system.installation(id, name, 'Single zone, mains call')
}
