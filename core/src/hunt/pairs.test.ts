import { circuitOf } from '../../testing'
import { restOf, variantOf } from '../hypotheses'
import { lookAt, type Found, type Look } from '../looks'
import { Simulation } from '../simulation'
import { Course, Hunt, pairsOf, type HuntEntry } from '.'

const circuit = circuitOf('two-port-heating-hot-water')
const hunt = new Hunt(circuit)
const truths = ['zv-1.motor.open', 'zv-hw.end-switch.never-makes']

/** Both services tried alone, on an installation in which both valves have failed. */
function bothTried(): HuntEntry[] {
  const causes = truths.map((id) => hunt.suspects.find((s) => s.id === id)!.hypothesis!)
  const course = new Course(restOf(circuit, variantOf(causes), new Simulation(circuit)))
  const log: HuntEntry[] = []
  const done = (...acts: string[]) => {
    for (const act of acts) {
      course.act(act)
      log.push({ id: `e${log.length}`, do: act })
    }
  }
  const seen = (...looks: Look[]) => {
    for (const look of looks) {
      const shown = lookAt(course.sim, look)
      const found = 'full' in shown ? { value: shown.value, unit: 'V' } : shown
      log.push({ id: `e${log.length}`, see: look as never, found: found as Found })
    }
  }
  const boiler: Look = { at: 'boiler', device: 'boiler' }
  const volts = (red: string): Look => ({ at: 'points', with: 'tester', red })
  done('programmer.heating=on', 'stat-1.set=30', 'settle')
  seen({ at: 'lever', device: 'zv-1' }, boiler, volts('wc.21'))
  done('programmer.heating=off', 'stat-1.set=5', 'programmer.hot-water=on', 'cyl-stat.set=75', 'settle')
  seen({ at: 'lever', device: 'zv-hw' }, boiler, volts('wc.25'))
  return log
}

describe('two causes at once', () => {
  const log = bothTried()

  it('are found where one alone does not explain it; as far as has been looked is told', () => {
    hunt.follow(log)
    const [first] = pairsOf(hunt, log)
    expect(first.best[0].ids).toEqual(truths)
    expect(first.lookedAt).toBeGreaterThan(0.01)
    expect(first.lookedAt).toBeLessThan(0.5)
    expect(first.done).toBe(40)
    expect(first.of).toBeGreaterThan(40_000)
    const shares = first.best.map((p) => p.share)
    expect(shares).toEqual([...shares].sort((x, y) => y - x))
    expect(first.share).toBeLessThan(1)
  })

  it('weigh little where one alone explains everything', () => {
    const one = log.slice(0, 6)
    hunt.follow(one)
    const [first] = pairsOf(hunt, one)
    expect(first.share).toBeLessThan(0.1)
  })

  it('are looked at as many as are asked for, and what came before stays', () => {
    hunt.follow(log)
    const all = [...pairsOf(hunt, log, 60)]
    expect(all.map((p) => [p.done, p.of])).toEqual([
      [40, 60],
      [60, 60],
    ])
    expect(all[1].lookedAt).toBeGreaterThan(all[0].lookedAt)
  })

  it('are the one that is left where the other has been mended', () => {
    const mended: HuntEntry[] = [...log, { id: 'new-head', mended: 'zv-1.motor.open' }]
    const after: HuntEntry[] = [
      ...mended,
      { id: 'on', do: 'programmer.heating=on' },
      { id: 'up', do: 'stat-1.set=30' },
      { id: 'rest', do: 'settle' },
      { id: 'lever', see: { at: 'lever', device: 'zv-1' }, found: { word: 'slack' } },
    ]
    hunt.follow(after)
    const [first] = pairsOf(hunt, after)
    expect(first.best[0].ids).toEqual(truths)
    expect(first.best[0].share).toBeGreaterThan(0.1)
  })
})
