import type { Demand, Installation } from '../installation'
import type { PlanBrief } from './brief'
import { fittingsOf, schemes, type Fittings } from './schemes'
import { namesOf, PlannedSystem } from './system'

type Call = Demand['call']

/**
 * Plans a system of two-port valves, one to each circuit: programmer or smart receiver → thermostat → valve motor, end switches
 * from permanent live to the boiler's call. What a brief combines is laid out piece by piece:
 *
 * - heating zones, zones prepared for a thermostat that comes later, underfloor rooms on a manifold controller, towel rails
 *   timed by a third channel;
 * - a vented cylinder, or an unvented one with a high limit before its valve and an immersion heater on a circuit of its own;
 * - a programmer; or a smart receiver, which controls the first zone itself while each further zone has a programmable
 *   thermostat on permanent live;
 * - one call, or two with hot water first: a normally open valve in the flow common to heating, driven with the hot water valve.
 *   Towel rails divide off before it, so that they run with hot water.
 *
 * Takes a parsed brief; returns a parsed document.
 */
export function planTwoPort(brief: PlanBrief, id: string, name: string): Installation {
  return new TwoPort(brief).planned(id, name)
}

class TwoPort {
  private readonly system: PlannedSystem
  private readonly fitted: Fittings
  private readonly heating: string[]
  private readonly later: string[]
  private readonly rooms: string[]
  private readonly towels: string | undefined
  private readonly hotWater: string | undefined
  private readonly frost: boolean

  constructor(private readonly brief: PlanBrief) {
    this.system = new PlannedSystem(brief)
    this.fitted = fittingsOf(brief)
    this.heating = namesOf(brief, 'heating')
    this.later = namesOf(brief, 'later')
    this.rooms = namesOf(brief, 'underfloor')
    this.towels = namesOf(brief, 'towel-rails')[0]
    this.hotWater = namesOf(brief, 'hot-water')[0]
    this.frost = brief.scheme === 'unvented'
  }

  planned(id: string, name: string): Installation {
    const { system, fitted } = this
    this.functions()
    if (fitted.boiler === 'live-output') this.liveOutputBoiler()
    else system.spur()
    if (this.receiver) this.smartReceiver()
    else this.programmer()
    this.heating.forEach((zone, i) => this.heatingZone(zone, i))
    if (this.frost) this.frostProtection()
    this.later.forEach((zone, i) => this.laterZone(zone, i + 1))
    if (this.rooms.length > 0) this.underfloor()
    if (this.towels) this.towelRails(this.towels)
    if (this.hotWater) this.cylinder(this.hotWater)
    this.boilerAndPump()
    return system.installation(id, name, schemes[this.brief.scheme].name, {
      emitters: {
        'towel-rails': 'towel-rails',
        ...Object.fromEntries(this.rooms.map((_, i) => [`underfloor-${i + 1}`, 'underfloor-loop'])),
      },
    })
  }

  private get receiver(): boolean {
    return this.fitted.control === 'smart-receiver'
  }
  private get twoCalls(): boolean {
    return this.fitted.boiler === 'two-calls'
  }
  private get limited(): boolean {
    return this.fitted.cylinder === 'unvented'
  }
  /** What feeds the thermostats of heating: the programmer's channel, or permanent live where a receiver has none for them. */
  private get heatingFeed(): string {
    return this.receiver ? 'L' : 'HTG-ON'
  }
  private get heatingCall(): string {
    return this.twoCalls ? 'heating-call' : 'call'
  }
  private get call(): Call {
    return { boiler: 'boiler', input: this.twoCalls ? 'SH' : 'SL' }
  }
  private get channel(): Demand['channel'] {
    return this.receiver ? null : { device: 'programmer', contact: 'heating' }
  }

  /** What every demand of heating has besides its own: under priority it waits, behind the normally open valve. */
  private heatingRest(valves: Demand['circuit']['valves']): Pick<Demand, 'circuit' | 'call' | 'priority'> {
    return this.twoCalls
      ? { circuit: { valves: [...valves, { device: 'priority-valve' }] }, call: this.call, priority: 1 }
      : { circuit: { valves }, call: this.call, priority: 0 }
  }

