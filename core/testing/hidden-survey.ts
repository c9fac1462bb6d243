import { typeIn } from '../src/catalogue'
import { compile, potentials } from '../src/circuit'
import { Rig } from '../src/hypotheses'
import { demandActions } from '../src/inputs'
import { ownerOf, type Cable, type Core, type End, type Installation } from '../src/installation'
import { Joins } from '../src/moves'
import {
  nothingSeen,
  type FarEnd,
  type NearEnd,
  type Sheath,
  type Survey,
  type SurveyFact,
  type SurveyLook,
} from '../src/survey'

type Random = () => number
const shuffled = <T>(list: readonly T[], random: Random): T[] =>
  list
    .map((one) => ({ one, at: random() }))
    .sort((x, y) => x.at - y.at)
    .map(({ one }) => one)
const fresh = (doc: Installation): Installation => structuredClone(doc)
const boxOf = (doc: Installation) => doc.wiringCentres[0].id
const isIn = (end: End, owner: string) => 'terminal' in end && ownerOf(end.terminal) === owner
/** Which end of a core is the one in the box; -1 where none is. */
const boxEnd = (doc: Installation, { cores }: Cable): 0 | 1 | -1 => {
  const box = boxOf(doc)
  if (cores.some(({ ends }) => isIn(ends[1], box))) return 1
  return cores.some(({ ends }) => isIn(ends[0], box)) ? 0 : -1
}

/**
 * Wiring that nobody has a drawing of: terminals of the box and the conductors of cables by other numbers and colours, and somebody
 * who looks at it when asked, and never mistakes what they see.
 */
export class HiddenWiring {
  readonly survey: Survey
  private readonly cableNames = new Map<string, string>()
  private readonly coreNames = new Map<string, string>()
  private readonly terminalNames = new Map<string, string>()
  private facts = 0

  constructor(
    readonly truth: Installation,
    random: Random,
  ) {
    const [box] = truth.wiringCentres
    shuffled(box.terminals, random).forEach(({ id }, i) => this.terminalNames.set(id, `${i + 1}`))
    const seen = shuffled(
      truth.cables.filter((cable) => boxEnd(truth, cable) >= 0),
      random,
    )
    const cables = seen.map((cable, i) => {
      const name = `cable-${i + 1}`
      this.cableNames.set(cable.id, name)
      const end = boxEnd(truth, cable) as 0 | 1
      const lead = cable.leadOf === undefined ? undefined : truth.devices.find(({ id }) => id === cable.leadOf)!.type
      return {
        id: name,
        label: `Cable ${i + 1}`,
        ...(lead !== undefined && { leadOf: lead }),
        by: '',
        cores: cable.cores.map((core, k) => {
          this.coreNames.set(`${cable.id}.${core.id}`, `k${k + 1}`)
          return { id: `k${k + 1}`, colour: core.colour, at: this.near(core.ends[end]) }
        }),
      }
    })
    const links = truth.links.flatMap(({ id, kind, between }) =>
      kind !== 'cut' && between.every((ref) => ownerOf(ref) === box.id)
        ? [{ id, between: between.map((ref) => this.terminalNames.get(ref.split('.')[1])!) as [string, string] }]
        : [],
    )
    const terminals = box.terminals.map(({ id }) => ({ id: this.terminalNames.get(id)!, legend: '' }))
    this.survey = { ...nothingSeen, terminals, cables, links, facts: this.supplies(), complete: true }
  }

  /** Where a conductor of the survey really ends. */
  endOf(cable: string, core: string): FarEnd | undefined {
    const one = this.cableOf(cable)
    const own = one.cores.find(({ id }) => this.coreNames.get(`${one.id}.${id}`) === core)!
    const far = own.ends[1 - (boxEnd(this.truth, one) as 0 | 1)]
    const devices = this.devicesOf(one)
    if (far.at === 'terminal') return { at: 'terminal', terminal: far.terminal }
    if (far.at === 'cut-back') return devices.length === 0 ? { at: 'away' } : { at: 'cut-back', device: devices[0] }
    if (far.at !== 'connector') return undefined
    const device = this.placedAt(far.connector)
    return device === undefined ? { at: 'away' } : { at: 'joint', device, joint: 1 }
  }

  devicesOfCable = (cable: string): string[] => this.devicesOf(this.cableOf(cable))

