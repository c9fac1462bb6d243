import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { nth } from '../lists'
import { Simulation } from '../simulation'
import { advice, Course, Hunt, looksAt, type HuntEntry } from '.'
import { Foresight } from './foresight'

const circuit = circuitOf('two-port-heating-hot-water')
const looks = looksAt(circuit).map((see) => ({ see, key: JSON.stringify(see) }))
const moments = [undefined, 'wait=40s', 'settle']
const acts = [
  'programmer.heating=on',
  'programmer.heating=off',
  'stat-1.set=30',
  'stat-1.set=5',
  'programmer.hot-water=on',
  'cyl-stat.set=75',
  'spur.switch=off',
  'wait=10s',
  'settle',
]

describe('what is foreseen', () => {
  it('is what is seen once it is done, whatever was asked before and in whatever order', () => {
    const act = fc.constantFrom(...acts)
    const question = fc.record({
      done: fc.array(act, { maxLength: 1 }),
      ahead: fc.array(act, { maxLength: 2 }),
      moment: fc.nat(moments.length - 1),
      look: fc.nat(looks.length - 1),
    })
    fc.assert(
      fc.property(fc.array(question, { minLength: 2, maxLength: 12 }), (questions) => {
        const course = new Course(new Simulation(circuit))
        for (const { done, ahead, moment, look } of questions) {
          done.forEach((text) => course.act(text))
          const fork = course.fork()
          ahead.forEach((text) => fork.act(text))
          for (const then of moments.slice(0, moment + 1)) if (then !== undefined) fork.act(then)
          const foresight = course.foresee(ahead, moments)
          expect(foresight.isAtRest(moment)).toBe(fork.sim.nextEventAt() === Infinity)
          expect(foresight.shows(moment, nth(looks, look))).toEqual(fork.shows(nth(looks, look).see))
          if (look % 2 === 0) foresight.rest()
        }
      }),
      { numRuns: 60 },
    )
  })

  it('is gone along for once: what was asked before is told without', () => {
    let forks = 0
    const done: string[] = []
    const begin = () => {
      forks++
      const own: string[] = []
      return {
        act: (text: string) => void (own.push(text), done.push(text)),
        shows: () => own.join(),
        sim: { nextEventAt: () => Infinity },
      }
    }
    const foresight = new Foresight(begin, moments)
    const all = () => moments.flatMap((_, m) => looks.slice(0, 3).map((look) => foresight.shows(m, look)))
    const first = all()
    foresight.rest()
    expect(all()).toEqual(first)
    expect([forks, done]).toEqual([1, ['wait=40s', 'settle']])
    expect(first.at(-1)).toBe('wait=40s,settle')
  })

  it('is forgotten with every act: a hunt that went along with the log advises as one that has only just read it', () => {
    const log: HuntEntry[] = [{ id: 'c', says: { what: 'does-not-come-on', demand: 'heating-1' } }]
    const hunt = new Hunt(circuit)
    for (let turn = 0; turn < 4; turn++) {
      hunt.follow(log)
      const fresh = new Hunt(circuit)
      fresh.follow(log)
      const { next } = advice(hunt, log, 5)
      expect(next).toEqual(advice(fresh, log, 5).next)
      const [{ acts: own, see, outcomes }] = next
      for (const text of own) log.push({ id: `e${log.length}`, do: text })
      log.push({ id: `e${log.length}`, see, found: nth(outcomes, 0).found })
    }
  })
})
