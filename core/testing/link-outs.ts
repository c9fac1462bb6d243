import type { Circuit } from '../src/circuit'
import { linksThoughtOf, type LinkThoughtOf } from '../src/hunt'

/** The links past channels and thermostats of these demands that are offered. */
export const linkOutsOf = (circuit: Circuit, demands: ReadonlySet<string>, mostStates?: number): LinkThoughtOf[] =>
  linksThoughtOf(circuit, demands, mostStates).filter(({ isOffered }) => isOffered())
