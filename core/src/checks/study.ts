import { compile, type Circuit } from '../circuit'
import { alterationsOf, type Alteration } from '../hypotheses'
import { edited, type Installation } from '../installation'
import { breachKey, explored, type Breach, type Exploration } from '../states'
import { severityOf } from './all-states'
import { findingKey, isGrave, type Severity } from './finding'
import { staticFindings } from './rules'
import { Survey } from './rules/survey'

/**
 * What became of one alteration. `same-joins`: every terminal of every device is joined to what it was. `same-behaviour`: it is
 * joined otherwise, yet in every state the installation does the same. `caught`: something is found that was not there
 * before. `missed`: neither.
 */
export type Fate = 'same-joins' | 'same-behaviour' | 'caught' | 'missed'

export interface Judged {
  alteration: Alteration
  fate: Fate
  /** Of what is found, the worst. */
  severity?: Severity
  /** Rules and properties that found it. */
  by: string[]
}

/** States after which an exploration is left: what is wrong shows long before. */
const mostStates = 60_000

/** Judges alterations of one installation against the unaltered one. */
export class Study {
  readonly circuit: Circuit
  readonly alterations: Alteration[]
  private readonly rules: Set<string>
  private readonly breaches: Set<string>
  private readonly joins: string
  private readonly behaviour: string
  private readonly alike: Exploration['alike']

  constructor(installation: Installation) {
    this.circuit = compile(installation)
    this.alterations = alterationsOf(this.circuit)
    const before = explored(this.circuit, { mostStates, fewAtOnce: false })
    this.rules = new Set(staticFindings(this.circuit).map(findingKey))
    this.breaches = new Set(before.breaches.map((b) => breachKey(b.breach)))
    this.joins = joinsText(this.circuit)
    this.alike = before.alike
    this.behaviour = behaviourText(before, this.alike)
  }

  judge(alteration: Alteration): Judged {
    const circuit = compile(edited(this.circuit.installation, alteration.command).doc, this.circuit)
    if (alteration.kind !== 'setting' && joinsText(circuit) === this.joins)
      return { alteration, fate: 'same-joins', by: [] }
    const fresh = staticFindings(circuit).filter((f) => f.severity !== 'advice' && !this.rules.has(findingKey(f)))
    const grave = fresh.filter(isGrave)
    if (grave.length > 0)
      return { alteration, fate: 'caught', severity: grave[0].severity, by: [...new Set(grave.map((f) => f.rule))] }
    // One breach that was not there before is enough.
    const isNew = (b: Breach) => !this.breaches.has(breachKey(b))
    const after = explored(circuit, { mostStates, until: isNew, fewAtOnce: false })
    const broken = after.breaches.filter(({ breach }) => isNew(breach))
    if (broken.length > 0) {
      const [{ breach }] = broken
      return { alteration, fate: 'caught', severity: severityOf(breach), by: [breach.property] }
    }
    if (fresh.length > 0)
      return { alteration, fate: 'caught', severity: fresh[0].severity, by: [...new Set(fresh.map((f) => f.rule))] }
    const same = after.complete && behaviourText(after, this.alike) === this.behaviour
    return { alteration, fate: same ? 'same-behaviour' : 'missed', by: [] }
  }
}

/** Which terminals of devices are joined by wiring alone, as text: two circuits of one text cannot behave differently. */
function joinsText(circuit: Circuit): string {
  const { wired } = new Survey(circuit)
  const nets = new Map<number, string[]>()
  circuit.atoms.forEach((atom, i) => {
    if (atom.kind !== 'device' && atom.kind !== 'internal') return
    const net = wired.netOf[i]
    nets.set(net, [...(nets.get(net) ?? []), atom.ref])
  })
  return [...nets.values()]
    .map((refs) => refs.sort().join(' '))
    .sort()
    .join('\n')
}

/**
 * What an installation does in all its states, as text: which outcomes every combination of demands has. Of demands that are
 * alike in the unaltered installation only how many there are counts, since they were counted together there.
 */
function behaviourText({ table }: Exploration, alike: Exploration['alike']): string {
  const counted = (ids: readonly string[]) =>
    ids
      .map((id) => {
        for (const [g, { demands, devices }] of alike.entries()) {
          if (demands.includes(id)) return `one of ${g}`
          const member = devices.find((list) => list.includes(id))
          if (member) return `${member.indexOf(id)} of one of ${g}`
        }
        return id
      })
      .sort()
  const rows = new Set(
    table.flatMap(({ wanted, disturbed, outcomes, right }) =>
      outcomes.map(({ calls, open, runs }) =>
        JSON.stringify([counted(wanted), counted(disturbed), [...calls].sort(), counted(open), counted(runs), right]),
      ),
    ),
  )
  return [...rows].sort().join('\n')
}