  private functions(): void {
    const { layout } = this.system
    this.system.mains()
    const channelled = [...this.heating, ...this.later, ...this.rooms].length > 0
    if (channelled && !this.receiver) layout.function('HTG-ON', 'Heating ON')
    this.heating.forEach((zone, i) => layout.function(`valve-${i + 1}`, `${zone} valve`))
    if (this.frost) layout.function('frost', 'Frost to pipe thermostat')
    this.later.forEach((zone, i) => layout.function(`later-${i + 1}`, `${zone} valve`))
    if (this.rooms.length > 0) layout.function('valve-u', 'Underfloor valve')
    if (this.towels) layout.function('valve-t', `${this.towels} valve`)
    if (this.hotWater) {
      layout.function('HW-ON', 'Hot water ON')
      if (this.limited) layout.function('limit', 'Cylinder to high limit')
      layout.function('valve-hw', `${this.hotWater} valve`)
    }
    if (this.twoCalls) {
      layout.function('heating-call', 'Heating call')
      layout.function('hot-water-call', 'Hot water call')
    } else layout.function('call', 'Boiler call')
  }

  private programmer(): void {
    const { system } = this
    const heating = [...this.heating, ...this.later, ...this.rooms].length > 0 ? 'HTG-ON' : undefined
    const hotWater = this.hotWater ? 'HW-ON' : undefined
    const threeChannels = this.towels !== undefined || this.brief.scheme === 'more-zones'
    const type = threeChannels
      ? 'programmer-three-channel'
      : this.brief.scheme === 'unvented'
        ? 'programmer-own-feed'
        : 'programmer-two-channel'
    system.programmer({ heating, hotWater }, type)
    if (this.towels) system.furtherCable('programmer', 'Programmer', { 'X-ON': 'valve-t' }, 8)
  }

  /** Both commons fed from line; heating goes straight to the first zone's valve, hot water to the cylinder thermostat. */
  private smartReceiver(): void {
    const { system } = this
    const to: Record<string, string> = { 'H-NO': 'valve-1', ...(this.hotWater && { 'W-NO': 'HW-ON' }) }
    system.device('receiver', 'Receiver', 'smart-receiver-two-channel')
    system.powered('receiver', 'Receiver', to, 3)
    system.layout.link('receiver.L', 'receiver.H-COM')
    if (this.hotWater) system.layout.link('receiver.H-COM', 'receiver.W-COM')
  }

  private heatingZone(zone: string, i: number): void {
    const { system } = this
    const n = i + 1
    const own = this.receiver && i === 0
    if (!own && this.receiver) system.poweredThermostat(n, zone, 'L', `valve-${n}`, 'room-thermostat-programmable')
    else if (!own) {
      const plain = this.brief.scheme === 'more-zones' && i % 2 === 1
      system.roomThermostat(n, zone, 'HTG-ON', `valve-${n}`, plain ? 'room-thermostat-two-wire' : undefined)
    }
    system.twoPortValve(`zv-${n}`, `${zone} valve`, `valve-${n}`, this.heatingCall)
    system.demand({
      id: `heating-${n}`,
      name: zone,
      kind: 'heating',
      channel: this.receiver ? null : system.channelOf(zone),
      thermostat: own ? { device: 'receiver', contact: 'heating' } : { device: `stat-${n}`, contact: 'contact' },
      ...this.heatingRest([{ device: `zv-${n}` }]),
      // The frost thermostat reaches every zone whose thermostat is closed, through the common heating ON.
      companions: this.frost ? ['frost'] : [],
    })
  }

  /** From line past the programmer to the first heating valve. */
  private frostProtection(): void {
    const { system } = this
    system.twoWire('frost-stat', 'Frost thermostat', 'frost-thermostat', ['garage', 'Garage'], 'L', 'frost')
    system.twoWire('pipe-stat', 'Pipe thermostat', 'pipe-thermostat', ['garage', 'Garage'], 'frost', 'valve-1')
    system.demand({
      id: 'frost',
      name: 'Frost protection',
      kind: 'heating',
      channel: null,
      thermostat: { device: 'frost-stat', contact: 'contact' },
      ...this.heatingRest([{ device: 'zv-1' }]),
      companions: this.heating.map((_, i) => `heating-${i + 1}`),
    })
  }

