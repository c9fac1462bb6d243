import { compile, type Circuit } from '../circuit'
import { edited, type Change, type Command, type Installation } from '../installation'
import { Simulation, type Action, type Defect } from '../simulation'
import { alterationsOf, type AlterationKind } from './alterations'
import { faultsOf } from './faults'
import { shortsOf } from './shorts'
import { startsOf } from './starts'

/**
 * What kind of thing a hypothesis says: that nothing is wrong; that a part or a conductor failed; that the wiring or a setting is
 * other than it should be; that two conductors touch; that it started from another state than rest.
 */
export type HypothesisKind = 'nothing-wrong' | 'part' | 'conductor' | AlterationKind | 'short' | 'start'

/**
 * An installation that is like another but for so much: its conductors, links and settings, what is wrong with its parts, and
 * what was done before anybody looked. All else is shared with it.
 */
export interface Variant {
  change?: Command
  defects: readonly Defect[]
  start: readonly Action[]
}

/** Something that may be the case with an installation, beside what its document says. */
export interface Hypothesis {
  /** Names it among those of its installation; of a fault, the name that `--fault` takes. */
  id: string
  kind: HypothesisKind
  /** In the trade's words. */
  label: string
  /** Relative weight, without unit, from 0. */
  prior: number
  /** What is then to be done; empty where nothing is. */
  remedy: string
  variant: Variant
}

/**
 * Relative weights of miswirings and settings, against 5 for a valve motor (trade estimates): links and set-up are what is
 * forgotten or left as delivered, and conductors sit in a wrong terminal mostly where somebody has just worked.
 */
export const alterationPriors: Record<AlterationKind, number> = {
  'core-open': 0,
  'core-moved': 0.1,
  'cores-exchanged': 0.15,
  'link-missing': 0.3,
  'link-extra': 0.05,
  'factory-link': 0.5,
  setting: 0.5,
}
/** Of a call-out where nothing is wrong, and of one where only what was on before explains it (trade estimates). */
const nothingWrongPrior = 3
const startPrior = 0.5
/** Of two conductors in one cable that touch (a trade estimate). */
export const shortPrior = 0.05

export const alterationRemedies: Record<AlterationKind, string> = {
  'core-open': '',
  'core-moved': 'Isolate, put the conductor where the schedule says, test every demand.',
  'cores-exchanged': 'Isolate, exchange the two conductors, test every demand.',
  'link-missing': 'Isolate, fit the link, test every demand.',
  'link-extra': 'Isolate, take the link out, test every demand.',
  'factory-link': 'Isolate, cut or restore the link as the instructions of the device say, test every demand.',
  setting: 'Set it as the scheme wants it, test every demand.',
}

export const shortRemedy =
  'Isolate, find where the cable is damaged or trapped, replace or reroute it, test insulation, then every demand.'

/**
 * Everything that can singly be the case: nothing wrong, every failure of a part, every open conductor, every alteration of the
 * wiring and the settings, every other state to have started from. A conductor that is open is told as a failure, once.
 */
export function hypothesesOf(circuit: Circuit): Hypothesis[] {
  const whole: Variant = { defects: [], start: [] }
  return [
    {
      id: 'nothing-wrong',
      kind: 'nothing-wrong',
      label: 'nothing is wrong',
      prior: nothingWrongPrior,
      remedy: '',
      variant: whole,
    },
    ...faultsOf(circuit).map(({ name, label, prior, remedy, subject, defects }): Hypothesis => ({
      id: name,
      kind: subject.kind === 'device' ? 'part' : 'conductor',
      label,
      prior,
      remedy,
      variant: { ...whole, defects },
    })),
    ...alterationsOf(circuit)
      .filter(({ kind }) => kind !== 'core-open')
      .map(({ name, label, kind, command }): Hypothesis => ({
        id: name,
        kind,
        label,
        prior: alterationPriors[kind],
        remedy: alterationRemedies[kind],
        variant: { ...whole, change: command },
      })),
    ...shortsOf(circuit).map(({ name, label, command }): Hypothesis => ({
      id: name,
      kind: 'short',
      label,
      prior: shortPrior,
      remedy: shortRemedy,
      variant: { ...whole, change: command },
    })),
    ...startsOf(circuit).map(({ name, label, remedy, actions, change }): Hypothesis => ({
      id: name,
      kind: 'start',
      label,
      prior: startPrior,
      remedy,
      variant: { ...whole, start: actions, ...(change && { change }) },
    })),
  ]
}

/**
 * Several things at once. Throws {@link EditError} where one takes away what the other changes; of two that put the same thing, the
 * later would stand.
 */
export const variantOf = (causes: readonly Hypothesis[]): Variant => {
  const changes = causes.flatMap(({ variant }, i) => (variant.change ? ownIds(variant.change.changes, i) : []))
  return {
    ...(changes.length > 0 && { change: { label: '', changes } }),
    defects: causes.flatMap(({ variant }) => variant.defects),
    start: causes.flatMap(({ variant }) => variant.start),
  }
}

/** The installation as it looks where these are wrong: two conductors that touch do so inside their cable, where nobody sees it. */
export function toTheEye(installation: Installation, causes: readonly Hypothesis[]): Installation {
  const { change } = variantOf(causes.filter(({ kind }) => kind !== 'short'))
  return change ? edited(installation, change).doc : installation
}

/** What each cause adds under a name of its own: links too many are all called the same. */
const ownIds = (changes: readonly Change[], cause: number): Change[] =>
  changes.map((change) =>
    change.do === 'put' && change.in === 'links' && cause > 0
      ? { ...change, value: { ...change.value, id: `${change.value.id}-${cause}` } }
      : change,
  )

/** The circuit of a variant: the installation's own, where no conductor, link or setting is changed. */
export const circuitOfVariant = (circuit: Circuit, { change }: Variant): Circuit =>
  change ? compile(edited(circuit.installation, change).doc, circuit) : circuit

/**
 * A variant brought to rest, as somebody would find it. `rest` is a simulation of the installation itself at rest, which is then
 * gone on from where nothing but parts and the start differ; `made` the circuit of the variant, and that at rest, where they are there already.
 */
export function restOf(
  circuit: Circuit,
  { change, defects, start }: Variant,
  rest?: Simulation,
  made?: { own: Circuit; rest?: Simulation },
): Simulation {
  const found = () =>
    made?.rest?.fork() ?? new Simulation(made?.own ?? circuitOfVariant(circuit, { change, defects, start }))
  const sim = change || !rest ? found() : rest.fork()
  if (defects.length > 0) {
    sim.putIn('hypothesis', defects)
    sim.settle()
  }
  for (const action of start) {
    begin(sim, action)
    sim.settle()
  }
  return sim
}

/** Does one of the acts of a start. */
export function begin(sim: Simulation, action: Action): void {
  if (action.do === 'set') sim.set(action.device, action.control, action.value)
  if (action.do === 'lost-time') sim.setLostTime(action.device, action.minutes)
}
