import type { Circuit } from '../circuit'
import { actsTo, settle, type HuntEntry } from '../hunt'
import { lookFor, type Observation } from './observation'

/**
 * A finding of the older kind as a hunt's log has it: the controls set to where they stood, everything come to rest, and the look.
 * The look keeps the finding's id. `before`: the log it goes behind.
 */
export function entriesOf(
  circuit: Circuit,
  { id, asking, observable, result }: Observation & { id: string },
  before: readonly HuntEntry[],
): HuntEntry[] {
  const acts = actsTo(circuit, asking, before)
  const found = result === 'cannot-do' || result === 'cannot-tell' ? result : { word: result }
  return [
    ...(acts.length > 0 ? [...acts, settle] : []).map((text, i): HuntEntry => ({
      id: `${id.slice(0, 36)}-${i}`,
      do: text,
    })),
    { id: id.slice(0, 40), see: lookFor(observable), found },
  ]
}