  /** Feed and switched live meet in a connector until the thermostat comes. */
  private laterZone(zone: string, n: number): void {
    const { system } = this
    system.place(`later-${n}`, zone)
    system.connector(`later-${n}-joint`, `${zone} connector`, `later-${n}`)
    const joined = { terminal: null, use: 'switched' as const, connector: `later-${n}-joint` }
    system.layout.cable(
      `later-${n}-cable`,
      `${zone} thermostat cable`,
      `later-${n}`,
      [
        { ...joined, use: 'line', to: 'HTG-ON' },
        { terminal: null, use: 'neutral', to: 'N' },
        { terminal: null, use: 'earth', to: 'E' },
        { ...joined, to: `later-${n}` },
      ],
      12,
    )
    system.twoPortValve(`zv-l${n}`, `${zone} valve`, `later-${n}`, this.heatingCall)
    system.demand({
      id: `later-${n}`,
      name: zone,
      kind: 'heating',
      channel: this.channel,
      thermostat: null,
      ...this.heatingRest([{ device: `zv-l${n}` }]),
    })
  }

  private underfloor(): void {
    const { system } = this
    system.twoPortValve('zv-u', 'Underfloor valve', 'valve-u', this.heatingCall)
    system.manifold(this.rooms, { from: this.heatingFeed, to: 'valve-u' })
    this.rooms.forEach((room, i) =>
      system.demand({
        id: `underfloor-${i + 1}`,
        name: room,
        kind: 'heating',
        channel: this.channel,
        thermostat: { device: `stat-u${i + 1}`, contact: 'contact' },
        ...this.heatingRest([{ device: 'zv-u' }, { device: `head-${i + 1}` }]),
      }),
    )
  }

  private towelRails(name: string): void {
    const { system } = this
    system.twoPortValve('zv-t', `${name} valve`, 'valve-t', this.heatingCall, 'two-port-valve-six-wire')
    system.demand({
      id: 'towel-rails',
      name,
      kind: 'heating',
      channel: { device: 'programmer', contact: 'third' },
      thermostat: null,
      // Divided off before the normally open valve: it calls like heating and never waits.
      circuit: { valves: [{ device: 'zv-t' }] },
      call: this.call,
      priority: this.twoCalls ? 1 : 0,
    })
  }

  private cylinder(name: string): void {
    const { system } = this
    if (this.limited) {
      system.place('cylinder', 'Cylinder')
      system.poweredCylinderThermostat({ C: 'HW-ON', DEMAND: 'limit' })
      system.twoWire('high-limit', 'High limit', 'cylinder-high-limit', ['cylinder', 'Cylinder'], 'limit', 'valve-hw')
    } else system.cylinderThermostat({ C: 'HW-ON', DEMAND: 'valve-hw' })
    system.twoPortValve('zv-hw', `${name} valve`, 'valve-hw', this.twoCalls ? 'hot-water-call' : 'call')
    if (this.twoCalls) {
      system.device('priority-valve', 'Priority valve', 'two-port-valve-normally-open')
      system.lead('priority-valve', 'Priority valve', { M: 'valve-hw', N: 'N', E: 'E' })
    }
    system.hotWater(name, {
      ...(this.receiver && { channel: { device: 'receiver', contact: 'water' } }),
      circuit: { valves: [{ device: 'zv-hw' }] },
      call: { boiler: 'boiler', input: this.twoCalls ? 'SW' : 'SL' },
    })
    if (this.limited) system.immersionHeater()
  }

  /** The spur feeds the boiler, and the boiler the controls. */
  private liveOutputBoiler(): void {
    const { system } = this
    system.device('spur', 'Fused spur', 'fused-spur')
    system.device('boiler', 'Boiler', 'boiler-live-output')
    system.direct('boiler-feed', 'Boiler feed', { L: 'spur.L', N: 'spur.N', E: 'spur.E' }, 'boiler', 3)
    system.layout.cable(
      'boiler-cable',
      'Boiler controls cable',
      'boiler',
      [
        { terminal: 'LO', use: 'line', to: 'L' },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: 'E', use: 'earth', to: 'E' },
        { terminal: 'SL', use: 'switched', to: 'call' },
      ],
      3,
    )
  }

  private boilerAndPump(): void {
    const { system, fitted } = this
    switch (fitted.boiler) {
      case 'pump-beside':
        system.boiler('boiler-pump-beside', 'Boiler', { SL: 'call' })
        return system.pumpOn('call')
      case 'two-calls':
        system.boiler('boiler-two-calls', 'Boiler', { SH: 'heating-call', SW: 'hot-water-call' })
        break
      case 'switched-live':
        system.boiler('boiler-switched-live', 'Boiler', { SL: 'call' })
        break
      case 'live-output':
        break
    }
    system.pump()
  }
}
