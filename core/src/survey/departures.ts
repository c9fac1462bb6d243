import { isEarthColour } from '../catalogue'
import { ownerOf } from '../installation'
import { Box, netsOf } from './box'
import { platesOf } from './certain'
import type { Ground } from './routes'
import type { CoreStanding, Sureness } from './standing'

/** How wiring as found may depart from any drawing. */
export const departureKinds = [
  'through-wall',
  'no-conductor',
  'joint-behind-plate',
  'earth-as-live',
  'earth-missing',
  'fed-otherwise',
  'leaves-box',
  'two-devices',
  'misplaced',
] as const
export type DepartureKind = (typeof departureKinds)[number]

/** One departure, with what it is about: terminals and devices by their addresses, cables and conductors by their ids. */
export interface Departure {
  kind: DepartureKind
  sure: Exclude<Sureness, 'open'>
  /** What names it: the same for the same departure, however often it is worked out. */
  id: string
  terminal?: string
  between?: [string, string]
  device?: string
  cable?: string
  core?: string
  devices?: string[]
}

/** The departures of what was seen from what was expected, with how sure each is. Of what is open nothing is told. */
export function departuresIn(ground: Ground, cores: readonly CoreStanding[]): Departure[] {
  const { survey, expected } = ground
  const told = cores.filter(({ sure }) => sure !== 'open')
  const sure = (of: readonly CoreStanding[]): 'certain' | 'likely' =>
    of.every((one) => one.sure === 'certain') ? 'certain' : 'likely'
  const found: Departure[] = []
  const add = (departure: Omit<Departure, 'id'>) => {
    const { kind, terminal = '', device = '', cable = '', core = '', between = [] } = departure
    found.push({ ...departure, id: [kind, terminal, device, cable, core, ...between].filter(Boolean).join(' ') })
  }
  for (const { cable, cores: own } of byCable(told)) {
    const gone = own.filter(({ to }) => to?.at === 'away')
    if (gone.length > 0) add({ kind: 'leaves-box', sure: sure(gone), cable })
    const devices = [...new Set(own.flatMap(({ to }) => (to?.at === 'terminal' ? ownerOf(to.terminal) : [])))]
    if (devices.length > 1)
      add({ kind: 'two-devices', sure: sure(own.filter(({ to }) => to?.at === 'terminal')), cable, devices })
  }
  found.push(...misplacedIn(ground, told))
  for (const { id, terminals, isSupply, cables } of expected.devices) {
    const reached = new Map(told.flatMap((one) => (one.to?.at === 'terminal' ? [[one.to.terminal, one] as const] : [])))
    const plate = platesOf(survey).get(id)
    for (const joint of jointsBehind(ground, id))
      add({ kind: 'joint-behind-plate', sure: 'certain', device: id, terminal: joint })
    const own = terminals.map((at) => expected.terminals[at])
    const hasCable = own.some(({ ref }) => reached.has(ref))
    const isReached = own.some(({ ref }) => chanceOf(cores, ref) > perhaps)
    if (survey.complete && isSupply && cables > 0 && cores.length > 0 && !isReached)
      add({ kind: 'fed-otherwise', sure: sure(told), device: id })
    if (!hasCable) continue
    for (const { ref, id: terminal, inBox, role, net, lead } of own) {
      if (!inBox || lead !== undefined || chanceOf(cores, ref) > perhaps) continue
      const fact = survey.facts.find((one) => one.see === 'through' && one.joined && one.between.includes(ref))
      const isOn = plate?.sheaths.some(({ cores: those }) =>
        those.some(({ at }) => at.at === 'terminal' && at.terminal === terminal),
      )
      if (fact?.see === 'through') add({ kind: 'through-wall', sure: 'certain', terminal: ref, between: fact.between })
      else if (role === 'earth') {
        if (plate ? !isOn : survey.complete)
          add({ kind: 'earth-missing', sure: plate ? 'certain' : 'likely', device: id, terminal: ref })
      } else if (plate && !isOn) add({ kind: 'no-conductor', sure: 'certain', terminal: ref })
      else if (survey.complete) {
        const from = feeds(ground, ref, net, told)
        if (from !== undefined) add({ kind: 'through-wall', sure: 'likely', terminal: ref, between: [ref, from] })
      }
    }
  }
  return found
}

/** A terminal that some conductor may be on with more than this is not told to have none. */
const perhaps = 0.2

