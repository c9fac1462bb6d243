import type { BusRequest, Condition } from '../catalogue'
import { conducts, type EdgeId } from '../circuit'
import type { Asker } from './asker'
import type { Cause, Claim } from './claims'
import { wiredTo } from './gates'

/** What asking about a bus needs to ask on. */
interface BusAsker extends Asker {
  condition(condition: Condition, device: number, value: boolean): Cause[]
  departures(of: Asker['sim']['circuit'], edge: EdgeId): Cause[]
  once(key: string, claim: Claim, because: () => Cause[], failed?: boolean): Cause
}

/** A link that stands or a request that is heard, or not. */
export function busCauses(asker: BusAsker, port: number, what: 'link' | BusRequest, value: boolean): Cause[] {
  const { sim } = asker
  const { device, part } = sim.circuit.buses[port]
  const reading = sim
    .busReadings()
    .find((r) => r.controller === port || (r.boiler === port && (what === 'link' || r.asks.includes(what) === value)))
  const joined = reading?.boiler !== undefined
  const claim: Claim = {
    is: 'bus',
    device: sim.circuit.devices[device].device.id,
    part: part.id,
    what,
    heard: value,
    joined,
  }
  const other = reading && reading.controller !== port ? sim.circuit.buses[reading.controller] : undefined
  const because = (): Cause[] => {
    if (!joined && !value) return busApart(asker, port)
    if (!reading || !joined) return []
    const request = other && what !== 'link' ? other.part.requests?.[what] : undefined
    const asks = request && sim.conditionHolds(request, other!.device)
    if (request && asks === value) return asker.condition(request, other!.device, value)
    return value ? [] : [reading.controller, reading.boiler!].flatMap((end) => busEnd(asker, end))
  }
  return [asker.once(`bus ${port} ${what}`, claim, because, sim.busSilent(port))]
}

/** Why a link does not stand, as far as it lies at this end: silent, or without its supply. */
function busEnd(asker: BusAsker, port: number): Cause[] {
  const { sim } = asker
  const { device, part, powered, heard } = sim.circuit.buses[port]
  if (!sim.loadEnergised(powered)) return [asker.load(powered)]
  if (heard !== undefined && !sim.loadEnergised(heard)) return [asker.load(heard)]
  if (!sim.busSilent(port)) return []
  const claim: Claim = {
    is: 'bus',
    device: sim.circuit.devices[device].device.id,
    part: part.id,
    what: 'link',
    heard: false,
    joined: true,
  }
  return [{ claim, failed: true, because: [] }]
}

/** Why a bus port has nobody at the other end: its two wires, as far as they do not lead to another one. */
function busApart(asker: BusAsker, port: number): Cause[] {
  const { sim, beside } = asker
  const { plan } = beside
  const { a, b, powered } = sim.circuit.buses[port]
  if (!sim.loadEnergised(powered)) return [asker.load(powered)]
  const ends = [a, b].map((atom) => plan.atomIndex.get(sim.circuit.atoms[atom].ref))
  return ends.flatMap((end) => {
    if (end === undefined) return []
    const wires = [...wiredTo(plan, end, () => true).values()].filter((e) => e !== undefined)
    return wires.flatMap((edge) => {
      const here = beside.edgeOf(edge)
      if (here === undefined) return asker.departures(plan, edge)
      return conducts(sim.circuit, sim.electrics.state, here) ? [] : asker.edge(here, false)
    })
  })
}
