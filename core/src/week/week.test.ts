import { circuitOf, installationOf } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import { liveThrough, livedIn, spansOfDay, timedWeeks, withDay, withPosition, withProgramme, type WeekResult } from '.'

function lived(circuit = circuitOf('two-port-heating-hot-water'), days = 1, actions = livedIn(circuit.installation)) {
  const run = liveThrough(circuit, { scenario: { house: 'semi', weather: 'winter' }, actions, days })
  const progress: number[] = []
  for (;;) {
    const next = run.next()
    if (next.done) return { progress, week: next.value }
    progress.push(next.value)
  }
}
const minutes = (spans: { from: number; to: number }[]) => spans.reduce((sum, s) => sum + s.to - s.from, 0)
const brought = ({ energy }: WeekResult) => energy.brought.reduce((sum, b) => sum + b.kWh, 0)

describe('a week lived through', () => {
  it('says how far it is every hour, and can be left at any', () => {
    const { progress, week } = lived()
    expect(progress).toHaveLength(24)
    expect(progress[23]).toBe(1)
    expect(week.minutes[week.minutes.length - 1]).toBe(1440)
  })

  it('calls only while a channel is timed on, warms what is wanted, and keeps its books', () => {
    const { week } = lived()
    const [heating, water] = week.demands
    for (const { from, to } of heating.wanted) expect(from >= 390 && to <= 1355).toBe(true)
    expect(minutes(water.warm)).toBeGreaterThan(20)
    expect(minutes(week.fires[0].spans)).toBeGreaterThan(180)
    const { gains, lost, cylinders, drawn, stored } = week.energy
    const went = lost.reduce((sum, l) => sum + l.kWh, 0) + cylinders + drawn + stored
    expect(brought(week) + gains).toBeCloseTo(went, 2)
    expect(week.notes).toEqual([])
  })

  it.each(examples.map((e) => e.id))('on %s brings no surprise in two days', (id) => {
    const { week } = lived(circuitOf(id), 2)
    // By gravity the cylinder goes on taking what the boiler still holds.
    expect(week.notes.filter((n) => id !== 'gravity' || n.note !== 'unasked')).toEqual([])
    expect(Math.min(...week.rooms.flatMap((r) => r.celsius))).toBeGreaterThan(9)
  })

  it('tells of a boiler that locked itself out and of water that warms unasked', () => {
    const circuit = circuitOf('two-port-heating-hot-water')
    const actions = livedIn(circuit.installation)
    const faulty = (fault: string) => lived(circuit, 1, [...actions, { do: 'fault', fault }]).week.notes
    expect(faulty('pump.motor.jammed')).toMatchObject([{ note: 'lockout', device: 'boiler' }])
    expect(faulty('zv-1.outlet.passes')).toMatchObject([{ note: 'unasked', demand: 'heating-1' }])
  })

  it('starts where the document leaves its knobs', () => {
    const doc = withPosition(installationOf('two-port-heating-hot-water'), 'programmer', 'heating', 'off')
    const circuit = compile(doc)
    const { week } = lived(circuit)
    expect(week.demands[0].wanted).toEqual([])
    expect(week.demands[1].wanted.length).toBeGreaterThan(0)
  })
})

describe('the week of a clock', () => {
  const doc = installationOf('two-port-heating-hot-water')

  it('is changed for one control of one device and put back', () => {
    const [heating] = timedWeeks(doc)
    expect(heating).toMatchObject({ usual: true, control: { id: 'heating' } })
    const changed = withProgramme(
      doc,
      'programmer',
      'heating',
      withDay(heating.programme, 0, [{ minute: 60, value: 'on' }]),
    )
    const [now, other] = timedWeeks(changed)
    expect(now.usual).toBe(false)
    expect(other.usual).toBe(true)
    expect(withProgramme(changed, 'programmer', 'heating', undefined)).toEqual(doc)
  })

  it('shows on each day what went on from the day before', () => {
    const programme = [
      { day: 6, minute: 1380, value: 'on' },
      { day: 0, minute: 60, value: 'off' },
    ]
    expect(spansOfDay(programme, 0)).toEqual([
      { from: 0, to: 60, value: 'on' },
      { from: 60, to: 1440, value: 'off' },
    ])
    expect(spansOfDay(programme, 3)).toEqual([{ from: 0, to: 1440, value: 'off' }])
    expect(
      withDay(programme, 0, [
        { minute: 90, value: 'on' },
        { minute: 90, value: 'off' },
      ]),
    ).toContainEqual({
      day: 0,
      minute: 90,
      value: 'off',
    })
  })
})