  /** What is written down after a look. */
  look(look: SurveyLook): SurveyFact[] {
    const id = `f${++this.facts}`
    const base = { id, by: '' }
    switch (look.look) {
      case 'follow': {
        const [device] = this.devicesOfCable(look.cable)
        return [
          device === undefined
            ? { see: 'leaves', cable: look.cable, ...base }
            : { see: 'follows', cable: look.cable, device, ...base },
        ]
      }
      case 'feel':
        return [
          {
            see: 'felt',
            cable: look.cable,
            device: look.device,
            moved: this.devicesOfCable(look.cable).includes(look.device),
            ...base,
          },
        ]
      case 'plate':
        return [{ see: 'plate', device: look.device, sheaths: this.sheathsAt(look.device), ...base }]
      case 'ring': {
        const { cable, core, to } = look
        const far = this.endOf(cable, core)
        const joined =
          far?.at === 'terminal'
            ? far.terminal === to
            : far?.at === 'joint' && this.apart().netOf(this.connectorAt(far.device)!) === this.apart().netOf(to)
        return [{ see: 'rung', cable, core, to, joined, ...base }]
      }
      case 'through': {
        const joins = this.apart()
        const [a, b] = look.between
        return [{ see: 'through', between: [a, b], joined: joins.netOf(a) === joins.netOf(b), ...base }]
      }
      case 'read':
        return [
          {
            see: 'reads',
            terminal: look.terminal,
            wanted: look.wanted,
            live: this.isLive(look.terminal, look.wanted),
            ...base,
          },
        ]
    }
  }

  /** What is joined without the box. */
  private apart(): Joins {
    const { truth } = this
    const box = boxOf(truth)
    return new Joins({
      links: truth.links.filter(({ between }) => !between.some((ref) => ownerOf(ref) === box)),
      cables: truth.cables.filter((cable) => boxEnd(truth, cable) < 0),
    })
  }

  private isLive(terminal: string, wanted: readonly string[]): boolean {
    const own = [...this.terminalNames].find(([, name]) => name === terminal)![0]
    const circuit = compile(this.truth)
    const { simulation: sim } = Rig.after(circuit, demandActions(circuit, wanted))
    sim.settle()
    const atom = circuit.atomIndex.get(`${boxOf(this.truth)}.${own}`)
    return atom !== undefined && potentials(sim.electrics)[atom].state === 'live'
  }

  private sheathsAt(device: string): Sheath[] {
    const { truth } = this
    return truth.cables.flatMap((cable) => {
      const sides = ([0, 1] as const).filter((end) => cable.cores.some((core) => this.isBehind(core.ends[end], device)))
      return sides.map((end) => ({
        cores: cable.cores.flatMap(({ colour, ends }): Sheath['cores'] => {
          const at = ends[end]
          if (at.at === 'terminal' && ownerOf(at.terminal) === device)
            return [{ colour, at: { at: 'terminal', terminal: at.terminal.split('.')[1] } }]
          if (at.at === 'connector' && this.isBehind(at, device)) return [{ colour, at: { at: 'joint', joint: 1 } }]
          return at.at === 'cut-back' ? [{ colour, at: { at: 'cut-back' } }] : []
        }),
      }))
    })
  }

  private isBehind(end: End, device: string): boolean {
    return isIn(end, device) || (end.at === 'connector' && this.placedAt(end.connector) === device)
  }

  /** A connector behind a device's plate is called after it. */
  private placedAt = (connector: string): string | undefined =>
    this.truth.devices.find(({ id }) => connector === `behind-${id}`)?.id
  private connectorAt = (device: string): string | undefined =>
    this.truth.connectors.find(({ id }) => id === `behind-${device}`)?.id

  private devicesOf(cable: Cable): string[] {
    const end = (1 - boxEnd(this.truth, cable)) as 0 | 1
    return this.truth.devices
      .filter(({ id }) => cable.cores.some((core: Core) => this.isBehind(core.ends[end], id)))
      .map(({ id }) => id)
  }

  private cableOf = (name: string): Cable => this.truth.cables.find(({ id }) => this.cableNames.get(id) === name)!

  private near(end: End): NearEnd {
    if (end.at === 'terminal' || end.at === 'parked')
      return { at: end.at, terminal: this.terminalNames.get(end.terminal.split('.')[1])! }
    return end.at === 'connector'
      ? { at: 'connector', connector: end.connector }
      : { at: end.at === 'loose' ? 'loose' : 'cut-back' }
  }

