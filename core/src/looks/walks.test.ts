import fc from 'fast-check'
import { walkMinutes } from '.'

const places = [
  { id: 'plant', name: 'Loft', floor: 2 },
  { id: 'hall', name: 'Hall', floor: 0 },
  { id: 'landing', name: 'Landing', floor: 1 },
  { id: 'barn', name: 'Barn', floor: 0, apartMin: 4 },
  { id: 'somewhere', name: 'Somewhere' },
]
const walk = (from: string | undefined, to: string) => walkMinutes({ places }, from, to)

describe('the way from place to place', () => {
  it('takes a minute, a minute more for each floor, and what a place lies apart', () => {
    expect(walk('hall', 'landing')).toBe(2)
    expect(walk('plant', 'hall')).toBe(3)
    expect(walk('hall', 'barn')).toBe(5)
    expect(walk('plant', 'barn')).toBe(7)
  })

  it('counts no floors where one of them is not told', () => {
    expect(walk('plant', 'somewhere')).toBe(1)
    expect(walk(undefined, 'plant')).toBe(1)
    expect(walk(undefined, 'barn')).toBe(5)
  })

  it('is as long back as there, and nothing to where one is', () => {
    const anywhere = fc.constantFrom(...places.map(({ id }) => id))
    fc.assert(
      fc.property(anywhere, anywhere, (a, b) => {
        expect(walk(a, b)).toBe(walk(b, a))
        expect(walk(a, a)).toBe(0)
      }),
    )
  })
})
