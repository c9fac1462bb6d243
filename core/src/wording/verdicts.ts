import {
  isGrave,
  nobodyLooked,
  type AllStates,
  type CheckFinding,
  type Gap,
  type Known,
  type PropertyVerdict,
} from '../checks'
import type { Circuit } from '../circuit'
import type { PropertyId } from '../states'
import { demandName, listed } from './findings'
import { deviceName, terminalName } from './names'

/** What each property says while it holds. */
export const propertyWords: Record<PropertyId, string> = {
  'no-short': 'Line never meets neutral or earth',
  'extra-low-stays-low': 'No extra-low-voltage terminal comes to mains',
  'no-call-without-demand': 'No call but by its own demand',
  'all-off-ends-calls': 'All off ends every call',
  'water-moves': 'Water moves where it is wanted, and no pump runs against closed valves',
  isolates: 'Switched off at its isolator, nothing that a supply feeds stays live',
  'demand-served': 'Every demand opens its circuit and calls the boiler',
  'no-heat-without-demand': 'No circuit warms without its demand',
  'valves-rest': 'Valves shut when nobody wants them open',
  'runs-when-wanted': 'A circuit’s own fan or pump runs only when it is wanted',
  settles: 'Everything comes to rest',
}

export const propertyVerdictWords: Record<PropertyVerdict, string> = {
  held: 'holds',
  assumed: 'holds, on pipes that are assumed',
  broken: 'broken',
  unfinished: 'not broken so far, not looked at to its end',
  'not-looked-at': 'not looked at: nothing to judge it by',
}

/** How circuits were looked at that act on each other only through what they call, as a sentence without its full stop. */
export const fewAtOnceText = ({ circuits, atOnce }: NonNullable<AllStates['fewAtOnce']>): string =>
  `${circuits} circuits act on each other only through what any of them calls: looked at ${atATime(atOnce - 1)} in every order, with one more that calls or does not, and once all together`

const atATime = (circuits: number): string =>
  `${circuits === 2 ? 'two' : circuits === 3 ? 'three' : circuits} at a time`

/** What could not be looked at, or was taken for granted, as a sentence without its full stop. */
export function gapText(circuit: Circuit, gap: Gap): string {
  switch (gap.gap) {
    case 'no-demands':
      return 'No demand is recorded: what the installation should do was not looked at'
    case 'valve-without-port':
      return `${demandName(circuit, gap.demand)}: whether its circuit opens was not looked at, since the ports of ${deviceName(circuit, gap.device)} are not known`
    case 'nothing-warmed':
      return `${demandName(circuit, gap.demand)}: whether water moves was not looked at, since nothing says what it warms`
    case 'pipes-assumed':
      return `Pipes and what they warm are assumed${gap.bypass ? ', a bypass with them' : ''}: nobody has recorded any`
    case 'link-between-places': {
      const link = circuit.installation.links.find((l) => l.id === gap.link)!
      return `${listed(link.between.map((t) => terminalName(circuit, t)))} are taken for joined, by a link that cannot reach`
    }
  }
}

/** What stands for the wiring in a verdict: as it was recorded, planned, or merely assumed. */
const wiringWords = (known: Known | undefined): string =>
  known && nobodyLooked(known)
    ? 'the assumed standard wiring'
    : known?.provenance === 'planned' && known.unverifiedEnds === known.ends
      ? 'the wiring as planned'
      : 'the wiring as recorded'

/** The verdict in a few words, where there is room for no more. */
export function shortVerdictText({ findings, known }: Judged): string {
  const grave = findings.filter(isGrave).length
  if (grave > 0) return `${grave} defect${grave === 1 ? '' : 's'} found`
  return known && nobodyLooked(known) ? 'Nobody has looked' : 'No defect found'
}

/** What a verdict speaks of: findings, what they rest on, and whether all states were looked at. */
interface Judged {
  findings: readonly CheckFinding[]
  known?: Known
  states?: AllStates
}

/** The verdict in one sentence. Never more than that nothing was found; of what nobody has looked at, not even that. */
export function verdictText({ findings, known, states }: Judged): string {
  const grave = findings.filter(isGrave).length
  if (grave > 0) return `${grave} defect${grave === 1 ? '' : 's'} found in ${wiringWords(known)}`
  if (known && nobodyLooked(known)) return 'Assumed standard wiring: nobody has looked yet'
  if (known?.gaps.some((g) => g.gap === 'no-demands')) return 'No rule broken; no demand recorded to judge by'
  return `No defect found in ${wiringWords(known)}${states && !states.complete ? ', as far as it was looked at' : ''}`
}

const grouped = (n: number) => String(n).replace(/\B(?=(\d{3})+$)/g, '\u00a0')

/** How much of the states was looked at, and how, as a sentence without its full stop. */
function lookedText({ states, complete, fewAtOnce }: AllStates): string {
  if (!complete) return `${grouped(states)} states looked at, not all`
  if (!fewAtOnce) return `All ${grouped(states)} states looked at`
  const { circuits, atOnce } = fewAtOnce
  return `${grouped(states)} states looked at, ${circuits} circuits ${atATime(atOnce - 1)} with one more that calls or not`
}

/** What the verdict rests on. */
export function basisText(known: Known, states?: AllStates): string {
  const ends = (n: number) => `${n} end${n === 1 ? '' : 's'}`
  const looked = states ? `${lookedText(states)}. ` : ''
  const pipes = known.gaps.some((g) => g.gap === 'pipes-assumed') ? ' Pipes assumed.' : ''
  return `${looked}${ends(known.unverifiedEnds)} not verified, ${ends(known.unknownEnds)} not found.${pipes}`
}

/** What all states take for granted: stands beside every verdict. */
export const assumptions: readonly string[] = [
  'Channels, thermostats and limits may change at any time while nothing moves, one at a time, and once more in mid travel.',
  'Contacts are quicker than valves and bus messages, those quicker than self-check and overrun; within each, every order.',
  'No part fails. Clocks, radio links and levers stand as they are recorded.',
  'Conductors of unknown end are not joined to anything.',
]