  /** The supply's cable is known from the first: it comes from the spur. */
  private supplies(): SurveyFact[] {
    return this.truth.cables.flatMap((cable) => {
      const end = boxEnd(this.truth, cable)
      if (end < 0) return []
      return cable.cores.flatMap((core): SurveyFact[] => {
        const far = core.ends[1 - end]
        const owner =
          far.at === 'terminal' ? this.truth.devices.find(({ id }) => id === ownerOf(far.terminal)) : undefined
        return far.at === 'terminal' && owner && typeIn(this.truth, owner.type).family === 'supply'
          ? [
              {
                see: 'far-end',
                cable: this.cableNames.get(cable.id)!,
                core: this.coreNames.get(`${cable.id}.${core.id}`)!,
                to: far.terminal,
                id: `f${++this.facts}`,
                by: '',
              },
            ]
          : []
      })
    })
  }
}

/** In some cables the conductors that are no earth by each other's colours. */
export function withOtherColours(doc: Installation, random: Random): Installation {
  const next = fresh(doc)
  for (const { cores, leadOf } of next.cables) {
    if (leadOf !== undefined || random() < 0.5) continue
    const own = cores.filter(({ colour }) => !['green-yellow', 'green', 'bare'].includes(colour))
    const colours = shuffled(
      own.map(({ colour }) => colour),
      random,
    )
    own.forEach((core, i) => (core.colour = colours[i]))
  }
  return next
}

/** Ways in which wiring departs from any drawing, each put into a wiring; undefined where there is no place for it. */
export const departuresPutIn: Record<string, (doc: Installation, random: Random) => Installation | undefined> = {
  'through-wall': (doc, random) =>
    atOneTerminal(doc, random, (next, cable, core, far) => {
      const joins = new Joins(doc)
      const other = screws(doc).find((ref) => ownerOf(ref) !== ownerOf(far) && joins.netOf(ref) === joins.netOf(far))
      if (other === undefined) return false
      core.ends = [{ at: 'cut-back' }, { at: 'cut-back' }]
      next.cables.push({
        ...structuredClone(cable),
        id: 'hidden',
        label: 'Hidden',
        cores: [
          {
            ...core,
            ends: [
              { at: 'terminal', terminal: far },
              { at: 'terminal', terminal: other },
            ],
          },
        ],
      })
      return true
    }),
  'earth-as-live': (doc, random) =>
    atOneTerminal(doc, random, (_next, cable, core) => {
      const earth = cable.cores.find(({ colour }) => colour === 'green-yellow' || colour === 'bare')
      if (!earth) return false
      earth.ends = core.ends
      core.ends = [{ at: 'cut-back' }, { at: 'cut-back' }]
      return true
    }),
  'earth-missing': (doc, random) =>
    atOneCable(doc, random, (_next, { cores }) => {
      const earth = cores.find(({ colour, ends }) => colour === 'green-yellow' && ends[0].at === 'terminal')
      if (earth) earth.ends = [{ at: 'cut-back' }, { at: 'cut-back' }]
      return earth !== undefined
    }),
  'joint-behind-plate': (doc, random) =>
    atOneTerminal(doc, random, (next, cable, core, far) => {
      const device = next.devices.find(({ id }) => id === ownerOf(far))!
      const connector = `behind-${device.id}`
      next.connectors.push({ id: connector, name: 'Behind the plate', place: device.place, ways: 3 })
      core.ends = [{ at: 'connector', connector }, core.ends[1]]
      next.cables.push({
        ...structuredClone(cable),
        id: 'tail',
        label: 'Tail',
        cores: [
          {
            ...core,
            ends: [
              { at: 'connector', connector },
              { at: 'terminal', terminal: far },
            ],
          },
        ],
      })
      return true
    }),
  'leaves-box': (doc, random) => {
    const next = fresh(doc)
    const box = next.wiringCentres[0]
    const live = box.terminals[Math.floor(random() * box.terminals.length)].id
    next.connectors.push({ id: 'other-box', name: 'Other box', place: box.place, ways: 3 })
    const there: End = { at: 'connector', connector: 'other-box' }
    next.cables.push({
      id: 'onward',
      label: 'Onward',
      ratedForMains: true,
      cores: (['brown', 'blue', 'black'] as const).map((colour, i) => ({
        id: colour,
        colour,
        areaMm2: 0.75,
        ends: [there, i === 0 ? { at: 'terminal', terminal: `${box.id}.${live}` } : { at: 'cut-back' }],
      })),
    })
    return next
  },
  'two-devices': (doc) => {
    const next = fresh(doc)
    const mergeable = next.cables.filter(
      (cable) => cable.leadOf === undefined && boxEnd(next, cable) === 1 && !isSupplyCable(next, cable),
    )
    const deviceOf = ({ cores }: Cable) =>
      cores.flatMap(({ ends: [far] }) => (far.at === 'terminal' ? ownerOf(far.terminal) : []))[0]
    const used = (cable: Cable) => cable.cores.filter(({ ends }) => ends[0].at === 'terminal')
    for (const one of mergeable)
      for (const other of mergeable)
        if (deviceOf(one) !== deviceOf(other) && used(one).length + used(other).length <= 8 && one.id < other.id) {
          const colours = ['brown', 'blue', 'green-yellow', 'black', 'grey', 'white', 'red', 'yellow'] as const
          const cores = [...used(one), ...used(other).filter(({ colour }) => colour !== 'green-yellow')]
          one.cores = cores.map((core, i) => ({
            ...core,
            id: `m${i + 1}`,
            colour:
              core.colour === 'green-yellow' ? 'green-yellow' : colours.filter((c) => c !== 'green-yellow')[i % 7],
          }))
          next.cables = next.cables.filter((cable) => cable !== other)
          return next
        }
    return undefined
  },
  misplaced: (doc, random) =>
    atOneCable(doc, random, (_next, { cores }) => {
      const own = cores.filter(
        ({ ends, colour }) => ends[0].at === 'terminal' && ends[1].at === 'terminal' && colour !== 'green-yellow',
      )
      const [a, b] = shuffled(own, random)
      if (!a || !b) return false
      const [x, y] = [a.ends[0], b.ends[0]]
      a.ends = [y, a.ends[1]]
      b.ends = [x, b.ends[1]]
      return true
    }),
  'fed-otherwise': (doc) => {
    const next = fresh(doc)
    const supply = next.cables.find((cable) => boxEnd(next, cable) === 1 && isSupplyCable(next, cable))
    const boiler = next.devices.find(({ type }) => typeIn(next, type).inputs.length > 0)
    if (!supply || !boiler) return undefined
    const terminals = typeIn(next, boiler.type).terminals
    const at = (role: string) => terminals.find((t) => t.role === role && !t.internal)?.id
    const to = [at('permanent-live'), at('neutral'), at('earth')]
    if (to.some((id) => id === undefined)) return undefined
    supply.cores.forEach(
      (core, i) => (core.ends = [core.ends[0], { at: 'terminal', terminal: `${boiler.id}.${to[i]}` }]),
    )
    return next
  },
}

