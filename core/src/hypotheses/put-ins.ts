import type { Circuit } from '../circuit'
import type { Change, Command } from '../installation'
import type { Defect } from '../simulation'
import { alterationsOf, type AlterationKind } from './alterations'
import { faultsOf } from './faults'
import { alterationPriors, alterationRemedies, shortPrior, shortRemedy } from './hypothesis'
import { shortsOf } from './shorts'

/** Something wrong that can be put into an installation to see what it does: a failed part, or wiring and set-up that are otherwise. */
export interface PutIn {
  /** The name `--fault` and addresses take: `zv-hw.end-switch.stuck-made`, `moved boiler-cable.black.1 wc.14`. */
  name: string
  /** In the trade's words. */
  label: string
  kind: 'part' | 'conductor' | 'short' | AlterationKind
  /** The devices and boxes it is at. */
  at: readonly string[]
  /** Relative weight among those of its kind, without unit. */
  prior: number
  /** What is to be done about it. */
  remedy: string
  defects: readonly Defect[]
  change?: Command
}

const known = new WeakMap<Circuit, ReadonlyMap<string, PutIn>>()

/** Everything that can be put in, by name; made once for a circuit. */
export function putInsOf(circuit: Circuit): ReadonlyMap<string, PutIn> {
  let all = known.get(circuit)
  if (!all) known.set(circuit, (all = new Map(made(circuit).map((one) => [one.name, one]))))
  return all
}

function made(circuit: Circuit): PutIn[] {
  const { cables } = circuit.installation
  const ownersOf = (id: string) =>
    (cables.find((cable) => cable.id === id)?.cores ?? []).flatMap((core) =>
      core.ends.flatMap((end) => (end.at === 'terminal' ? [ownerOf(end.terminal)] : [])),
    )
  return [
    ...faultsOf(circuit).map(({ name, label, subject, prior, remedy, defects }): PutIn => ({
      name,
      label,
      kind: subject.kind === 'device' ? 'part' : 'conductor',
      at: subject.kind === 'device' ? [subject.device] : unique(ownersOf(subject.cable)),
      prior,
      remedy,
      defects,
    })),
    // A conductor that is open is a fault of its own.
    ...alterationsOf(circuit)
      .filter(({ kind }) => kind !== 'core-open')
      .map(({ name, label, kind, command }): PutIn => ({
        name,
        label,
        kind,
        at: unique(command.changes.flatMap((change) => placesOf(circuit, change))),
        prior: alterationPriors[kind],
        remedy: alterationRemedies[kind],
        defects: [],
        change: command,
      })),
    ...shortsOf(circuit).map(({ name, label, command }): PutIn => ({
      name,
      label,
      kind: 'short',
      at: unique(ownersOf(name.slice(name.indexOf(' ') + 1).split('.')[0] ?? '')),
      prior: shortPrior,
      remedy: shortRemedy,
      defects: [],
      change: command,
    })),
  ]
}

/** The devices and boxes that a change of the wiring is at: where a conductor belongs first. */
function placesOf({ installation }: Circuit, change: Change): string[] {
  if (change.do === 'end') {
    const core = installation.cables.find(({ id }) => id === change.cable)?.cores.find(({ id }) => id === change.core)
    return [core?.ends[change.end], change.to].flatMap((end) => (end?.at === 'terminal' ? [ownerOf(end.terminal)] : []))
  }
  if (change.do === 'put' && change.in === 'devices') return [change.value.id]
  if (change.do === 'put' && change.in === 'links') return change.value.between.map(ownerOf)
  if (change.do !== 'drop' || change.in !== 'links') return []
  return (installation.links.find(({ id }) => id === change.id)?.between ?? []).map(ownerOf)
}

const ownerOf = (terminal: string) => terminal.slice(0, terminal.indexOf('.'))
const unique = (ids: readonly string[]) => [...new Set(ids)]
