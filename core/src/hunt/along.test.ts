import { circuitOf } from '../../testing'
import { Hunt, type HuntEntry } from '.'

it('a remedy leaves pipes as warm as they were, whatever was mended: a part, a conductor that was off, one that lay elsewhere', () => {
  const acts = ['programmer.hot-water=on', 'cyl-stat.set=75', 'settle', 'wait=2min', 'cyl-stat.set=40', 'settle']
  const ran = acts.map((text, i): HuntEntry => ({ id: `a${i}`, do: text }))
  const hunt = new Hunt(circuitOf('two-port-heating-hot-water'))
  hunt.follow(ran)
  const warm = (id: string) =>
    hunt.courseOf(hunt.suspects.findIndex((s) => s.id === id)).shows({ at: 'pipe', connection: 'zv-hw.out' }).expected
  const besideIt = hunt.singles.filter(
    ({ id, hypothesis }) => hypothesis && /(^|[ +])(stat-1|zv-1)[.-]/.test(id) && 'word' in (warm(id) as object),
  )
  const some = [...new Map(besideIt.map((one) => [one.hypothesis!.kind, one])).values()]
  expect(some.length).toBeGreaterThan(3)
  const before = new Map(some.map(({ id }) => [id, warm(id)]))
  expect([...before.values()]).toContainEqual({ word: 'hot' })
  for (const { id } of some) {
    hunt.follow([...ran, { id: 'mended', mended: id }])
    expect([id, warm(id)]).toEqual([id, before.get(id)])
  }
})
