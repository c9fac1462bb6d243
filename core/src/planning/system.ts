import { deviceType, typeDirectory } from '../catalogue'
import { parseInstallation, type Demand, type Device, type Installation, type Place } from '../installation'
import { supplies, type PlanBrief } from './brief'
import { coloursOf, thermostatWire } from './colours'
import { Layout, type Wire } from './layout'

/** Line, neutral and earth to terminals of those names. */
export const mains: readonly Wire[] = [
  { terminal: 'L', use: 'line', to: 'L' },
  { terminal: 'N', use: 'neutral', to: 'N' },
  { terminal: 'E', use: 'earth', to: 'E' },
]

/** The names of a brief's circuits: heating ones in order, and the hot water one. */
export const circuitsOf = (brief: PlanBrief) => ({
  heating: brief.circuits.filter((c) => c.kind === 'heating').map((c) => c.name),
  hotWater: brief.circuits.find((c) => c.kind === 'hot-water')?.name ?? 'Hot water',
})

/** What of a demand the scheme decides. */
type DemandRest = Pick<Demand, 'circuit' | 'call'> & { priority?: number; channel?: null }

/** Where the spur feeds what does not pass the wiring centre. */
const spurLoad = { L: 'spur.L', N: 'spur.N', E: 'spur.E' }

const channel = (contact: string) => ({ device: 'programmer', contact })

/** A system being planned: places, devices and demands, and the layout of its one wiring centre. */
export class PlannedSystem {
  readonly layout: Layout
  private readonly places: Place[] = [{ id: 'plant', name: 'Plant cupboard' }]
  private readonly devices: Device[] = []
  private readonly demands: Demand[] = []

  constructor(private readonly brief: Pick<PlanBrief, 'cable' | 'terminals' | 'supply'>) {
    this.layout = new Layout('wc', brief)
  }

  place(id: string, name: string): void {
    this.places.push({ id, name })
  }

  device(id: string, name: string, type: string, place = 'plant'): void {
    this.devices.push({ id, name, type, place, settings: {} })
  }

  /** Heating of a zone: programmer channel, its own thermostat. */
  heating(n: number, name: string, rest: DemandRest): void {
    const thermostat = { device: `stat-${n}`, contact: 'contact' }
    this.demand({ id: `heating-${n}`, name, kind: 'heating', channel: channel('heating'), thermostat, ...rest })
  }

  hotWater(name: string, rest: DemandRest): void {
    const thermostat = { device: 'cyl-stat', contact: 'contact' }
    this.demand({ id: 'hot-water', name, kind: 'hot-water', channel: channel('hot-water'), thermostat, ...rest })
  }

  demand(demand: Omit<Demand, 'companions' | 'priority'> & { priority?: number }): void {
    this.demands.push({ companions: [], priority: 0, ...demand })
  }

  /** The functions every mains wiring centre begins with. */
  mains(): void {
    this.layout.function('L', 'Line')
    this.layout.function('N', 'Neutral')
    this.layout.function('E', 'Earth')
  }

  /** The fused spur and its cable to the Line, Neutral and Earth of the wiring centre. */
  spur(): void {
    this.device('spur', 'Fused spur', 'fused-spur')
    this.layout.cable('supply', 'Supply cable', 'spur', mains, 1, { cores: 3 })
  }