/** How likely some conductor from the box is on a terminal; with several that may be, at most the sum of it. */
const chanceOf = (cores: readonly CoreStanding[], ref: string): number =>
  cores
    .flatMap(({ to, share, others }) => [{ to, share }, ...others])
    .reduce((sum, { to, share }) => (to?.at === 'terminal' && to.terminal === ref ? sum + share : sum), 0)

function byCable(cores: readonly CoreStanding[]): { cable: string; cores: CoreStanding[] }[] {
  const all = new Map<string, CoreStanding[]>()
  for (const core of cores) all.set(core.cable, [...(all.get(core.cable) ?? []), core])
  return [...all].map(([cable, own]) => ({ cable, cores: own }))
}

/** Where a terminal without a conductor from the box would be fed from: another device's of the same net, the nearest first; none that was measured not to be. */
function feeds(
  { survey, expected }: Ground,
  ref: string,
  net: number,
  told: readonly CoreStanding[],
): string | undefined {
  const own = expected.terminals[expected.at(ref)!]
  const place = expected.devices[own.device].place
  const floors = new Map(expected.installation.places.map(({ id, floor }) => [id, floor]))
  const denied = (other: string) =>
    survey.facts.some(
      (one) => one.see === 'through' && !one.joined && one.between.includes(ref) && one.between.includes(other),
    )
  const far = (device: number) => {
    const there = expected.devices[device].place
    return there === place ? 0 : floors.get(there) !== undefined && floors.get(there) === floors.get(place) ? 1 : 2
  }
  const reached = new Set(told.flatMap(({ to }) => (to?.at === 'terminal' ? [to.terminal] : [])))
  return expected.terminals
    .filter(
      (other) => other.net === net && other.device !== own.device && !denied(other.ref) && other.lead === undefined,
    )
    .sort((x, y) => far(x.device) - far(y.device) || Number(reached.has(y.ref)) - Number(reached.has(x.ref)))[0]?.ref
}

/** Conductors that sit with what their terminal has nothing to do with, and earth colours that are no earth. */
function misplacedIn({ survey, expected }: Ground, told: readonly CoreStanding[]): Departure[] {
  const nets = netsOf(new Box(survey), survey.cables)
  const placed = told.map((one) => {
    const c = survey.cables.findIndex(({ id }) => id === one.cable)
    const k = survey.cables[c].cores.findIndex(({ id }) => id === one.core)
    const { colour } = survey.cables[c].cores[k]
    const wanted = one.to?.at === 'terminal' ? expected.terminals[expected.at(one.to.terminal)!].net : -1
    return { one, colour, isLead: survey.cables[c].leadOf !== undefined, net: nets[c][k], wanted }
  })
  return placed.flatMap(({ one, colour, isLead, net, wanted }): Departure[] => {
    if (net < 0 || one.to?.at !== 'terminal' || one.sure === 'open') return []
    const beside = placed.filter((other) => other.one !== one && other.net === net && other.wanted >= 0)
    const { cable, core, sure } = one
    const about = { cable, core, terminal: one.to.terminal }
    const role = expected.terminals[expected.at(one.to.terminal)!].role
    if (!isLead && isEarthColour(colour) && role !== 'earth' && beside.some(({ wanted: w }) => !expected.isEarth(w)))
      return [{ kind: 'earth-as-live', sure, id: `earth-as-live ${cable} ${core}`, ...about }]
    const most = majority(beside.map((other) => other.wanted))
    if (wanted < 0 || most === undefined || most === wanted) return []
    const against = beside.filter((other) => other.wanted === most)
    const isSure = sure === 'certain' && against.some(({ one: other }) => other.sure === 'certain')
    return [{ kind: 'misplaced', sure: isSure ? 'certain' : 'likely', id: `misplaced ${cable} ${core}`, ...about }]
  })
}

/** What most are; of as many, none. */
function majority(all: readonly number[]): number | undefined {
  const counts = new Map<number, number>()
  for (const one of all) counts.set(one, (counts.get(one) ?? 0) + 1)
  const [first, second] = [...counts].sort((x, y) => y[1] - x[1])
  return first && first[1] !== second?.[1] ? first[0] : undefined
}

/** Joints seen behind a plate, by their colours. */
const jointsBehind = ({ survey }: Ground, device: string): string[] => {
  const plate = platesOf(survey).get(device)
  const joints = plate?.sheaths.flatMap(({ cores }) => cores.flatMap(({ at }) => (at.at === 'joint' ? [at.joint] : [])))
  return [...new Set(joints)].map((number) => `${device}.joint-${number}`)
}
