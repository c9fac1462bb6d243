import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { information, type Candidate } from '../inference'
import type { WrittenLook } from '../looks'
import { advice, Hunt, usualHuntOptions, type HuntEntry } from '.'
import { twoAhead } from './two-ahead'

const circuit = circuitOf('single-zone-electric')

describe('looks in the order of what they tell, with another after them', () => {
  it('with the pump’s cover off, its winding is measured before its earth, which alone tells next to nothing', () => {
    const found: ({ see: WrittenLook; found: { word: string } } | { do: string })[] = [
      { see: { at: 'display', device: 'boiler' }, found: { word: 'idle' } },
      ...['programmer.heating=on', 'stat-1.set=30', 'settle'].map((act) => ({ do: act })),
      { see: { at: 'display', device: 'boiler' }, found: { word: 'lockout' } },
      { see: { at: 'fuse', device: 'boiler' }, found: { word: 'whole' } },
    ]
    const log: HuntEntry[] = [
      { id: 'said', says: { what: 'does-not-come-on', demand: 'heating-1' } },
      ...found.map((one, i) => ({ id: `${i}`, ...one })),
    ]
    const hunt = new Hunt(circuit)
    hunt.follow(log)
    const first = advice(hunt, log, 100).next.find(({ isolated }) => isolated)!
    expect(first.see).toMatchObject({ with: 'resistance', red: 'pump.L', black: 'pump.N' })
    expect(first.acts).toEqual(['spur.switch=off', 'own-circuit.switch=off', 'settle'])
  })

  it('has every look once; in one place, for the same time, none stands behind a first that tells less by itself', () => {
    const shares = Float64Array.of(0.4, 0.3, 0.2, 0.1)
    const told = (bit: readonly boolean[]): Candidate => ({
      minutes: 2,
      answers: new Map([
        ['yes', Float64Array.from(bit, (yes) => (yes ? 0.9 : 0.1))],
        ['no', Float64Array.from(bit, (yes) => (yes ? 0.1 : 0.9))],
      ]),
    })
    const someLooks = fc.array(fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }), { minLength: 2, maxLength: 6 })
    fc.assert(
      fc.property(someLooks, (bits) => {
        const looks = bits.map((bit, i) => {
          const candidate = told(bit)
          const see: WrittenLook = { at: 'points', with: 'tester', red: `wc.${i + 1}` }
          return { see, candidate, acts: [], minutes: 2, bits: information(shares, candidate) }
        })
        const ordered = twoAhead(circuit, [], usualHuntOptions, shares, looks)
        expect(ordered.length).toBe(looks.length)
        expect(new Set(ordered)).toEqual(new Set(looks))
        const best = Math.max(...looks.map((look) => look.bits))
        expect(ordered[0].bits).toBeGreaterThanOrEqual(best - 1e-9)
      }),
    )
  })
})
