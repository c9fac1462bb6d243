import fc from 'fast-check'
import { circuitOf, installationOf, rigAfter } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import type { Rig } from '../hypotheses'
import type { SimEvent } from '../simulation'
import { demandStates, signsOf } from '../trace'
import { nextBurner } from './burner'
import { firstAtLeastZero } from './crossing'
import { houseIds, weatherIds } from './houses'
import { Modes } from './modes'

const hours = (n: number) => n * 3_600_000
const sum = (values: Iterable<number>) => [...values].reduce((a, b) => a + b, 0)
const roomOf = ({ simulation }: Rig, n = 0) => simulation.heat!.celsius[simulation.heat!.lumps.rooms[n].lump]
const cylinderOf = ({ simulation }: Rig) => simulation.heat!.celsius[simulation.heat!.lumps.stores[0].lump]
const waterOf = ({ simulation }: Rig) => simulation.heat!.celsius[0]
const timed = ['programmer.heating=timed', 'programmer.hot-water=timed', 'stat-1.set=20']
const monday = ['clock=mon-05:00', 'heat=semi/winter']

describe('lumps of heat', () => {
  it('go on as stepping their equations in small steps says', () => {
    // Water, radiator, room; W/K between them and to an outdoors at 0 °C; 6 kW into the water.
    const capacities = Float64Array.from([5, 35, 4000])
    const laplacian = Float64Array.from([900, -900, 0, -900, 1000, -100, 0, -100, 310])
    const watts = Float64Array.from([6000, 0, 0])
    const course = new Modes(capacities, laplacian).from(Float64Array.from([20, 20, 17]), watts)
    const t = [20, 20, 17]
    const step = 1e-4
    let integral = 0
    for (let n = 0; n < 3 / step; n++) {
      integral += t[2] * step
      const flow = t.map((_, i) => watts[i] - t.reduce((all, x, j) => all + laplacian[i * 3 + j] * x, 0))
      flow.forEach((w, i) => (t[i] += (w / capacities[i]) * step))
    }
    course.at(3).forEach((celsius, i) => expect(celsius).toBeCloseTo(t[i], 2))
    expect(course.integral(3)[2]).toBeCloseTo(integral, 2)
  })

  it('of one alone reach a threshold when its exponential does', () => {
    // 100 Wh/K losing 10 W/K to 0 °C: 60 °C falls to 50 °C in 10 h · ln 1.2.
    const course = new Modes(Float64Array.of(100), Float64Array.of(10)).from(Float64Array.of(60), Float64Array.of(0))
    const below = course.sum(Float64Array.of(-1))
    expect(firstAtLeastZero((h) => below(h) + 50, 24)).toBeCloseTo(10 * Math.log(1.2), 6)
    expect(firstAtLeastZero((h) => below(h) + 50, 1)).toBe(Infinity)
  })

  it('bring in what they give off and keep, whatever is done', () => {
    const knobs = ['programmer.heating=on', 'programmer.hot-water=on', 'programmer.heating=off', 'stat-1.set=22']
    const all = [
      ...knobs,
      'cyl-stat.set=70',
      'hot-water-cylinder.draw=bath',
      'wait=20min',
      'wait=3h',
      'fault=pump.motor.jammed',
    ]
    fc.assert(
      fc.property(
        fc.constantFrom(...examples.map((e) => e.id)),
        fc.constantFrom(...houseIds),
        fc.constantFrom(...weatherIds),
        fc.array(fc.constantFrom(...all), { maxLength: 12 }),
        (id, house, weather, chosen) => {
          const circuit = circuitOf(id)
          const fits = chosen.filter((a) => {
            const [device, control] = a.split('=')[0].split('.')
            if (a.startsWith('fault=')) return circuit.deviceIndex.has('pump')
            if (control === undefined) return true
            const d = circuit.devices[circuit.deviceIndex.get(device) ?? -1]
            return d?.controlIndex.has(control) ?? false
          })
          const { ledger } = rigAfter(circuit, 'clock=wed-06:00', `heat=${house}/${weather}`, ...fits, 'wait=5h')
            .simulation.heat!
          const brought = sum(ledger.brought) + ledger.gains
          const went = sum(ledger.lost) + sum(ledger.storeLost) + ledger.drawn + ledger.stored
          const moved = sum(ledger.brought.map(Math.abs)) + ledger.gains + sum(ledger.lost.map(Math.abs))
          expect(Math.abs(brought - went)).toBeLessThan(0.001 * moved)
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('a burner', () => {
  const sees = {
    before: 'off',
    mayHeat: true,
    aim: 70,
    carried: true,
    celsius: 50,
    needed: 8000,
    most: 18_000,
    least: 5000,
  } as const
  const next = (change: Partial<Parameters<typeof nextBurner>[0]>) => nextBurner({ ...sees, ...change }).burner

  it('heats at full to its aim, holds it while what is needed lies between its least and its most, else rests', () => {
    expect(next({})).toBe('full')
    expect(next({ celsius: 70 })).toBe('holds')
    expect(next({ celsius: 70, needed: 3000 })).toBe('rests')
    expect(next({ celsius: 70, needed: 20_000 })).toBe('full')
  })

  it('that rests starts again six kelvin below its aim, and rests at once when its aim is lowered', () => {
    expect(next({ before: 'rests', celsius: 65 })).toBe('rests')
    expect(next({ before: 'rests', celsius: 64 })).toBe('full')
    expect(next({ celsius: 70, aim: 50, needed: 20_000 })).toBe('rests')
  })

  it('without flow goes on at its least, and without leave is off', () => {
    expect(nextBurner({ ...sees, celsius: 80, carried: false })).toEqual({ burner: 'blind', watts: 5000 })
    expect(next({ mayHeat: false, carried: false })).toBe('off')
    expect(next({ aim: undefined, celsius: 90 })).toBe('full')
  })
})

describe('a day', () => {
  const events = (rig: Rig, test: (e: SimEvent) => boolean) =>
    rig.simulation.history.filter(test).map((e) => e.time / hours(1) + 5)

  it('of a two-port system: the cylinder is satisfied first, heating goes on alone, and at night nothing runs', () => {
    const rig = rigAfter(circuitOf('two-port-heating-hot-water'), ...timed, ...monday, 'wait=4h')
    const shut = (device: string) =>
      events(rig, (e) => e.kind === 'travel' && e.device === device && e.motion === 'closing')
    const [cylinderDone] = shut('zv-hw')
    const [heatingDone] = shut('zv-1')
    expect(cylinderDone).toBeGreaterThan(6.2)
    expect(cylinderDone).toBeLessThan(7.6)
    expect(heatingDone).toBeGreaterThan(cylinderDone)
    rig.simulation.run(hours(13))
    // By the evening the room is as warm as was asked, within the thermostat's differential.
    expect(roomOf(rig)).toBeGreaterThan(19.3)
    expect(roomOf(rig)).toBeLessThan(21)
    rig.simulation.run(hours(4))
    expect(signsOf(rig.simulation)).toMatchObject({ warm: [], working: [] })
    expect(demandStates(rig.simulation).map((d) => d.word)).toEqual(['not-asked', 'not-asked'])
  })

  it('of a mid-position system: from mid to A when the cylinder is satisfied', () => {
    const rig = rigAfter(circuitOf('mid-position'), ...timed, ...monday, 'wait=4h')
    const moves = rig.simulation.history.flatMap((e) =>
      e.kind === 'travel' && e.device === 'valve' && ['open', 'held', 'shut'].includes(e.motion) ? [e.motion] : [],
    )
    // Hot water from 6 alone: at B. Heating from 6:30 as well: held. Cylinder satisfied: on to A.
    expect(moves.slice(0, 2)).toEqual(['held', 'open'])
  })

  it('under hot-water priority: heating waits for the cylinder, at its own flow temperature afterwards', () => {
    const rig = rigAfter(
      circuitOf('hot-water-priority'),
      ...timed,
      'programmer.heating=on',
      'stat-2.set=20',
      ...monday,
      'wait=75min',
    )
    expect(signsOf(rig.simulation).warm).toEqual(['hot-water'])
    expect(waterOf(rig)).toBeGreaterThan(62)
    // Before seven, when somebody draws water and the cylinder goes first again.
    rig.simulation.run(hours(0.7))
    expect(signsOf(rig.simulation).warm).toEqual(['heating-1', 'heating-2'])
    expect(waterOf(rig)).toBeLessThanOrEqual(60.01)
  })

  it.each(examples.map((e) => e.id))('of %s brings every space that is asked for to what is asked', (id) => {
    const circuit = circuitOf(id)
    const on = circuit.devices.flatMap(({ device, type }) =>
      type.controls.flatMap((c) => {
        if (c.kind === 'choice' && c.timed && !c.timed.turns) return [`${device.id}.${c.id}=on`]
        if (c.kind === 'number' && c.id === 'set' && c.max === 30) return [`${device.id}.set=20`]
        return []
      }),
    )
    const rig = rigAfter(circuit, ...on, 'heat=semi/winter', 'wait=20h')
    expect(rig.simulation.hunting).toBe(false)
    rig.simulation.heat!.lumps.rooms.forEach((_, n) => expect(roomOf(rig, n)).toBeGreaterThan(18.4))
    if (rig.simulation.heat!.lumps.stores.length > 0) expect(cylinderOf(rig)).toBeGreaterThan(44)
  })
})

describe('heat', () => {
  it('without flow overheats a boiler, which locks itself out', () => {
    const rig = rigAfter(
      circuitOf('two-port-heating'),
      'programmer.heating=on',
      'stat-1.set=25',
      ...monday,
      'wait=20min',
    )
    expect(rig.simulation.phase(0).phase).toBe('firing')
    const before = waterOf(rig)
    rig.perform({ do: 'fault', fault: 'pump.motor.jammed' })
    rig.simulation.run(180_000)
    expect(rig.simulation.phase(0).phase).toBe('lockout')
    // 5 kW into 5 Wh/K: 1 K every 3.6 s, from where it stood to 95 °C.
    const at = rig.simulation.history.findLast((e) => e.kind === 'phase')!.time - hours(1 / 3)
    expect(at / 1000).toBeCloseTo((95 - before) * 3.6, 0)
  })

  it('is brought at a flow temperature that an outdoor sensor lowers, but not for hot water', () => {
    const doc = installationOf('hot-water-priority')
    doc.devices.find((d) => d.id === 'boiler')!.settings = { compensation: 1 }
    const circuit = compile(doc)
    const warmest = (weather: string, ...actions: string[]) => {
      const rig = rigAfter(circuit, ...actions, 'clock=mon-12:00', `heat=semi/${weather}`)
      let most = 0
      for (let n = 0; n < 60; n++) {
        rig.simulation.run(60_000)
        most = Math.max(most, waterOf(rig))
      }
      return most
    }
    const heating = ['programmer.heating=on', 'stat-1.set=25', 'stat-2.set=25']
    // 20 + 1.6·(20 − t), t at noon 6.1 °C in winter and 13.5 °C in spring; at most the 60 °C that are set.
    expect(warmest('winter', ...heating)).toBeCloseTo(42.2, 0)
    expect(warmest('spring', ...heating)).toBeLessThan(33)
    expect(warmest('spring', 'programmer.hot-water=on', 'cyl-stat.set=75')).toBeGreaterThan(70)
  })

  it('of an immersion heater makes hot water that nobody called', () => {
    const rig = rigAfter(circuitOf('unvented'), 'heat=semi/winter', 'wait=6h')
    expect(cylinderOf(rig)).toBeGreaterThan(50)
    expect(demandStates(rig.simulation).find((d) => d.demand.id === 'hot-water')!.word).toBe('not-asked')
    expect(sum(rig.simulation.heat!.ledger.brought)).toBeGreaterThan(1500)
  })

  it('goes with the water that is drawn, and a high limit trips by it', () => {
    const rig = rigAfter(circuitOf('unvented'), 'heat=semi/winter', 'wait=4h')
    const before = cylinderOf(rig)
    rig.perform({ do: 'set', device: 'hot-water-cylinder', control: 'draw', value: 'bath' })
    rig.simulation.run(600_000)
    // 100 l at 10 °C through 180 l, mixed: e^(−100/180) of what it had above the main, and a little heat from the element.
    expect(cylinderOf(rig)).toBeGreaterThan(10 + (before - 10) * Math.exp(-100 / 180) - 0.5)
    expect(cylinderOf(rig)).toBeLessThan(10 + (before - 10) * Math.exp(-100 / 180) + 4)
    const hot = rigAfter(
      circuitOf('unvented'),
      'immersion.set=75',
      'fault=immersion.contact.stuck-made',
      'heat=semi/winter',
      'wait=12h',
    )
    expect(hot.simulation.control('high-limit', 'reset')).toBe('tripped')
  })
})
