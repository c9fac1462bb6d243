import type { Condition } from '../catalogue'
import type { Circuit } from '../circuit'
import type { ContactRef, Demand } from '../installation'
import { formatAction, Simulation, type Action } from '../simulation'
import { callLoad, circuitOpen, demandStates, goesFirst, unaskedCalls, wanted } from '../trace'
import type { Finding } from './finding'

/** The actions that make a device's contact ask, or stop asking: found in the conditions, not in device names. */
export function actionsFor(circuit: Circuit, at: ContactRef, asking: boolean): Action[] {
  const { type, device } = circuit.devices[circuit.deviceIndex.get(at.device)!]
  const part = type.primitives.find((p) => p.id === at.contact)!
  const condition =
    part.kind === 'contact' ? part.closedWhen : part.kind === 'changeover' ? part.operatedWhen : undefined
  const actions: Action[] = []
  const visit = (c: Condition): void => {
    if ('control' in c) {
      const control = type.controls.find((k) => k.id === c.control)!
      // How things stand with the device is not for the user of the heating to set.
      if (control.kind !== 'choice' || control.ambient) return
      const value = asking ? c.is[0] : control.values.find((v) => !c.is.includes(v.id))!.id
      actions.push({ do: 'set', device: device.id, control: c.control, value })
    } else if ('sensor' in c) {
      const sensor = type.primitives.find((p) => p.kind === 'sensor' && p.id === c.sensor)
      if (sensor?.kind !== 'sensor') return
      const knob = type.controls.find((k) => k.id === sensor.setPoint)!
      if (knob.kind !== 'number') return
      // The end stops of the dial: what a person turns it to when a call is wanted for certain.
      const value = String(asking ? knob.max : knob.min)
      actions.push({ do: 'set', device: device.id, control: sensor.setPoint, value })
    } else if ('all' in c) c.all.forEach(visit)
    // Of several ways to ask, a person takes the first: the others are there for other reasons.
    else if ('any' in c) visit(c.any[0])
  }
  if (condition) visit(condition)
  return actions
}

/** The actions that make just these demands wanted: every channel and thermostat set, those of no wanted demand to rest. */
export function demandActions(circuit: Circuit, wantedIds: readonly string[]): Action[] {
  const { demands } = circuit.installation.intent
  const settings = new Map<string, { at: ContactRef; asking: boolean }>()
  for (const demand of demands)
    for (const at of [demand.channel, demand.thermostat]) {
      if (!at) continue
      const key = `${at.device}.${at.contact}`
      const asking = wantedIds.includes(demand.id) || (settings.get(key)?.asking ?? false)
      settings.set(key, { at, asking })
    }
  return [...settings.values()].flatMap(({ at, asking }) => actionsFor(circuit, at, asking))
}

/** Every subset of some ids, the empty one first, smaller ones before larger. */
export function subsets(ids: readonly string[]): string[][] {
  let all: string[][] = [[]]
  for (const id of ids) all = all.concat(all.map((s) => [...s, id]))
  return all.sort((x, y) => x.length - y.length)
}

/**
 * Runs every combination of demands from rest and judges each settled state by intent. A transient short is a finding
 * too. Each rule is reported once per demand or terminal, for the smallest combination that shows it.
 */
export function demandFindings(circuit: Circuit): { findings: Finding[]; combinations: number } {
  const { demands } = circuit.installation.intent
  const combinations = subsets(demands.map((d) => d.id))
  const findings = new Map<string, Finding>()
  const note = (key: string, finding: Finding) => {
    if (!findings.has(key)) findings.set(key, finding)
  }
  for (const combination of combinations) {
    const actions = demandActions(circuit, combination)
    const sim = new Simulation(circuit)
    for (const action of actions) if (action.do === 'set') sim.set(action.device, action.control, action.value)
    const verdict = sim.settle()
    const shown = { demands: combination, actions: actions.map(formatAction) }
    if (verdict !== 'settled')
      note('settles', { rule: 'never-settles', severity: 'will-not-work', terminals: [], devices: [], ...shown })
    if (sim.history.some((e) => e.kind === 'short'))
      note('short', { rule: 'line-neutral-joined', severity: 'danger', terminals: [], devices: [], ...shown })
    for (const { demand, word } of demandStates(sim)) {
      // Under priority it waits for the one that goes first.
      const runs = !wanted(sim, demand) || goesFirst(sim, demand) || (word === 'calling' && served(sim, demand))
      if (!runs)
        note(`never ${demand.id}`, {
          rule: 'demand-never-calls',
          severity: 'will-not-work',
          terminals: [`${demand.call.boiler}.${inputTerminal(circuit, demand)}`],
          devices: [demand.call.boiler],
          ...shown,
        })
    }
    for (const call of unaskedCalls(sim))
      note(`unasked ${call.boiler}.${call.input}`, {
        rule: 'call-without-demand',
        severity: 'danger',
        terminals: [],
        devices: [call.boiler],
        ...shown,
      })
  }
  return { findings: [...findings.values()], combinations: combinations.length }
}

/** Is the demand's circuit open and its boiler input called? */
const served = (sim: Simulation, demand: Demand): boolean =>
  circuitOpen(sim, demand) && sim.loadEnergised(callLoad(sim.circuit, demand.call))

function inputTerminal(circuit: Circuit, demand: Demand): string {
  const { type } = circuit.devices[circuit.deviceIndex.get(demand.call.boiler)!]
  return type.inputs.find((i) => i.id === demand.call.input)!.terminal
}
