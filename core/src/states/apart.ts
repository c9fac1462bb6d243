import type { Circuit } from '../circuit'
import type { Input } from '../inputs'

/**
 * Inputs in groups that share nothing: no conductor, terminal or part joins the devices of one to those of another, no pipe, and no
 * demand speaks of both. What one group does, no other can notice, so each is looked at while the others rest: the states of two
 * such circuits add up, where looked at together they would multiply.
 */
export function inputsApart(circuit: Circuit, inputs: readonly Input[]): number[][] {
  const { installation } = circuit
  const parent = new Map<string, string>()
  const root = (x: string): string => {
    let at = x
    for (let up = parent.get(at); up !== undefined && up !== at; up = parent.get(at)) at = up
    return at
  }
  const join = (x: string, y: string) => parent.set(root(x), root(y))
  const device = (id: string) => `device ${id}`
  // A device's own terminals belong together, whatever stands between them; so do the two ends of a conductor, link or contact.
  circuit.atoms.forEach(({ owner }, atom) => {
    if (circuit.deviceIndex.has(owner)) join(`atom ${atom}`, device(owner))
  })
  for (const { a, b } of [...circuit.edges, ...circuit.branches]) join(`atom ${a}`, `atom ${b}`)
  for (const { from, to } of installation.pipes) join(device(from.split('.')[0]), device(to.split('.')[0]))
  for (const { id, channel, thermostat, circuit: way, call } of installation.intent.demands) {
    const named = [channel?.device, thermostat?.device, ...way.valves.map((v) => v.device), ...(way.runs ?? [])]
    for (const other of [...named, ...(way.emitters ?? []), call.boiler])
      if (other !== undefined) join(device(other), `demand ${id}`)
  }
  for (const { id, companions } of installation.intent.demands)
    for (const other of companions) join(`demand ${id}`, `demand ${other}`)
  const groups = new Map<string, number[]>()
  inputs.forEach((input, i) => {
    const key = root(device(input.device))
    groups.set(key, [...(groups.get(key) ?? []), i])
  })
  return [...groups.values()]
}
