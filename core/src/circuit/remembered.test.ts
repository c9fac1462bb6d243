import fc from 'fast-check'
import { Remembered } from './remembered'

describe('what is remembered by bytes', () => {
  it('is worked out once while there is room', () => {
    const made: string[] = []
    const memory = new Remembered<string>(10_000, (v) => v.length)
    const ask = (key: string) => memory.get(key, () => (made.push(key), key.toUpperCase()))
    expect(['a', 'b', 'a', 'b'].map(ask)).toEqual(['A', 'B', 'A', 'B'])
    expect(made).toEqual(['a', 'b'])
  })

  it('never takes more than it may, and always gives the right answer', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(60), { maxLength: 400 }), fc.integer({ min: 500, max: 5000 }), (asked, most) => {
        const memory = new Remembered<number[]>(most, (v) => 8 * v.length)
        for (const n of asked) {
          expect(memory.get(`k${n}`, () => [n, n])).toEqual([n, n])
          expect(memory.bytes).toBeLessThanOrEqual(most)
        }
      }),
    )
  })

  it('forgets first what was asked for longest ago', () => {
    const made: number[] = []
    const memory = new Remembered<number>(1000, () => 16)
    const ask = (n: number) => memory.get(String(n), () => (made.push(n), n))
    // One that is asked for again and again stays, whatever else comes.
    for (let n = 1; n <= 100; n++) {
      ask(0)
      ask(n)
    }
    expect(made.filter((n) => n === 0)).toHaveLength(1)
    ask(1)
    expect(made.filter((n) => n === 1)).toHaveLength(2)
  })
})
