import { isEarthColour } from '../catalogue'
import type { Colour } from '../installation'
import { Box, netsOf } from './box'
import { platesOf } from './certain'
import type { SeenCable, Survey } from './document'
import type { Expected } from './expected'
import { away, colourLog, cutBack, joint, routesOf, servedBy, type Ground, type Route } from './routes'
import { asLog } from './weights'

/** Where a conductor may end, and how likely that is, of 1. */
export interface Chance {
  end: number
  share: number
}

/** One way in which all cables together may go, and what it makes of the box. */
export interface Suspect {
  /** Relative, from what is usual alone, above 0: of all ways in which its conductors may be on the terminals of their devices. */
  weight: number
  /** Per cable the device's number, -1 elsewhere. */
  devices: number[]
  /** Per cable, which sheath behind the plate; -1 where that is not known. */
  sheaths: number[]
  /** Per cable and conductor, the likeliest: a terminal's number, or {@link cutBack}, {@link away}, {@link joint}. */
  ends: number[][]
  /** Per cable and conductor, everything it may be, the likeliest first. */
  chances: Chance[][][]
  /** Per net of the box, the net of the expected wiring that it would be; -1 where it is none. */
  means: Int16Array
}

/** As many are followed at once, and as many kept. */
const mostKept = 200
/** Ways so far, of the best, that are gone on with two devices in one cable. */
const mostPaired = 12
/** Ways for one cable to one device that leave the box meaning different things. */
const mostWays = 4
/** A way with less than this of the best one's weight is not followed. */
const negligible = Math.log(2e-4)
/** What is worse than this against the best is held for what goes no further, where there is no room for it. */
const nearlyAsGood = Math.log(0.05)
/** Of everything laid out so far, one with less than this of the best one's weight is not: room for a departure that comes to light later. */
const hopeless = 1.5 * negligible

/** A part of the cables laid out. */
interface State {
  log: number
  /** With what was said, felt, read as well: by this the best are kept, and not weighed. */
  key: number
  routes: (Coloured | undefined)[]
  ends: number[][]
  means: Int16Array
  /** Per expected net the box's net that it is; -1 none yet. */
  is: Int16Array
  /** Per terminal, how many conductors are on it. */
  on: Uint8Array
}

/** A route with how usual the colours of its conductors are there. */
interface Coloured extends Route {
  colours: number[][]
  /** It cannot be more usual than this. */
  most: number
}

/** A cable laid out on a route after a state: what that makes of the box beside what is known, as pairs of the box's net and the expected one. */
interface Way {
  log: number
  ends: number[]
  fresh: number[]
}

interface Next extends Way {
  before: State
  route: Coloured
  key: number
}

/**
 * The likeliest ways in which everything may go, found cable by cable, those that are known first: of each way so far, every way for
 * the next, and the best of all kept (a beam); `lost` is the share of weight, 0 to 1, that was not followed for want of room. `leans`
 * gives per cable and device the logarithm of what speaks for it beside the wiring.
 */
export function suspectsOf(
  ground: Ground,
  leans: (cable: number, device: number) => number,
): { suspects: Suspect[]; lost: number } {
  const { survey, expected } = ground
  const box = new Box(survey)
  const nets = netsOf(box, survey.cables)
  let beam: State[] = [
    {
      log: 0,
      key: 0,
      routes: survey.cables.map(() => undefined),
      ends: survey.cables.map(() => []),
      means: new Int16Array(box.nets).fill(-1),
      is: new Int16Array(expected.nets).fill(-1),
      on: new Uint8Array(expected.terminals.length),
    },
  ]
  let followed = 1
  for (const c of inOrder(ground, nets)) {
    const cable = survey.cables[c]
    const next = new Found()
    const layOut = (routes: readonly Route[], from: readonly State[]) => {
      const coloured = routes.map((route) => withColours(ground, cable, route))
      for (const state of from) waysOf(expected, cable, state, c, coloured, nets[c], box, leans, next)
    }
    const single = routesOf(ground, cable, 'one')
    layOut(single, beam)
    // One device does not explain it: perhaps two in one cable. A lead is never that.
    const mayBeTwo = cable.leadOf === undefined && cable.cores.length > 2
    if (mayBeTwo && next.best - beam[0].key < asLog.twoDevices)
      layOut(routesOf(ground, cable, 'two'), beam.slice(0, mostPaired))
    if (next.all.length === 0) return { suspects: [], lost: 1 }
    const { ways, share } = next.kept()
    beam = ways.map((way) => laidOut(way, c))
    followed *= share
  }
  const suspects = beam.map((state): Suspect => ({
    weight: Math.exp(state.log + rest(ground, state)),
    devices: state.routes.map((route) => route!.device),
    sheaths: state.routes.map((route) => route!.sheath),
    ends: state.ends,
    chances: survey.cables.map((cable, c) => chancesOf(ground, cable, state, c, nets[c], box)),
    means: state.means,
  }))
  return { suspects, lost: 1 - followed }
}

