import { deviceType, typeDirectory } from '../catalogue'
import { parseInstallation, type Demand, type Device, type Installation, type Place } from '../installation'
import type { PlanBrief } from './brief'
import { Layout, type Wire } from './layout'

/** Line, neutral and earth to terminals of those names. */
const mains: readonly Wire[] = [
  { terminal: 'L', use: 'line', to: 'L' },
  { terminal: 'N', use: 'neutral', to: 'N' },
  { terminal: 'E', use: 'earth', to: 'E' },
]

/**
 * Plans a two-port system: one normally closed valve per circuit, programmer ON → thermostat → valve motor, end
 * switches in parallel from permanent live to the boiler's call. Heating circuits share the programmer's heating
 * channel. Takes a parsed brief; returns a parsed document.
 */
export function planTwoPort(brief: PlanBrief, id: string, name: string): Installation {
  const layout = new Layout('wc', brief)
  const heating = brief.circuits.filter((c) => c.kind === 'heating')
  const hotWater = brief.circuits.find((c) => c.kind === 'hot-water')

  const places: Place[] = [
    { id: 'plant', name: 'Plant cupboard' },
    { id: 'controls', name: 'Programmer position' },
  ]
  const devices: Device[] = []
  const demands: Demand[] = []
  const add = (id: string, name: string, type: string, place: string) =>
    devices.push({ id, name, type, place, settings: {} })

  add('spur', 'Fused spur', 'fused-spur', 'plant')
  add('programmer', 'Programmer', 'programmer-two-channel', 'controls')

  layout.function('L', 'Line')
  layout.function('N', 'Neutral')
  layout.function('E', 'Earth')
  if (heating.length > 0) layout.function('HTG-ON', 'Heating ON')
  heating.forEach((c, i) => layout.function(`valve-${i + 1}`, `${c.name} valve`))
  if (hotWater) {
    layout.function('HW-ON', 'Hot water ON')
    layout.function('valve-hw', `${hotWater.name} valve`)
  }
  layout.function('call', 'Boiler call')

  layout.cable('supply', 'Supply cable', 'spur', mains, 1, 3)
  layout.cable(
    'programmer-cable',
    'Programmer cable',
    'programmer',
    [
      { terminal: 'L', use: 'line', to: 'L' },
      { terminal: 'N', use: 'neutral', to: 'N' },
      { terminal: null, use: 'earth', to: 'E' },
      ...(heating.length > 0 ? [{ terminal: 'HTG-ON', use: 'switched' as const, to: 'HTG-ON' }] : []),
      ...(hotWater ? [{ terminal: 'HW-ON', use: 'switched' as const, to: 'HW-ON' }] : []),
    ],
    8,
  )

  heating.forEach((circuit, i) => {
    const n = i + 1
    places.push({ id: `zone-${n}`, name: circuit.name })
    add(`stat-${n}`, `${circuit.name} thermostat`, 'room-thermostat-neutral', `zone-${n}`)
    add(`zv-${n}`, `${circuit.name} valve`, 'two-port-valve', 'plant')
    layout.cable(
      `stat-${n}-cable`,
      `${circuit.name} thermostat cable`,
      `stat-${n}`,
      [
        { terminal: 'L', use: 'line', to: 'HTG-ON' },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: 'E', use: 'earth', to: 'E' },
        { terminal: 'SL', use: 'switched', to: `valve-${n}` },
      ],
      12,
    )
    valveLead(layout, `zv-${n}`, `${circuit.name} valve`, `valve-${n}`)
    demands.push(demand(`heating-${n}`, circuit.name, 'heating', `stat-${n}`, `zv-${n}`))
  })

  if (hotWater) {
    places.push({ id: 'cylinder', name: 'Cylinder' })
    add('cyl-stat', 'Cylinder thermostat', 'cylinder-thermostat', 'cylinder')
    add('zv-hw', `${hotWater.name} valve`, 'two-port-valve', 'plant')
    layout.cable(
      'cyl-stat-cable',
      'Cylinder thermostat cable',
      'cyl-stat',
      [
        { terminal: 'C', use: 'line', to: 'HW-ON' },
        { terminal: 'DEMAND', use: 'switched', to: 'valve-hw' },
        { terminal: 'E', use: 'earth', to: 'E' },
      ],
      4,
    )
    valveLead(layout, 'zv-hw', `${hotWater.name} valve`, 'valve-hw')
    demands.push(demand('hot-water', hotWater.name, 'hot-water', 'cyl-stat', 'zv-hw'))
  }

  add('boiler', 'Boiler', 'boiler-switched-live', 'plant')
  add('pump', 'Pump', 'pump', 'plant')
  layout.cable('boiler-cable', 'Boiler cable', 'boiler', [...mains, { terminal: 'SL', use: 'switched', to: 'call' }], 3)
  layout.direct(
    'pump-cable',
    'Pump cable',
    [
      { colour: 'brown', from: 'boiler.PL', to: 'pump.L' },
      { colour: 'blue', from: 'boiler.PN', to: 'pump.N' },
      { colour: 'green-yellow', from: 'boiler.PE', to: 'pump.E' },
    ],
    2,
  )
  layout.finish()

  const used = [...new Set(devices.map((d) => d.type))]
  return parseInstallation(
    {
      format: 'nobbet-installation',
      version: 1,
      id,
      name,
      scheme: 'Two-port',
      supply: { volts: 230, frequency: 50 },
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

/** The lead's conductors in the order motor, neutral, earth, end switch: their colours are fixed by the device type. */
function valveLead(layout: Layout, valve: string, label: string, motor: string): void {
  const to: Record<string, string> = { M: motor, N: 'N', E: 'E', SF: 'L', SO: 'call' }
  const cores = deviceType('two-port-valve').terminals.map((t) => ({ terminal: t.id, colour: t.lead!, to: to[t.id] }))
  layout.lead(`${valve}-lead`, `${label} lead`, valve, cores)
}

function demand(id: string, name: string, kind: Demand['kind'], thermostat: string, valve: string): Demand {
  return {
    id,
    name,
    kind,
    channel: { device: 'programmer', contact: kind },
    thermostat: { device: thermostat, contact: 'contact' },
    circuit: { valves: [{ device: valve }] },
    call: { boiler: 'boiler', input: 'SL' },
    companions: [],
    priority: 0,
  }
}
