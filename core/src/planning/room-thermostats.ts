import { thermostatWire, type DeviceType } from '../catalogue'
import type { CircuitBrief, PlanBrief } from './brief'
import type { Layout } from './layout'
import { timedOf } from './schemes'

/** What a room thermostat is laid out on. */
interface Site {
  readonly layout: Layout
  place(id: string, name: string): void
  device(id: string, name: string, type: string, place?: string): void
  typeAt(id: string, usual: string): DeviceType
}

/** A zone by number and name, and the functions of the wiring centre that its thermostat stands between. */
interface Zone {
  n: number
  name: string
  from: string
  to: string
}

/** The thermostats of rooms, each with its cable of 12 m to the wiring centre; extra-low voltage 14 m. */
export class RoomThermostats {
  constructor(
    private readonly site: Site,
    private readonly brief: Pick<PlanBrief, 'cable' | 'inWall'>,
  ) {}

  /** The scheme's usual one, or what the brief says of its circuit. */
  room(zone: Zone, circuit: CircuitBrief | undefined, usual = 'room-thermostat-neutral'): void {
    const { thermostat } = circuit ?? {}
    const fed = timedOf(circuit ?? {}) === 'by-itself' ? { ...zone, from: 'L' } : zone
    if (thermostat === 'wireless') return this.wireless(fed)
    if (thermostat === 'programmable') return this.powered(fed, 'room-thermostat-programmable')
    const { n, name, from, to } = fed
    const plain = thermostat === 'two-wire' ? 'room-thermostat-two-wire' : usual
    this.site.place(`zone-${n}`, name)
    this.site.device(`stat-${n}`, `${name} thermostat`, plain, `zone-${n}`)
    const type = this.site.typeAt(`stat-${n}`, plain)
    const has = (terminal: string) => type.terminals.some((t) => t.id === terminal)
    this.site.layout.cable(
      `stat-${n}-cable`,
      `${name} thermostat cable`,
      `stat-${n}`,
      [
        { terminal: 'L', use: 'line', to: from },
        { terminal: has('N') ? 'N' : null, use: 'neutral', to: 'N' },
        { terminal: has('E') ? 'E' : null, use: 'earth', to: 'E' },
        { terminal: 'SL', use: 'switched', to },
      ],
      12,
    )
  }

  /** A powered thermostat: L and COM from `from` joined by a link of its own, NO to `to`. */
  powered({ n, name, from, to }: Zone, type: string): void {
    this.site.place(`zone-${n}`, name)
    this.site.device(`stat-${n}`, `${name} thermostat`, type, `zone-${n}`)
    this.site.layout.cable(
      `stat-${n}-cable`,
      `${name} thermostat cable`,
      `stat-${n}`,
      [
        { terminal: 'L', use: 'line', to: from },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: null, use: 'earth', to: 'E' },
        { terminal: 'NO', use: 'switched', to },
      ],
      12,
    )
    this.site.layout.link(`stat-${n}.L`, `stat-${n}.COM`)
  }

  /**
   * A wireless receiver in the thermostat's place, on permanent line. Its common comes on a core of its own, so that it can be
   * tested in the wiring centre; where it takes permanent line as well, and the cable has no core for it, it is linked to that.
   */
  private wireless({ n, name, from, to }: Zone): void {
    const id = `stat-${n}`
    const cable = `${id}-cable`
    this.site.place(`zone-${n}`, name)
    this.site.device(id, `${name} receiver`, 'wireless-receiver', `zone-${n}`)
    const isShort = this.brief.cable === 'only-needed' || (this.brief.inWall?.[cable]?.length ?? 5) < 5
    const isLinked = from === 'L' && isShort
    this.site.layout.cable(
      cable,
      `${name} receiver cable`,
      id,
      [
        { terminal: 'L', use: 'line', to: 'L' },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: null, use: 'earth', to: 'E' },
        { terminal: 'NO', use: 'switched', to },
        ...(isLinked ? [] : [{ terminal: 'COM', use: 'switched' as const, to: from }]),
      ],
      12,
    )
    if (isLinked) this.site.layout.link(`${id}.L`, `${id}.COM`)
  }

  /** A battery thermostat with a volt-free contact between two extra-low-voltage functions. */
  voltFree({ n, name, from, to }: Zone): void {
    this.site.place(`zone-${n}`, name)
    this.site.device(`stat-${n}`, `${name} thermostat`, 'room-thermostat-volt-free', `zone-${n}`)
    this.site.layout.cable(
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
}
