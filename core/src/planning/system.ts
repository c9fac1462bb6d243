import { coloursOf, deviceType, supplies, thermostatWire, typeDirectory, type DeviceType } from '../catalogue'
import { parseInstallation, type Demand, type Device, type End, type Installation, type Place } from '../installation'
import { nth } from '../lists'
import { withPipework, type PipeworkOptions } from '../pipework'
import type { CircuitBrief, PlanBrief } from './brief'
import { centreKind } from './centres'
import { timedOf, type CircuitKind } from './schemes'
import type { Wire } from './cores'
import { Layout } from './layout'
import { ChosenTypes } from './chosen-types'
import { RoomThermostats } from './room-thermostats'

/** Line, neutral and earth to terminals of those names. */
export const mains: readonly Wire[] = [
  { terminal: 'L', use: 'line', to: 'L' },
  { terminal: 'N', use: 'neutral', to: 'N' },
  { terminal: 'E', use: 'earth', to: 'E' },
]

export const namesOf = (brief: PlanBrief, kind: CircuitKind): string[] =>
  brief.circuits.filter((c) => c.kind === kind).map((c) => c.name)

/** The names of a brief's circuits: heating ones in order, and the hot water one. */
export const circuitsOf = (brief: PlanBrief) => ({
  heating: namesOf(brief, 'heating'),
  hotWater: namesOf(brief, 'hot-water')[0] ?? 'Hot water',
})

/** What of a demand the scheme decides. */
type DemandRest = Pick<Demand, 'circuit' | 'call'> &
  Partial<Pick<Demand, 'priority' | 'channel' | 'thermostat' | 'companions'>>

/** Where the spur feeds what does not pass the wiring centre. */
export const spurLoad = { L: 'spur.L', N: 'spur.N', E: 'spur.E' }

/** Conductors that a device's terminal takes. */
const deviceWays = 4

/** A 24 V valve that is driven, its relay with it: VA. */
const vaOfValve = 9
/** Transformers by their rating, each with the fuse that it takes: VA, A. */
const transformers = [
  { va: 40, fuse: 2 },
  { va: 60, fuse: 3 },
  { va: 100, fuse: 5 },
] as const

/** Switched conductors from terminals to functions; those without a function are left out. */
const switched = (to: Record<string, string | undefined>): Wire[] =>
  Object.entries(to).flatMap(([terminal, f]) =>
    f === undefined ? [] : [{ terminal, use: 'switched' as const, to: f }],
  )

const channel = (contact: string) => ({ device: 'programmer', contact })

/** A system being planned: places, devices and demands, and the layout of its one wiring centre. */
export class PlannedSystem {
  readonly layout: Layout
  private readonly places: Place[] = [{ id: 'plant', name: 'Plant cupboard' }]
  private readonly devices: Device[] = []
  private readonly demands: Demand[] = []
  private readonly connectors: { id: string; name: string; place: string; ways: number }[] = []

  private readonly chosen: ChosenTypes
  private readonly thermostats: RoomThermostats

  constructor(
    private readonly brief: Pick<
      PlanBrief,
      'cable' | 'terminals' | 'supply' | 'inWall' | 'lengths' | 'places' | 'circuits' | 'types'
    >,
  ) {
    this.layout = new Layout('wc', brief)
    this.chosen = new ChosenTypes(brief.types ?? {})
    this.thermostats = new RoomThermostats(this, brief)
  }

  /** What the brief says of a circuit. */
  private circuit(name: string): CircuitBrief | undefined {
    return this.brief.circuits.find((one) => one.name === name)
  }

  /** The programmer's heating channel for a zone; null where its thermostat times it. */
  channelOf(name: string): Demand['channel'] {
    return timedOf(this.circuit(name) ?? {}) === 'by-itself' ? null : channel('heating')
  }

  /** Whether anything is timed by the programmer's heating channel. */
  private get channelServes(): boolean {
    const isTimed = (circuit: CircuitBrief) =>
      circuit.kind !== 'hot-water' && circuit.kind !== 'towel-rails' && timedOf(circuit) === 'by-channel'
    return this.brief.circuits.some(isTimed)
  }

  /** What stands at a device's place: its usual type, or the one the brief chooses. */
  typeAt(id: string, usual: string): DeviceType {
    return deviceType(this.chosen.typeOf(id, usual))
  }

