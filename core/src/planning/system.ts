import { deviceType, typeDirectory } from '../catalogue'
import { parseInstallation, type Demand, type Device, type Installation, type Place } from '../installation'
import type { PlanBrief } from './brief'
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

  constructor(practice: Pick<PlanBrief, 'cable' | 'terminals'>) {
    this.layout = new Layout('wc', practice)
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
    this.layout.direct(
      'pump-cable',
      'Pump cable',
      [
        { colour: 'brown', from: 'boiler.PL', to: 'pump.L' },
        { colour: 'blue', from: 'boiler.PN', to: 'pump.N' },
        { colour: 'green-yellow', from: 'boiler.PE', to: 'pump.E' },
      ],
      2,
    )
  }

  /** Allocates terminals and links, and returns the parsed document. Call once. */
  installation(
    id: string,
    name: string,
    scheme: string,
    supply: Installation['supply'] = { volts: 230, frequency: 50 },
  ): Installation {
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
        supply,
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
