import { circuitOf } from '../../testing'
import { hypothesesOf, restOf } from '../hypotheses'
import type { WrittenLook } from '../looks'
import { Course } from './course'

/** Of an example with this wrong, asked so: what a look comes by on its round. */
function onItsRound(example: string, wrong: string, acts: readonly string[], see: WrittenLook): Set<string> {
  const circuit = circuitOf(example)
  const course = new Course(restOf(circuit, hypothesesOf(circuit).find(({ id }) => id === wrong)!.variant))
  for (const act of acts) course.act(act)
  const { expected, beside, even } = course.shows(see)
  expect(even).toBe(true)
  return new Set([expected, ...beside].map((one) => JSON.stringify(one)))
}

describe('what goes round and round', () => {
  const [feed, call] = ['moved zv-1-cable.red.0 zv-1.M', 'moved zv-1-cable.white.0 zv-1.F']

  it.each([feed, call])(
    'of a relay that chatters is seen made as well as open, however short its round: %s',
    (wrong) => {
      const seen = (see: WrittenLook) => onItsRound('relay-panel', wrong, ['stat-1.set=30', 'settle'], see)
      expect(seen({ at: 'boiler', device: 'boiler' })).toEqual(new Set(['{"word":"called"}', '{"word":"not-called"}']))
      expect(seen({ at: 'points', with: 'tester', red: 'transformer.V' }).size).toBeGreaterThan(1)
    },
  )

  it('that is slow is seen at moments far apart: a valve that hunts between two positions, the power with it', () => {
    const acts = ['programmer.hot-water=on', 'cyl-stat.set=75', 'settle']
    const power: WrittenLook = { at: 'points', with: 'power', red: 'spur.L' }
    expect(onItsRound('mid-position', 'valve.s2.stuck-operated', acts, power).size).toBeGreaterThan(1)
  })
})
