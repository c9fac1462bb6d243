import fc from 'fast-check'
import type { End, Installation } from '../installation'
import { terminalOf } from './kept'
import { planSystem } from './plan'
import { planBriefSchema } from './plan-brief'

const house = {
  scheme: 'two-port',
  circuits: [
    { kind: 'heating', name: 'House' },
    { kind: 'hot-water', name: 'Hot water' },
  ],
  terminals: 'strip-12',
}
const planned = (kept: Record<string, string> = {}, more: object = {}) =>
  planSystem(planBriefSchema.parse({ ...house, kept, ...more }), 'plan', 'Plan')

/** Of each conductor all that it meets in a terminal or over links, whatever these are called. */
const joins = (doc: Installation): string[] =>
  doc.cables.flatMap(({ id, cores }) =>
    cores.map((core) => {
      const meets = doc.cables.flatMap((cable) =>
        cable.cores
          .filter((other) => core.ends.some((a) => other.ends.some((b) => isOneNet(doc, a, b))))
          .map((other) => `${cable.id}.${other.id}`),
      )
      return `${id}.${core.id}: ${meets.sort().join(' ')}`
    }),
  )
const isOneNet = (doc: Installation, a: End, b: End): boolean =>
  'terminal' in a && 'terminal' in b && linked(doc, a.terminal, b.terminal)
function linked({ links }: Installation, a: string, b: string): boolean {
  const seen = new Set([a])
  for (const at of seen)
    for (const { between } of links) if (between.includes(at)) between.forEach((ref) => seen.add(ref))
  return seen.has(b)
}

describe('a conductor that is kept where it is', () => {
  it('stays there when the plan is made again, with what it is joined with, and nothing is joined otherwise', () => {
    const before = planned()
    expect(terminalOf(before, 'boiler-cable.black.1')).toBe('wc.11')
    const after = planned({ 'boiler-cable.black.1': 'wc.2' })
    expect(terminalOf(after, 'boiler-cable.black.1')).toBe('wc.2')
    expect(terminalOf(after, 'zv-1-lead.orange.1')).toBe('wc.2')
    expect(after.wiringCentres[0].terminals[1].legend).toBe('Boiler call')
    expect(joins(after)).toEqual(joins(before))
  })
  it('stays there when one answer is another', () => {
    const after = planned({ 'boiler-cable.black.1': 'wc.2' }, { cable: 'only-needed', cylinder: 'vented' })
    expect(terminalOf(after, 'boiler-cable.black.1')).toBe('wc.2')
  })
  it('gives way where another one is kept in its terminal, and where it or its terminal is no more', () => {
    const kept = {
      'boiler-cable.black.1': 'wc.2',
      'cyl-stat-cable.brown.1': 'wc.2',
      'gone.red.0': 'wc.3',
      'supply.blue.1': 'wc.40',
    }
    const after = planned(kept)
    expect(terminalOf(after, 'boiler-cable.black.1')).toBe('wc.2')
    expect(terminalOf(after, 'cyl-stat-cable.brown.1')).not.toBe('wc.2')
    expect(joins(after)).toEqual(joins(planned()))
  })
  it('whichever they are, joins nothing otherwise, and is the same plan each time', () => {
    const ends = planned().cables.flatMap(({ id, cores }) => cores.map((core) => `${id}.${core.id}.1`))
    const keeps = fc.dictionary(
      fc.constantFrom(...ends),
      fc.integer({ min: 1, max: 12 }).map((n) => `wc.${n}`),
      { maxKeys: 5 },
    )
    const plain = joins(planned())
    fc.assert(
      fc.property(keeps, (kept) => {
        expect(joins(planned(kept))).toEqual(plain)
        expect(planned(kept)).toEqual(planned(kept))
      }),
      { numRuns: 40 },
    )
  })
})
