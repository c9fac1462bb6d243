import { compile, type Circuit } from '../circuit'
import { edited, type Change, type Installation } from '../installation'
import { linkedOut, passesLimit } from './link-outs'
import { rewiringOf, withRewiring, type Rewiring } from './rewiring'

/** A wiring as it is left when what a test has done to it is not put back. */
export interface AsLeft {
  /** The wiring itself. */
  wiring: Installation
  /** The same with what its demands are asked by: a contact that is linked out says no more whether one is wanted. To be judged. */
  judged: Installation
  /** A link goes past a limit or cut-out, which only a hand sets back: never to be left. */
  pastLimit: boolean
}

/**
 * The wiring with what these acts would put back left as it is; acts about controls change nothing of it. A conductor that was lifted is
 * left with its end in a connector of its own, and so is each of a control that is off its plate. Throws ActionError or EditError where
 * an act does not fit the installation.
 */
export function asLeftOf(circuit: Circuit, puts: readonly string[]): AsLeft {
  const own = circuit.installation
  const left = puts.flatMap((act) => rewiringOf(act) ?? [])
  const links = left.flatMap(({ what, of }) => (what === 'link' ? [of] : []))
  const wiring = madeSafe(own, withRewiring(own, left.map(bare)))
  const demands = links.reduce((list, of) => linkedOut(circuit, of, list), own.intent.demands)
  return {
    wiring,
    judged: { ...wiring, intent: { ...wiring.intent, demands } },
    pastLimit: links.some((of) => {
      const [a = '', b = ''] = of.split('+')
      return passesLimit(circuit, [a, b])
    }),
  }
}

const bare = ({ what, of }: Rewiring) => ({ what, of })

/** Every end that was held somewhere and is loose now gets a connector of its own. */
function madeSafe(own: Installation, left: Installation): Installation {
  const changes = left.cables.flatMap(({ id: cable, cores }, i) =>
    cores.flatMap(({ id: core, ends }, k) =>
      ends.flatMap((end, e): Change[] => {
        const was = own.cables[i]?.cores[k]?.ends[e]
        return end.at === 'loose' && was !== undefined && was.at !== 'loose'
          ? [{ do: 'end', cable, core, end: e as 0 | 1, to: { at: 'cut-back', provenance: 'seen' } }]
          : []
      }),
    ),
  )
  return changes.length === 0 ? left : edited(left, { label: 'made safe', changes }).doc
}

/** Links of a wiring, beyond those of another, that go past a limit or cut-out, by their terminals. */
export function linksPastLimits(wiring: Installation, beyond: Installation | undefined): (readonly [string, string])[] {
  const known = new Set(beyond?.links.map(({ between }) => between.join('+')))
  return wiring.links
    .filter(({ kind, between }) => kind === 'fitted' && !known.has(between.join('+')))
    .filter(({ id, between }) =>
      passesLimit(
        compile(edited(wiring, { label: 'without', changes: [{ do: 'drop', in: 'links', id }] }).doc),
        between,
      ),
    )
    .map(({ between }) => between)
}
