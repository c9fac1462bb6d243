import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { toPutBack, wholeAfter, type HuntEntry } from '.'

const circuit = circuitOf('two-port-heating-hot-water')
const log = (...acts: string[]): HuntEntry[] => acts.map((act, i) => ({ id: `${i}`, do: act }))

describe('what is to be put back', () => {
  it('is what stands otherwise than the document has it: wiring first, then switches and dials, each as the act that does it', () => {
    expect(toPutBack(circuit, [])).toEqual([])
    expect(toPutBack(circuit, log('programmer.heating=on', 'stat-1.set=30', 'link=wc.1+wc.20', 'settle'))).toEqual([
      'unlink=wc.1+wc.20',
      'programmer.heating=off',
      expect.stringMatching(/^stat-1\.set=/),
    ])
  })

  it('is nothing once each of it was done; a lever that was latched by itself is none of it', () => {
    const acts = log('off-plate=programmer', 'spur.switch=off', 'zv-1.lever=latched')
    const back = toPutBack(circuit, acts)
    expect(back).toEqual(['on-plate=programmer', 'spur.switch=on'])
    expect(toPutBack(circuit, [...acts, ...log(...back)])).toEqual([])
  })

  it('of a log with lines that do not fit is told of the others', () => {
    const odd = log('unlink=wc.1+wc.20', 'attic.heating=on', 'programmer.heating=on', 'on-plate=nobody')
    expect(toPutBack(circuit, odd)).toEqual(['programmer.heating=off'])
    expect(wholeAfter(circuit, odd).control('programmer', 'heating')).toBe('on')
  })

  it('whatever was done, doing it leaves nothing', () => {
    const act = fc.constantFrom(
      'programmer.heating=on',
      'programmer.heating=off',
      'stat-1.set=30',
      'spur.switch=off',
      'link=wc.1+wc.20',
      'unlink=wc.1+wc.20',
      'off-plate=programmer',
      'on-plate=programmer',
      'settle',
      'wait=40s',
    )
    fc.assert(
      fc.property(fc.array(act, { maxLength: 14 }), (acts) => {
        const done = log(...acts)
        expect(toPutBack(circuit, [...done, ...log(...toPutBack(circuit, done))])).toEqual([])
      }),
    )
  })
})
