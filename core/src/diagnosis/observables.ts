import type { Circuit } from '../circuit'
import { looksAt } from '../hunt'
import type { WrittenLook } from '../looks'
import type { Observable } from './observation'

/** Everything that can be asked for and logged here: levers, boilers, pumps and terminals. */
export const observables = (circuit: Circuit): Observable[] => looksAt(circuit).flatMap((look) => observableOf(look))

/** A look as this log has it; none for what it has no words for. */
export function observableOf(look: WrittenLook): Observable[] {
  switch (look.at) {
    case 'points':
      return look.with === 'tester' ? [{ kind: 'terminal', terminal: look.red }] : []
    case 'lever':
    case 'valve':
      return [{ kind: 'valve', device: look.device }]
    case 'boiler':
    case 'pump':
      return [{ kind: look.at, device: look.device }]
    default:
      return []
  }
}

/** What is looked at, with what: a terminal is read with a low-impedance tester, a valve by whether it stands open at all. */
export function lookFor(observable: Observable): WrittenLook {
  switch (observable.kind) {
    case 'terminal':
      return { at: 'points', with: 'tester', red: observable.terminal }
    default:
      return { at: observable.kind, device: observable.device }
  }
}