/** Known cables first, leads next, then always the one with most conductors beside those that are laid out. */
function inOrder({ survey, certain }: Ground, nets: readonly number[][]): number[] {
  const left = new Set(survey.cables.keys())
  const order: number[] = []
  const reached = new Set<number>()
  const rank = (c: number) => {
    const { id, leadOf } = survey.cables[c]
    const known = certain.cables.has(id) ? 1000 : leadOf !== undefined ? 500 : 0
    return known + nets[c].filter((net) => net >= 0 && reached.has(net)).length
  }
  while (left.size > 0) {
    const next = [...left].reduce((best, c) => (rank(c) > rank(best) ? c : best))
    left.delete(next)
    order.push(next)
    for (const net of nets[next]) if (net >= 0) reached.add(net)
  }
  return order
}

/** Ways for one more cable as they are found. What cannot be among the best any more is let go early. */
class Found {
  all: Next[] = []
  best = -Infinity
  /** What is worse need not be added. */
  least = -Infinity

  add(next: Next): void {
    this.best = Math.max(this.best, next.key)
    this.all.push(next)
    if (this.all.length > 4 * mostKept) this.thin()
  }

  /** The best of those worth following; and, of all that are nearly as good as the best, the share that is among them. */
  kept(): { ways: Next[]; share: number } {
    this.thin()
    const ways = this.all.slice(0, mostKept)
    const good = (of: readonly Next[]) =>
      of.reduce((sum, { key }) => (key >= this.best + nearlyAsGood ? sum + Math.exp(key - this.best) : sum), 0)
    return { ways, share: good(ways) / good(this.all) }
  }

  private thin(): void {
    this.all.sort((x, y) => y.key - x.key)
    const last = this.all.length > mostKept ? this.all[mostKept - 1].key : -Infinity
    this.least = Math.max(this.best + hopeless, Math.min(last, this.best + nearlyAsGood))
    this.all = this.all.filter(({ key }) => key >= this.least)
  }
}

function withColours(ground: Ground, cable: SeenCable, route: Route): Coloured {
  const own = cable.cores.map(({ colour }) => colour)
  const colours = route.ends.map((ends, k) => ends.map((end) => colourLog(ground, cable, own, k, end)))
  return { ...route, colours, most: colours.reduce((sum, logs) => sum + Math.max(...logs), 0) }
}

/** Adds every way worth following in which one more cable may go, after what is laid out. */
function waysOf(
  expected: Expected,
  cable: SeenCable,
  before: State,
  c: number,
  routes: readonly Coloured[],
  nets: readonly number[],
  box: Box,
  leans: (cable: number, device: number) => number,
  found: Found,
): void {
  for (const route of routes) {
    if (isTaken(before, route)) continue
    const base = before.key + route.log + leans(c, route.device)
    const least = Math.max(found.least - base, found.best + hopeless - base, 2 * hopeless)
    if (least > route.most) continue
    for (const { log, ends, fresh } of conductorsOf(expected, cable, before, route, nets, box, least))
      found.add({ log, ends, fresh, before, route, key: base + log })
  }
}

/** Another cable is the sheath that this one would be. */
const isTaken = ({ routes }: State, route: Route): boolean =>
  servedBy(route).some(
    ({ device, sheath }) =>
      sheath >= 0 &&
      routes.some((one) => one && servedBy(one).some((own) => own.device === device && own.sheath === sheath)),
  )

/**
 * The conductors of one cable on the ends of one route, one after the other: the ways that make different things of the box, each with
 * the weight of all that make the same of it. None whose best is below `least`.
 */
function conductorsOf(
  expected: Expected,
  { cores }: SeenCable,
  before: State,
  route: Coloured,
  nets: readonly number[],
  box: Box,
  least: number,
): Way[] {
  let ways: Way[] = [{ log: 0, ends: [], fresh: [] }]
  for (const [k, { colour }] of cores.entries()) {
    const tried = new Map<string, Way & { best: number }>()
    for (const way of ways)
      for (const [i, end] of route.ends[k].entries()) {
        const log = way.log + route.colours[k][i] + sitting(before, way, expected, end, nets[k], box, colour)
        if (log < least) continue
        const fresh = freshened(before, way, expected, end, nets[k])
        const key = fresh.length === 0 ? '' : fresh.join()
        const same = tried.get(key)
        if (!same) tried.set(key, { log, best: log, ends: [...way.ends, end], fresh })
        else {
          same.log = Math.max(same.log, log) + Math.log1p(Math.exp(-Math.abs(same.log - log)))
          if (log > same.best) {
            same.best = log
            same.ends = [...way.ends, end]
          }
        }
      }
    if (tried.size === 0) return []
    ways = [...tried.values()].sort((x, y) => y.log - x.log)
    const bound = ways[0].log + negligible
    ways = ways.slice(0, mostWays * 2).filter(({ log }) => log >= bound)
  }
  return ways.slice(0, mostWays)
}

