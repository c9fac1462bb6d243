import type { Circuit } from '../circuit'
import { actionsFor } from '../inputs'
import { nth } from '../lists'
import { Simulation, type Action } from '../simulation'
import { perform, settledMs } from './histories'
import { expectedOf } from './shown'
import type { RowLook, RunRow } from './row'

/**
 * How a row can be shown where its thermostat cannot be made to call, since what it senses is warm already: everything set as the row
 * says, the thermostat satisfied, and what each of its terminals then is. Read where its conductors end in a wiring centre, else at
 * itself. That what it would call works is not shown by it. Empty where the row asks for no demand with a thermostat.
 */
export function shownAnotherWay(circuit: Circuit, rows: readonly RunRow[], id: string): RowLook[] {
  const at = rows.findIndex((row) => row.id === id)
  const row = rows[at]
  const demand = circuit.installation.intent.demands.find((one) => one.id === row?.demand)
  if (!row || !demand?.thermostat || !row.wanted.includes(demand.id)) return []
  const sim = new Simulation(circuit)
  for (const { acts, waitMs } of rows.slice(0, at + 1)) perform(sim, acts, waitMs)
  perform(sim, satisfied(circuit, row), settledMs(circuit))
  return terminalsOf(circuit, demand.thermostat.device).flatMap((red): RowLook[] => {
    const look = expectedOf(sim, { at: 'points', with: 'tester', red })
    return look && 'word' in look.expect ? [look] : []
  })
}

/** What a row comes to where its thermostat stays satisfied: it is as if its dial were down. */
export function satisfied(circuit: Circuit, { demand: id }: Pick<RunRow, 'demand'>): Action[] {
  const demand = circuit.installation.intent.demands.find((one) => one.id === id)
  return demand?.thermostat ? actionsFor(circuit, demand.thermostat, false) : []
}

/** Where the conductors of a thermostat's own terminals can be reached: in a wiring centre, if they end in one. Earths are no signal. */
function terminalsOf(circuit: Circuit, device: string): string[] {
  const { cables, wiringCentres } = circuit.installation
  const centres = new Set(wiringCentres.map(({ id }) => id))
  const { type } = nth(circuit.devices, circuit.deviceIndex.get(device)!)
  const seen = type.terminals.flatMap(({ id, role, internal }) => {
    const own = `${device}.${id}`
    if (internal || role === 'earth') return []
    const cores = cables.flatMap((cable) => cable.cores).filter(({ ends }) => ends.some((end) => isAt(end, own)))
    if (cores.length === 0) return []
    const far = cores.flatMap(({ ends }) => ends.flatMap((end) => ('terminal' in end ? [end.terminal] : [])))
    return [far.find((ref) => centres.has(ref.slice(0, ref.indexOf('.')))) ?? own]
  })
  return [...new Set(seen)]
}

const isAt = (end: object, terminal: string): boolean => 'terminal' in end && end.terminal === terminal
