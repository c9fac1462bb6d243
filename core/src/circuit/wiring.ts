import type { Circuit } from './circuit'
import type { NetOfAtom } from './ids'
import { emptyNets, mergeNets, wholeState } from './nets'

/** Which atoms conductors and links alone join, every contact open. */
export const wiredNets = (circuit: Circuit): NetOfAtom =>
  mergeNets(circuit, wholeState(circuit), emptyNets(circuit)).netOf

/**
 * What is joined to what by conductors and links alone, as text: two circuits of the same devices with one text can do and show
 * nothing that differs, whichever way their conductors run.
 */
export function wiringText(circuit: Circuit): string {
  const uncertain = circuit.atoms.flatMap(({ uncertain: is }, i) => (is ? [i] : []))
  return `${circuit.atoms.length} ${wiredNets(circuit).join()} ${uncertain.join()}`
}
