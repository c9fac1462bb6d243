import { deviceType, typeDirectory } from '../catalogue'
import { parseInstallation, type Demand, type Device, type Installation, type Place } from '../installation'
import { supplies, type PlanBrief } from './brief'
import { coloursOf } from './colours'
import { Layout, type Wire } from './layout'

/** Line, neutral and earth to terminals of those names. */
export const mains: readonly Wire[] = [
  { terminal: 'L', use: 'line', to: 'L' },
  { terminal: 'N', use: 'neutral', to: 'N' },
  { terminal: 'E', use: 'earth', to: 'E' },
]

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

  demand(demand: Omit<Demand, 'companions' | 'priority'>): void {
    this.demands.push({ ...demand, companions: [], priority: 0 })
  }

  /** A device's own lead; `to` says which function each of its terminals goes to. */
  lead(device: string, label: string, to: Record<string, string>): void {
    const type = this.devices.find((d) => d.id === device)!.type
    const cores = deviceType(type)
      .terminals.filter((t) => t.lead && !t.internal)
      .map((t) => ({ terminal: t.id, colour: t.lead!, to: to[t.id] }))
    this.layout.lead(`${device}-lead`, `${label} lead`, device, cores)
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