  place(id: string, name: string): void {
    this.places.push({ id, name })
  }

  device(id: string, name: string, type: string, place = 'plant', settings: Device['settings'] = {}): void {
    this.devices.push({ id, name, type: this.chosen.typeOf(id, type), place, settings })
  }

  connector(id: string, name: string, place: string, ways = 2): void {
    this.connectors.push({ id, name, place, ways })
  }

  /** Heating of a zone: programmer channel, its own thermostat. */
  heating(n: number, name: string, rest: DemandRest): void {
    const thermostat = { device: `stat-${n}`, contact: 'contact' }
    this.demand({ id: `heating-${n}`, name, kind: 'heating', channel: this.channelOf(name), thermostat, ...rest })
  }

  hotWater(name: string, rest: DemandRest): void {
    const thermostat = { device: 'cyl-stat', contact: 'contact' }
    this.demand({ id: 'hot-water', name, kind: 'hot-water', channel: channel('hot-water'), thermostat, ...rest })
  }

  demand(demand: Omit<Demand, 'companions' | 'priority'> & Partial<Demand>): void {
    this.demands.push({ companions: [], priority: 0, ...demand })
  }

  /** The functions every mains wiring centre begins with. */
  mains(): void {
    if (centreKind(this.brief.terminals).fused) this.layout.function('L-in', 'Line in')
    this.layout.function('L', 'Line')
    this.layout.function('N', 'Neutral')
    this.layout.function('E', 'Earth')
  }

  /** The fused spur and its cable to the Line, Neutral and Earth of the wiring centre. */
  spur(): void {
    this.device('spur', 'Fused spur', 'fused-spur')
    const fused = centreKind(this.brief.terminals).fused ?? false
    const wires = mains.map((wire) => (fused && wire.to === 'L' ? { ...wire, to: 'L-in' } : wire))
    this.layout.cable('supply', 'Supply cable', 'spur', wires, 1, { cores: 3 })
    if (fused) this.boardFuse()
  }

  /** The fuse of the wiring centre itself: its line comes in before it. */
  private boardFuse(): void {
    const [line] = coloursOf(this.brief.supply).wanted.line
    this.device('board-fuse', 'Board fuse', 'box-fuse')
    this.layout.lead('board-fuse-lead', 'Board fuse lead', 'board-fuse', [
      { terminal: 'IN', colour: line, to: 'L-in' },
      { terminal: 'OUT', colour: line, to: 'L' },
    ])
  }

