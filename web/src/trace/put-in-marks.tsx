import { departuresFrom, type CoreRef, type Rig } from '@nobbet/core'
import { conductorRef } from './picked'

const known = new WeakMap<Rig['simulation'], { wrong: string; places: ReadonlySet<string> }>()

/** The places at which something wrong was put in: devices by id, terminals and conductors by reference. */
export function putInPlaces(rig: Rig): ReadonlySet<string> {
  const wrong = rig.simulation.wrong.join('\n')
  const before = known.get(rig.simulation)
  if (before?.wrong === wrong) return before.places
  const places = new Set<string>()
  for (const fault of rig.faultsIn) {
    if (fault.kind === 'part') for (const device of fault.at) places.add(device)
    for (const defect of fault.defects) {
      const edge = defect.part === 'edge' ? rig.circuit.edges[defect.index] : undefined
      if (edge?.kind === 'core') places.add(conductorRef(edge.cable.id, edge.core.id))
    }
  }
  const core = ({ cable, core: id }: CoreRef) => places.add(conductorRef(cable, id))
  const [was, is] = [rig.circuit.installation, rig.simulation.circuit.installation]
  for (const { what } of rig.isRewired ? departuresFrom(was, is) : []) {
    if (what.kind === 'exchanged') what.cores.forEach(core)
    else if ('core' in what) core(what.core)
    else if (what.kind === 'setting') places.add(what.device)
    else for (const terminal of what.between) places.add(terminal)
  }
  known.set(rig.simulation, { wrong, places })
  return places
}

/** Says that something wrong was put in here by hand; in an ink that nothing else has. */
export function PutInMark({ rig, at }: { rig: Rig; at: string }) {
  if (!putInPlaces(rig).has(at)) return null
  return <span className="put-in-mark">◆ put in</span>
}
