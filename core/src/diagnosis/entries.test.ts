import { circuitOf } from '../../testing'
import { Hunt, type HuntEntry } from '../hunt'
import { entriesOf, fitsCircuit, observationSchema, type Observation } from '.'

const circuit = circuitOf('two-port-heating-hot-water')
const heating = ['programmer.heating', 'stat-1.contact']
const older: (Observation & { id: string })[] = [
  { id: 'finding-1', asking: heating, observable: { kind: 'boiler', device: 'boiler' }, result: 'not-called' },
  { id: 'finding-2', asking: heating, observable: { kind: 'valve', device: 'zv-1' }, result: 'shut' },
  { id: 'finding-3', asking: [], observable: { kind: 'terminal', terminal: 'wc.19' }, result: 'cannot-do' },
]

describe('a finding of the older kind', () => {
  it('is read as what was set and seen: only what stood otherwise is set, and everything comes to rest', () => {
    const log = older.reduce<HuntEntry[]>((before, one) => [...before, ...entriesOf(circuit, one, before)], [])
    expect(log).toEqual([
      { id: 'finding-1-0', do: 'programmer.heating=on' },
      { id: 'finding-1-1', do: 'stat-1.set=30' },
      { id: 'finding-1-2', do: 'cyl-stat.set=40' },
      { id: 'finding-1-3', do: 'settle' },
      { id: 'finding-1', see: { at: 'boiler', device: 'boiler' }, found: { word: 'not-called' } },
      { id: 'finding-2', see: { at: 'valve', device: 'zv-1' }, found: { word: 'shut' } },
      { id: 'finding-3-0', do: 'programmer.heating=off' },
      { id: 'finding-3-1', do: 'stat-1.set=5' },
      { id: 'finding-3-2', do: 'settle' },
      { id: 'finding-3', see: { at: 'points', with: 'tester', red: 'wc.19' }, found: 'cannot-do' },
    ])
    const hunt = new Hunt(circuit)
    expect(hunt.misfits(log)).toEqual([])
    hunt.follow(log)
    expect(hunt.findings.map(({ id }) => id)).toEqual(['finding-1', 'finding-2'])
  })

  it('fits only where what was looked at, and set, is there', () => {
    expect(older.every((one) => fitsCircuit(circuit, one))).toBe(true)
    expect(fitsCircuit(circuit, { ...older[1], observable: { kind: 'valve', device: 'zv-9' } })).toBe(false)
    expect(fitsCircuit(circuit, { ...older[1], asking: ['programmer.attic'] })).toBe(false)
  })

  it('takes only answers that fit the look', () => {
    expect(observationSchema.safeParse({ ...older[0], id: undefined, result: 'live' }).success).toBe(false)
  })
})