/** What a net of the box means after a way; -1 nothing yet. */
function meaningOf({ means }: State, { fresh }: Way, net: number): number {
  if (means[net] >= 0) return means[net]
  for (let i = 0; i < fresh.length; i += 2) if (fresh[i] === net) return fresh[i + 1]
  return -1
}

/** How usual it is that a conductor that ends there sits in that net of the box: the logarithm of a factor. */
function sitting(
  before: State,
  way: Way,
  { terminals }: Expected,
  end: number,
  net: number,
  box: Box,
  colour: Colour,
): number {
  if (end === away) return 0
  if (end === joint) return asLog.joint
  if (end === cutBack) {
    if (net < 0 || box.sits[net] < 2) return 0
    return isEarthColour(colour) ? asLog.unusedEarth : asLog.unusedInTerminal
  }
  const { net: wanted } = terminals[end]
  const twice = before.on[end] > 0 || way.ends.includes(end) ? asLog.shared : 0
  if (net < 0) return twice + asLog.servesNothing
  if (wanted < 0) return twice + asLog.stray
  const means = meaningOf(before, way, net)
  if (means === wanted) return twice + asLog.fits
  if (means >= 0) return twice + asLog.misplaced
  const isElsewhere = before.is[wanted] >= 0 || way.fresh.some((one, i) => i % 2 === 1 && one === wanted)
  return twice + (isElsewhere ? asLog.parted : asLog.fresh)
}

/** With a conductor on a terminal: from then on, what it sits in means what that terminal would be joined with. */
function freshened(before: State, way: Way, { terminals }: Expected, end: number, net: number): number[] {
  const wanted = end < 0 ? -1 : terminals[end].net
  return net < 0 || wanted < 0 || meaningOf(before, way, net) >= 0 ? way.fresh : [...way.fresh, net, wanted]
}

function laidOut({ before, route, ends, fresh, log, key }: Next, c: number): State {
  const routes = [...before.routes]
  const all = [...before.ends]
  routes[c] = route
  all[c] = ends
  const means = before.means.slice()
  const is = before.is.slice()
  const on = before.on.slice()
  for (let i = 0; i < fresh.length; i += 2) {
    means[fresh[i]] = fresh[i + 1]
    if (is[fresh[i + 1]] < 0) is[fresh[i + 1]] = fresh[i]
  }
  for (const end of ends) if (end >= 0) on[end]++
  return { log: before.log + route.log + log, key, routes, ends: all, means, is, on }
}

/** Where each conductor of a cable may be once everything is laid out: what the whole box means is known by then. */
function chancesOf(
  { expected, survey }: Ground,
  { cores }: SeenCable,
  state: State,
  c: number,
  nets: readonly number[],
  box: Box,
): Chance[][] {
  const route = state.routes[c]!
  return cores.map(({ colour }, k) => {
    // What the others of its cable are on, and other cables: itself it is not beside itself.
    const on = state.on.slice()
    if (state.ends[c][k] >= 0) on[state.ends[c][k]]--
    const others = { ...state, on }
    const none: Way = { log: 0, ends: [], fresh: [] }
    // An end on a terminal that nothing else reaches spares what it would take to leave that without a conductor.
    const spares = (end: number) =>
      end >= 0 && on[end] === 0 && expected.terminals[end].inBox ? missingAt(survey, expected, end) : 0
    const weights = route.ends[k].map((end, i) =>
      Math.exp(route.colours[k][i] + sitting(others, none, expected, end, nets[k], box, colour) - spares(end)),
    )
    const sum = weights.reduce((all, one) => all + one, 0)
    return route.ends[k]
      .map((end, i) => ({ end, share: weights[i] / sum }))
      .filter(({ share }) => share > 1e-3)
      .sort((x, y) => y.share - x.share)
  })
}

/** How usual it is that no conductor from the box reaches a terminal: the logarithm of a factor. */
const missingAt = ({ complete }: Survey, { terminals }: Expected, terminal: number): number =>
  !complete ? asLog.notYet : terminals[terminal].role === 'earth' ? asLog.missingEarth : asLog.missing

/** What remains once every cable is laid out: terminals that none reaches, devices with too many cables or none. */
function rest({ survey, expected }: Ground, { routes, on }: State): number {
  let log = 0
  for (const [i, { inBox }] of expected.terminals.entries())
    if (inBox && on[i] === 0) log += missingAt(survey, expected, i)
  const plates = platesOf(survey)
  for (const [number, { id, cables }] of expected.devices.entries()) {
    const own = routes.flatMap((route) => (route ? servedBy(route) : [])).filter(({ device }) => device === number)
    if (cables > 0 && own.length === 0) log += survey.complete ? asLog.noCable : asLog.notYet
    const sheaths = plates.get(id)?.sheaths ?? []
    if (own.length > Math.max(cables, sheaths.length)) log += (own.length - cables) * asLog.extraCable
    const others = sheaths.filter((_, s) => !own.some(({ sheath }) => sheath === s))
    log += others.length * asLog.otherSheath
  }
  return log
}