const isSupplyCable = (doc: Installation, { cores }: Cable): boolean =>
  cores.some(({ ends }) =>
    doc.devices.some(({ id, type }) => isIn(ends[0], id) && typeIn(doc, type).family === 'supply'),
  )

/** Terminals of devices that have screws. */
const screws = (doc: Installation): string[] =>
  doc.devices.flatMap(({ id, type }) =>
    typeIn(doc, type).terminals.flatMap((t) => (t.internal || t.lead ? [] : [`${id}.${t.id}`])),
  )

/** One cable of a control, neither a lead nor the supply's, altered; the first that takes it. */
function atOneCable(
  doc: Installation,
  random: Random,
  alter: (next: Installation, cable: Cable) => boolean,
): Installation | undefined {
  const next = fresh(doc)
  const able = next.cables.filter(
    (cable) => cable.leadOf === undefined && boxEnd(next, cable) === 1 && !isSupplyCable(next, cable),
  )
  return shuffled(able, random).some((cable) => alter(next, cable)) ? next : undefined
}

/** One conductor on a terminal of a control that is neither earth nor neutral, altered. */
const atOneTerminal = (
  doc: Installation,
  random: Random,
  alter: (next: Installation, cable: Cable, core: Core, far: string) => boolean,
): Installation | undefined =>
  atOneCable(doc, random, (next, cable) => {
    const own = cable.cores.filter(({ ends: [far, near] }) => {
      if (far.at !== 'terminal' || near.at !== 'terminal') return false
      const device = next.devices.find(({ id }) => id === ownerOf(far.terminal))!
      const role = typeIn(next, device.type).terminals.find(({ id }) => `${device.id}.${id}` === far.terminal)!.role
      return role !== 'earth' && role !== 'neutral'
    })
    return shuffled(own, random).some((core) =>
      alter(next, cable, core, (core.ends[0] as { terminal: string }).terminal),
    )
  })
