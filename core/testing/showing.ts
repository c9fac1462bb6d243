import type { Circuit } from '../src/circuit'
import {
  aheadOf,
  complaints,
  deadLooksAt,
  looksAt,
  Noticing,
  statesAhead,
  type Complained,
  type Hunt,
} from '../src/hunt'
import { alikeTo } from '../src/inference'

/** What a call is about: a customer would notice it; only a look tells it; or nothing that can be looked at does. */
export type Showing = 'noticed' | 'latent' | 'silent'

/** Per suspect of a hunt how it shows, from rest. The one that is not on the list is silent. */
export function showingOf(hunt: Hunt): Showing[] {
  const { circuit, suspects } = hunt
  hunt.follow([])
  const whole = suspects.findIndex(({ id }) => id === 'nothing-wrong')
  const isNoticed = noticedIn(hunt, whole)
  const showing = suspects.map(({ hypothesis }, i): Showing => (hypothesis && isNoticed(i) ? 'noticed' : 'silent'))
  const looks = [...looksAt(circuit), ...deadLooksAt(circuit)].filter(({ at }) => at !== 'eyes')
  let quiet = [...suspects.keys()].filter((i) => suspects[i].hypothesis && showing[i] === 'silent')
  for (const state of statesAhead(circuit, [])) {
    const group = [whole, ...quiet]
    const seen = aheadOf(hunt, [], group, looks, [state])
    const [asWhole, ...alike] = alikeTo(
      seen.map(({ candidate }) => candidate),
      group.length,
    )
    quiet.forEach((suspect, i) => (showing[suspect] = alike[i] === asWhole ? 'silent' : 'latent'))
    quiet = quiet.filter((suspect) => showing[suspect] === 'silent')
  }
  return showing
}

/** Would a customer call for a suspect of a hunt that has followed nothing? Those that behave alike are gone through once. */
function noticedIn(hunt: Hunt, whole: number): (suspect: number) => boolean {
  const noticing = (suspect: number) => new Noticing(hunt.courseOf(suspect).sim)
  // What an installation in order does as well (hot water that rises by itself) nobody calls for.
  const inOrder = noticing(whole)
  const all = complaintsOf(hunt.circuit).filter((one) => !inOrder.holds(one))
  const known = new Map<number, boolean>()
  return (suspect) => {
    const kind = hunt.kindOf(suspect)
    let noticed = known.get(kind)
    if (noticed === undefined) {
      const own = noticing(suspect)
      noticed = suspect === whole || all.some((one) => own.holds(one))
      known.set(kind, noticed)
    }
    return noticed
  }
}

/** Everything a customer can complain of. */
export const complaintsOf = ({ installation }: Circuit): Complained[] =>
  complaints
    .filter((what) => what !== 'is-fine')
    .flatMap((what) => installation.intent.demands.map(({ id }): Complained => ({ what, demand: id })))