  /** The two-channel programmer: which function each channel's ON goes to. Its plastic plate needs no earth. */
  programmer(on: { heating?: string; hotWater?: string }): void {
    this.place('controls', 'Programmer position')
    this.device('programmer', 'Programmer', 'programmer-two-channel', 'controls')
    this.layout.cable(
      'programmer-cable',
      'Programmer cable',
      'programmer',
      [
        { terminal: 'L', use: 'line', to: 'L' },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: null, use: 'earth', to: 'E' },
        ...(on.heating ? [{ terminal: 'HTG-ON', use: 'switched' as const, to: on.heating }] : []),
        ...(on.hotWater ? [{ terminal: 'HW-ON', use: 'switched' as const, to: on.hotWater }] : []),
      ],
      8,
    )
  }

  /** The room thermostat of a zone, from one function to another. */
  roomThermostat(n: number, name: string, from: string, to: string): void {
    this.place(`zone-${n}`, name)
    this.device(`stat-${n}`, `${name} thermostat`, 'room-thermostat-neutral', `zone-${n}`)
    this.layout.cable(
      `stat-${n}-cable`,
      `${name} thermostat cable`,
      `stat-${n}`,
      [
        { terminal: 'L', use: 'line', to: from },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: 'E', use: 'earth', to: 'E' },
        { terminal: 'SL', use: 'switched', to },
      ],
      12,
    )
  }

  /** A battery thermostat with a volt-free contact between two extra-low-voltage functions. */
  voltFreeThermostat(n: number, name: string, from: string, to: string): void {
    this.place(`zone-${n}`, name)
    this.device(`stat-${n}`, `${name} thermostat`, 'room-thermostat-volt-free', `zone-${n}`)
    this.layout.cable(
      `stat-${n}-cable`,
      `${name} thermostat cable`,
      `stat-${n}`,
      [
        { terminal: 'R', use: 'line', to: from },
        { terminal: 'W', use: 'switched', to },
      ],
      14,
      { cores: 2, colours: thermostatWire },
    )
  }

  /** A 24 V transformer on the spur, its secondary on the functions V and C. */
  transformer(): void {
    this.device('transformer', 'Transformer', 'transformer-24')
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

  /** The cylinder thermostat; SATISFIED only where the scheme uses it. */
  cylinderThermostat(to: { C: string; DEMAND: string; SATISFIED?: string }): void {
    this.place('cylinder', 'Cylinder')
    this.device('cyl-stat', 'Cylinder thermostat', 'cylinder-thermostat', 'cylinder')
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

  /** A boiler on the mains of the wiring centre, and which function each of its other terminals goes to. */
  boiler(type: string, name: string, to: Record<string, string>): void {
    this.device('boiler', name, type)
    const calls = Object.entries(to).map(([terminal, f]): Wire => ({ terminal, use: 'switched', to: f }))
    this.layout.cable('boiler-cable', `${name} cable`, 'boiler', [...mains, ...calls], 3)
  }

  /** A device's own lead; `to` says which function each of its terminals goes to, null where it is cut back. */
  lead(device: string, label: string, to: Record<string, string | null>): void {
    const type = this.devices.find((d) => d.id === device)!.type
    const cores = deviceType(type)
      .terminals.filter((t) => t.lead && !t.internal)
      .map((t) => ({ terminal: t.id, colour: t.lead!, to: to[t.id] }))
    this.layout.lead(`${device}-lead`, `${label} lead`, device, cores)
  }

  /** A boiler with a volt-free call, on the spur past the wiring centre; its call on the functions T1 and T2. */
  voltFreeBoiler(): void {
    this.device('boiler', 'Boiler', 'boiler-volt-free-call')
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
  twoPortValve(id: string, name: string, motor: string, call: string): void {
    this.device(id, name, 'two-port-valve')
    this.lead(id, name, { M: motor, N: 'N', E: 'E', SF: 'L', SO: call })
  }

  /** The pump on the boiler's own output. */
  pump(): void {
    this.device('pump', 'Pump', 'pump')
    this.direct('pump-cable', 'Pump cable', { L: 'boiler.PL', N: 'boiler.PN', E: 'boiler.PE' }, 'pump', 2)
  }

  /** Line, neutral and earth from three terminals straight to a device's own, past the wiring centre. */
  direct(id: string, label: string, from: Record<'L' | 'N' | 'E', string>, device: string, lengthM: number): void {
    const { wanted } = coloursOf(this.brief.supply)
    const cores = mains.map(({ terminal, use }) => ({
      colour: wanted[use][0],
      from: from[terminal as 'L' | 'N' | 'E'],
      to: `${device}.${terminal}`,
    }))
    this.layout.direct(id, label, cores, lengthM)
  }

  /** Allocates terminals and links, and returns the parsed document. Call once. */
  installation(id: string, name: string, scheme: string): Installation {
    const { volts, frequency } = supplies[this.brief.supply]
    const { layout, places, devices, demands } = this
    layout.finish()
    const used = [...new Set(devices.map((d) => d.type))]
    return parseInstallation(
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
        wiringCentres: [{ id: 'wc', name: 'Wiring centre', place: 'plant', terminals: layout.terminals }],
        cables: layout.cables,
        links: layout.links,
        intent: { demands },
      },
      typeDirectory,
    )
  }
}