  /** The two-channel programmer: which function each channel's ON goes to. Its plastic plate needs no earth. */
  programmer(on: { heating?: string; hotWater?: string }, type = 'programmer-two-channel', settings = {}): void {
    this.place('controls', 'Programmer position')
    this.device('programmer', 'Programmer', type, 'controls', settings)
    const heating = this.channelServes ? on.heating : undefined
    this.layout.cable(
      'programmer-cable',
      'Programmer cable',
      'programmer',
      [
        { terminal: 'L', use: 'line', to: 'L' },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: null, use: 'earth', to: 'E' },
        ...switched({ 'HTG-ON': heating, 'HW-ON': on.hotWater }),
      ],
      8,
    )
    // Contacts that have a feed of their own get it on a core of its own.
    if (this.typeAt('programmer', type).terminals.some((t) => t.id === 'F'))
      this.furtherCable('programmer', 'Programmer', { F: 'L' }, 8)
  }

  /** A further cable of single conductors from a device to functions of the wiring centre, beside its first. */
  furtherCable(device: string, name: string, to: Record<string, string | undefined>, lengthM: number): void {
    const n = this.layout.cables.filter(({ id }) => id.startsWith(`${device}-cable`)).length + 1
    const wires: Wire[] = [...switched(to), { terminal: null, use: 'earth', to: 'E' }]
    const label = `${name} ${n === 2 ? 'second' : 'third'} cable`
    this.layout.cable(`${device}-cable-${n}`, label, device, wires, lengthM, wires.length <= 3 ? { cores: 3 } : {})
  }

  /** Line and neutral of a device in plastic, and where its other terminals go. */
  powered(id: string, label: string, to: Record<string, string | undefined>, lengthM: number): void {
    this.layout.cable(
      `${id}-cable`,
      `${label} cable`,
      id,
      [
        { terminal: 'L', use: 'line', to: 'L' },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: null, use: 'earth', to: 'E' },
        ...switched(to),
      ],
      lengthM,
    )
  }

  /** The room thermostat of a zone, from one function to another: the scheme's usual one, or what the brief says of its circuit. */
  roomThermostat(n: number, name: string, from: string, to: string, usual?: string): void {
    this.thermostats.room({ n, name, from, to }, this.circuit(name), usual)
  }

  /** A powered thermostat: L and COM from `from` joined by a link of its own, NO to `to`. */
  poweredThermostat(n: number, name: string, from: string, to: string, type: string): void {
    this.thermostats.powered({ n, name, from, to }, type)
  }

  /** A battery thermostat with a volt-free contact between two extra-low-voltage functions. */
  voltFreeThermostat(n: number, name: string, from: string, to: string): void {
    this.thermostats.voltFree({ n, name, from, to })
  }

  /** A 24 V transformer on the spur for so many valves, its secondary on the functions V and C. */
  transformer(valves: number): void {
    const rated = transformers.find(({ va }) => va >= vaOfValve * valves) ?? nth(transformers, transformers.length - 1)
    const settings = rated.va === nth(transformers, 0).va ? {} : { ...rated }
    this.device('transformer', 'Transformer', 'transformer-24', 'plant', settings)
    this.direct('transformer-feed', 'Transformer feed', spurLoad, 'transformer', 1)
    this.layout.cable(
      'transformer-cable',
      'Transformer 24 V cable',
      'transformer',
      [
        { terminal: 'V', use: 'line', to: 'V' },
        { terminal: 'C', use: 'switched', to: 'C' },
      ],
      1,
      { cores: 2, colours: thermostatWire },
    )
  }

  /** The cylinder thermostat, set to 60 °C unless said otherwise; SATISFIED only where the scheme uses it. */
  cylinderThermostat(to: { C: string; DEMAND: string; SATISFIED?: string }, set?: number): void {
    this.place('cylinder', 'Cylinder')
    this.device('cyl-stat', 'Cylinder thermostat', 'cylinder-thermostat', 'cylinder')
    if (set !== undefined) this.devices[this.devices.length - 1].positions = { set }
    if (this.typeAt('cyl-stat', 'cylinder-thermostat').terminals.some((t) => t.id === 'L'))
      return this.cylinderThermostatOnMains(to)
    this.layout.cable(
      'cyl-stat-cable',
      'Cylinder thermostat cable',
      'cyl-stat',
      [
        { terminal: 'C', use: 'line', to: to.C },
        { terminal: 'DEMAND', use: 'switched', to: to.DEMAND },
        ...(to.SATISFIED ? [{ terminal: 'SATISFIED', use: 'switched' as const, to: to.SATISFIED }] : []),
        { terminal: 'E', use: 'earth', to: 'E' },
      ],
      4,
    )
  }

  /** One that needs line and neutral: with its contact they fill five cores, and SATISFIED needs a second cable. */
  private cylinderThermostatOnMains({ C, DEMAND, SATISFIED }: { C: string; DEMAND: string; SATISFIED?: string }): void {
    this.layout.cable(
      'cyl-stat-cable',
      'Cylinder thermostat cable',
      'cyl-stat',
      [...mains, { terminal: 'C', use: 'switched', to: C }, { terminal: 'DEMAND', use: 'switched', to: DEMAND }],
      4,
      { cores: 5 },
    )
    if (SATISFIED) this.furtherCable('cyl-stat', 'Cylinder thermostat', { SATISFIED }, 4)
  }

  /** A cylinder thermostat with electronics of its own, beside the cylinder. */
  poweredCylinderThermostat(to: { C: string; DEMAND: string }): void {
    this.device('cyl-stat', 'Cylinder thermostat', 'cylinder-thermostat-powered', 'cylinder')
    this.cylinderThermostatOnMains(to)
  }

  /** An immersion heater on a circuit of its own. 3 kW: 13 A at 230 V, 25 A at 120 V. */
  immersionHeater(): void {
    const [breaker, flexMm2] = this.brief.supply === '120-60' ? [32, 4] : [16, 1.5]
    this.device('own-circuit', 'Immersion circuit', 'own-circuit', 'cylinder', { breaker })
    this.device('immersion', 'Immersion heater', 'immersion-heater', 'cylinder')
    const from = { L: 'own-circuit.L', N: 'own-circuit.N', E: 'own-circuit.E' }
    this.direct('immersion-flex', 'Immersion heater flex', from, 'immersion', 1, flexMm2)
  }

  /** A boiler on the mains of the wiring centre, and which function each of its other terminals goes to. */
  boiler(type: string, name: string, to: Record<string, string>): void {
    this.device('boiler', name, type)
    const calls = Object.entries(to).map(([terminal, f]): Wire => ({ terminal, use: 'switched', to: f }))
    this.layout.cable('boiler-cable', `${name} cable`, 'boiler', [...mains, ...calls], 3)
  }

  /** A device's own lead; `to` says which function each of its terminals goes to, null where it is cut back. */
  lead(device: string, label: string, to: Record<string, string | { parked: string } | null>): void {
    const type = this.devices.find((d) => d.id === device)!.type
    const cores = deviceType(type)
      .terminals.filter((t) => t.lead && !t.internal)
      .map((t) => ({ terminal: t.id, colour: t.lead!, to: to[t.id] }))
    this.layout.lead(`${device}-lead`, `${label} lead`, device, cores)
  }

  /** A boiler with a volt-free call, on the spur past the wiring centre; its call on the functions T1 and T2. */
  voltFreeBoiler(type = 'boiler-volt-free-call'): void {
    this.device('boiler', 'Boiler', type)
    this.direct('boiler-feed', 'Boiler feed', spurLoad, 'boiler', 3)
    this.layout.cable(
      'call-cable',
      'Boiler call cable',
      'boiler',
      [
        { terminal: 'T1', use: 'line', to: 'T1' },
        { terminal: 'T2', use: 'switched', to: 'T2' },
      ],
      3,
      { cores: 2, colours: thermostatWire },
    )
  }

  /** A normally closed two-port valve: where its motor is driven from, and what its end switch feeds. */
  twoPortValve(id: string, name: string, motor: string, call: string, type = 'two-port-valve'): void {
    this.device(id, name, type)
    // Of a six-wire head white is live while the valve is shut: it is parked in a terminal of its own.
    this.lead(id, name, { M: motor, N: 'N', E: 'E', SF: 'L', SO: call, SC: { parked: 'White, live while shut' } })
  }

  /** The pump on the boiler's own output. */
  pump(name = 'Pump'): void {
    this.device('pump', name, 'pump')
    this.direct('pump-cable', `${name} cable`, { L: 'boiler.PL', N: 'boiler.PN', E: 'boiler.PE' }, 'pump', 2)
  }

  /** A pump without an output of its own, run by a function of the wiring centre. */
  pumpOn(live: string): void {
    this.device('pump', 'Pump', 'pump')
    this.layout.cable(
      'pump-cable',
      'Pump cable',
      'pump',
      [{ terminal: 'L', use: 'switched', to: live }, ...mains.slice(1)],
      2,
      {
        cores: 3,
      },
    )
  }

  /** A control with one contact in the line, at a place of its own. */
  twoWire(
    id: string,
    name: string,
    type: string,
    [place, placeName]: [string, string],
    from: string,
    to: string,
  ): void {
    if (!this.places.some((p) => p.id === place)) this.place(place, placeName)
    this.device(id, name, type, place)
    const [feed, out] = deviceType(type).terminals
    this.layout.cable(
      `${id}-cable`,
      `${name} cable`,
      id,
      [
        { terminal: feed.id, use: 'line', to: from },
        { terminal: out.id, use: 'switched', to },
        { terminal: 'E', use: 'earth', to: 'E' },
      ],
      6,
      { cores: this.brief.cable === 'five-core' ? 5 : 4 },
    )
  }

  /** A manifold controller on the mains, its rooms' thermostats and heads, and its call from one function to another. */
  manifold(rooms: readonly string[], call: { from: string; to: string }): void {
    this.place('manifold', 'Underfloor manifold')
    this.device('manifold', 'Manifold controller', 'manifold-controller', 'manifold')
    this.layout.cable(
      'manifold-cable',
      'Manifold cable',
      'manifold',
      [...mains, { terminal: 'K1', use: 'switched', to: call.from }, { terminal: 'K2', use: 'switched', to: call.to }],
      6,
      { cores: 5 },
    )
    const earths = this.earthsOfRooms(rooms.length)
    rooms.forEach((room, i) => {
      const n = i + 1
      this.place(`room-${n}`, room)
      this.device(
        `stat-u${n}`,
        `${room} thermostat`,
        i % 2 === 0 ? 'room-thermostat-two-wire' : 'room-thermostat-neutral',
        `room-${n}`,
      )
      const { wanted } = coloursOf(this.brief.supply)
      const needsNeutral = i % 2 === 1
      this.layout.direct(
        `stat-u${n}-cable`,
        `${room} thermostat cable`,
        [
          { colour: wanted.line[0], from: `manifold.F${n}`, to: `stat-u${n}.L` },
          { colour: wanted.switched[0], from: `manifold.S${n}`, to: `stat-u${n}.SL` },
          ...(needsNeutral ? [{ colour: wanted.neutral[0], from: `manifold.HN${n}`, to: `stat-u${n}.N` }] : []),
          { colour: wanted.earth[0], from: earths, to: `stat-u${n}.E` },
        ],
        10,
      )
      this.device(`head-${n}`, `${room} head`, 'thermal-head', 'manifold')
      this.layout.direct(
        `head-${n}-lead`,
        `${room} head lead`,
        [
          { colour: 'brown', from: `manifold.H${n}`, to: `head-${n}.L` },
          { colour: 'blue', from: `manifold.HN${n}`, to: `head-${n}.N` },
        ],
        1,
      )
    })
  }

  /** Where the earths of the rooms' cables go: to the controller's terminal, or to a connector beside it, where that takes no more. */
  private earthsOfRooms(rooms: number): string | End {
    if (rooms < deviceWays) return 'manifold.E'
    const connector = 'room-earths'
    this.connector(connector, 'Room earths, in a connector', 'manifold', rooms + 1)
    const { wanted } = coloursOf(this.brief.supply)
    const to: End = { at: 'connector', connector }
    this.layout.direct(
      'room-earths-lead',
      'Earth of the rooms',
      [{ colour: wanted.earth[0], from: 'manifold.E', to }],
      0.2,
    )
    return to
  }

  /** Line, neutral and, where given, earth from terminals straight to a device's own, past the wiring centre. */
  direct(
    id: string,
    label: string,
    from: { L: string; N: string; E?: string },
    device: string,
    lengthM: number,
    areaMm2?: number,
  ): void {
    const { wanted } = coloursOf(this.brief.supply)
    const cores = mains.flatMap(({ terminal, use }) => {
      const at = from[terminal as 'L' | 'N' | 'E']
      return at === undefined ? [] : [{ colour: wanted[use][0], from: at, to: `${device}.${terminal}` }]
    })
    this.layout.direct(id, label, cores, lengthM, areaMm2)
  }

  /**
   * Allocates terminals and links, lays the pipes, and returns the parsed document. Call once.
   *
   * @throws NoSuchDevice, TypeDoesNotFit where the brief chooses a type that cannot stand there
   */
  installation(id: string, name: string, scheme: string, plant?: PipeworkOptions): Installation {
    const { volts, frequency } = supplies[this.brief.supply]
    const { layout, devices, demands } = this
    const places = this.places.map((place) => ({ ...place, ...this.brief.places?.[place.id] }))
    const typeOf = new Map(devices.map(({ id: of, type }) => [of, type]))
    layout.finish((device) => typeOf.get(device) ?? device)
    this.chosen.lookOver(devices, layout, demands)
    const used = [...new Set(devices.map((d) => d.type))]
    const wired = parseInstallation(
      {
        format: 'nobbet-installation',
        version: 1,
        id,
        name,
        scheme,
        supply: { volts, frequency },
        provenance: 'planned',
        types: used.map((type) => ({ id: type, version: deviceType(type).version })),
        places,
        devices,
        connectors: this.connectors,
        wiringCentres: layout.centres.map((centre) => ({ ...centre, place: 'plant' })),
        cables: layout.cables,
        links: layout.links,
        intent: { demands },
      },
      typeDirectory,
    )
    return parseInstallation(withPipework(wired, plant), typeDirectory)
  }
}
