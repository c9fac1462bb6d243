import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { Rig } from '../hypotheses'
import { actionsUntil, parseAction, type Action } from '../simulation'
import { recordingText, signalText, signalValueText } from '../wording'
import { partingsOf, recorded, shownBy, valueAt, type Recording } from '.'

const circuit = circuitOf('two-port-heating-hot-water')
const acts = (...texts: string[]): Action[] => texts.map(parseAction)
function recording(actions: readonly Action[], of = circuit): Recording {
  const run = recorded(of, actions)
  for (;;) {
    const next = run.next()
    if (next.done) return next.value
  }
}
const signal = (of: Recording, id: string) => of.signals.find((s) => s.id === id)!
const heating = acts('programmer.heating=on', 'stat-1.set=25', 'wait=2min', 'stat-1.set=10', 'wait=10min')

describe('a recording', () => {
  const run = recording(heating)

  it('has the course of every part: the valve travels, then its end switch makes, then the boiler is called and fires', () => {
    const made = signal(run, 'zv-1.end-switch').steps.find((s) => s.value === 1)!.at
    const opened = signal(run, 'zv-1.travel').steps.find((s) => s.value === 1)!.at
    const fired = signal(run, 'boiler.sequence').steps.find((s) => s.value === 'firing')!.at
    expect(made).toBeGreaterThan(1000)
    expect(opened).toBeGreaterThan(made)
    expect(fired).toBeGreaterThan(made)
    expect(signal(run, 'boiler.call').steps.map((s) => s.value)).toEqual([0, 1, 0])
  })

  it('counts burner starts, run times and what motors took to hold their valves', () => {
    expect(run.boilers).toEqual([{ boiler: 'boiler', starts: 1, ranMs: expect.any(Number) }])
    const { steps } = signal(run, 'boiler.sequence')
    const fired = steps.findIndex((s) => s.value === 'firing')
    expect(run.boilers[0].ranMs).toBe(steps[fired + 1].at - steps[fired].at)
    expect(run.ran.find((r) => r.device === 'pump')!.ms).toBeGreaterThan(run.boilers[0].ranMs)
    // A motor of some watts that held for less than two minutes.
    expect(run.heldWh).toBeGreaterThan(0.05)
    expect(run.heldWh).toBeLessThan(0.3)
    expect(recordingText(circuit, run)[0]).toMatch(/^Boiler starts once and runs \d+ s$/)
  })

  it('says at any moment what a simulation that went there shows', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: run.to }), (ms) => {
        const { simulation } = Rig.at(circuit, heating, ms)
        const sequence = signal(run, 'boiler.sequence')
        expect(valueAt(sequence, ms)).toBe(simulation.phase(0).phase)
        expect(valueAt(signal(run, 'boiler.call'), ms)).toBe(
          Number(simulation.loadEnergised(circuit.devices[circuit.deviceIndex.get('boiler')!].loadIndex.get('call')!)),
        )
        expect(Rig.after(circuit, actionsUntil(heating, ms)).simulation.time).toBe(simulation.time)
      }),
      { numRuns: 60 },
    )
  })

  it('has temperatures where they go their own way, with their units', () => {
    const day = recording(
      acts('programmer.heating=timed', 'stat-1.set=21', 'clock=mon-05:00', 'heat=semi/winter', 'wait=6h'),
    )
    const room = day.signals.find((s) => s.of.kind === 'room')!
    expect(room.steps.length).toBeGreaterThan(100)
    expect(signalText(circuit, room)).not.toBe('')
    expect(signalValueText(circuit, room, 18.24)).toBe('18.2 °C')
    expect(day.boilers[0].starts).toBeGreaterThan(0)
  })

  it('ends where the installation goes round and round', () => {
    const panel = circuitOf('relay-panel')
    const told = recording(
      acts('fault=exchanged relay-1-wires.green.0 relay-1-wires.yellow.0', 'stat-1.set=25', 'wait=60min'),
      panel,
    )
    expect(told.hunting).toBe(true)
    expect(told.to).toBeLessThan(60 * 60_000)
  })
})

describe('two histories', () => {
  it('part where the fault shows first, and what follows from it comes behind', () => {
    const run = acts('programmer.hot-water=on', 'cyl-stat.set=75', 'wait=2min')
    const partings = partingsOf(
      recording([{ do: 'fault', fault: 'zv-hw.end-switch.never-makes' }, ...run]),
      recording(run),
    )
    expect(partings.map((p) => p.signal.id)).toEqual([
      'zv-hw.end-switch',
      'boiler.call',
      'boiler.sequence',
      'pump.motor',
    ])
    expect(partings[0]).toMatchObject({ one: 0, other: 1 })
  })

  it('that are the same part nowhere', () => {
    expect(partingsOf(recording(heating), recording(heating))).toEqual([])
  })
})

describe('what something wrong shows', () => {
  const shown = (name: string) => shownBy(circuit, { name }).map(({ effect, when }) => ({ ...effect, when }))

  it('is told with how little it shows', () => {
    expect(shown('zv-hw.motor.open')).toEqual([{ is: 'unmet', demand: 'hot-water', when: 'alone' }])
    expect(shown('zv-hw.end-switch.stuck-made')).toEqual([
      { is: 'called-unasked', boiler: 'boiler', input: 'SL', when: 'nothing' },
    ])
    expect(shown('touching zv-1-lead.blue+brown')).toContainEqual({ is: 'fuse-blows', when: 'alone' })
  })
})
