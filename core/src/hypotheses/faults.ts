import { nth } from '../lists'
import { coreName, type Failure } from '../catalogue'
import type { Circuit } from '../circuit'
import type { Core } from '../installation'
import type { Defect } from '../simulation'

/** Something that can be wrong with this installation, as a patch on the simulation's state. */
export interface Fault {
  /** The name `--fault` and addresses take: `zv-hw.end-switch.stuck-made`, `zv-hw-lead.grey.open`. */
  name: string
  /** In the trade's words: "Hot water valve: end switch stuck made". */
  label: string
  /** What it is a fault of. */
  subject: { kind: 'device'; device: string; part: string } | { kind: 'conductor'; cable: string; core: string }
  defects: Defect[]
  /** Relative weight, without unit. */
  prior: number
  remedy: string
}

/**
 * Relative weights of an open conductor, against 5 for a valve motor (trade experience, editable later): a fixed lead
 * fails in its terminal at the wiring centre, a long run in two.
 */
const openConductorPrior = { lead: 0.5, run: 0.6 }

/** Every single fault this installation can have, in document order. Derived from its parts and conductors. */
export function faultsOf(circuit: Circuit): Fault[] {
  const faults: Fault[] = []
  circuit.devices.forEach(({ device, type }, index) => {
    for (const part of type.primitives)
      for (const failure of part.failures ?? [])
        faults.push({
          name: `${device.id}.${part.id}.${failure.id}`,
          label: `${device.name}: ${failure.label}`,
          subject: { kind: 'device', device: device.id, part: part.id },
          defects: defectsOf(circuit, index, part.id, failure),
          prior: failure.prior,
          remedy: failure.remedy,
        })
  })
  circuit.edges.forEach((edge, index) => {
    if (edge.kind !== 'core' || !inUse(edge.core)) return
    const { cable, core } = edge
    faults.push({
      name: `${cable.id}.${core.id}.open`,
      label: `${coreName(cable, core)}: open`,
      subject: { kind: 'conductor', cable: cable.id, core: core.id },
      defects: [{ part: 'edge', index }],
      prior: cable.leadOf ? openConductorPrior.lead : openConductorPrior.run,
      remedy: 'Isolate, test the conductor end to end, remake its ends or bring a spare core into use.',
    })
  })
  return faults
}

/** A conductor with an end parked, cut back or not found serves nothing: broken or whole, nobody would notice. */
const inUse = (core: Core) => core.ends.every((end) => end.at === 'terminal' || end.at === 'connector')

function defectsOf(circuit: Circuit, device: number, part: string, failure: Failure): Defect[] {
  const { loadIndex, actuatorIndex } = nth(circuit.devices, device)
  const contacts = (made: 'open' | 'closed'): Defect[] =>
    circuit.contacts.flatMap((contact, index): Defect[] => {
      if (contact.device !== device || contact.part.id !== part) return []
      // A changeover held one way holds its other throw the other way.
      const held = contact.inverted ? (made === 'open' ? 'closed' : 'open') : made
      return [{ part: 'contact', index, held }]
    })
  const at = (parts: readonly { device: number; part: { id: string } }[]) =>
    parts.findIndex((p) => p.device === device && p.part.id === part)
  const { kind } = nth(circuit.devices, device).type.primitives.find((p) => p.id === part)!
  switch (failure.mode) {
    case 'made-throw-open':
    case 'rest-throw-open': {
      const inverted = failure.mode === 'rest-throw-open'
      return circuit.contacts.flatMap((contact, index): Defect[] =>
        contact.device === device && contact.part.id === part && contact.inverted === inverted
          ? [{ part: 'contact', index, held: 'open' }]
          : [],
      )
    }
    case 'feed-open': {
      const common = circuit.contacts.find((c) => c.device === device && c.part.id === part)!.part
      return circuit.contacts.flatMap((contact, index): Defect[] =>
        contact.device === device &&
        'common' in contact.part &&
        'common' in common &&
        contact.part.common === common.common
          ? [{ part: 'contact', index, held: 'open' }]
          : [],
      )
    }
    case 'held-open':
    case 'held-released':
      return contacts('open')
    case 'held-closed':
    case 'held-operated':
      return contacts('closed')
    case 'open-circuit':
      if (kind === 'diode') return [{ part: 'diode', index: at(circuit.diodes), how: 'open' }]
      if (kind === 'transformer') return [{ part: 'transformer', index: at(circuit.transformers) }]
      return [{ part: 'load', index: loadIndex.get(part)!, how: 'open' }]
    case 'short-circuit':
      if (kind === 'diode') return [{ part: 'diode', index: at(circuit.diodes), how: 'short' }]
      return [{ part: 'insulation', index: at(circuit.insulations) }]
    case 'jammed':
      return [{ part: 'load', index: loadIndex.get(part)!, how: 'jammed' }]
    case 'seized-shut':
      return [{ part: 'actuator', index: actuatorIndex.get(part)!, held: 0 }]
    case 'seized-part-way':
      return [{ part: 'actuator', index: actuatorIndex.get(part)!, held: 0.5 }]
    case 'seized-open':
      return [{ part: 'actuator', index: actuatorIndex.get(part)!, held: 1 }]
    case 'no-return':
      return [{ part: 'spring', index: actuatorIndex.get(part)! }]
    case 'makes-sometimes':
      return circuit.contacts.flatMap((contact, index): Defect[] =>
        contact.device === device && contact.part.id === part && !contact.inverted
          ? [{ part: 'contact', index, held: 'at-times' }]
          : [],
      )
    case 'held-energised':
      return [{ part: 'load', index: loadIndex.get(part)!, how: 'held' }]
    case 'never-asks':
      return [{ part: 'sensor', index: at(circuit.sensors) }]
    case 'locked-out':
      return [{ part: 'behaviour', index: at(circuit.behaviours) }]
    case 'silent':
      return [{ part: 'bus', index: at(circuit.buses) }]
    case 'passes':
      return [{ part: 'port', index: at(circuit.ports) }]
    case 'turned':
      return [{ part: 'turned', index: actuatorIndex.get(part)! }]
    case 'blown':
      return [{ part: 'fuse', index: at(circuit.fuses) }]
  }
}
