import fc from 'fast-check'
import { entrySchema, huntAfter, isHuntDeed, noHunt, type HuntDeed, type HuntLine, type HuntRecord } from '.'

const at = '2026-11-27T07:00:00.000Z'
const line = (id: string, act = 'programmer.heating=on', note = ''): HuntLine => ({ entry: { id, do: act }, at, note })
const put = (...ids: string[]): HuntDeed => ({ do: 'hunt', lines: ids.map((id) => line(id)) })
const idsAfter = (...deeds: HuntDeed[]) => deeds.reduce(huntAfter, noHunt).lines.map(({ entry }) => entry.id)

describe('what is recorded of a hunt', () => {
  it('goes to the end, or before a line; what is written again stands where it stood', () => {
    expect(idsAfter(put('a', 'b'), put('c'))).toEqual(['a', 'b', 'c'])
    expect(idsAfter(put('a', 'b'), { ...put('c'), before: 'b' } as HuntDeed)).toEqual(['a', 'c', 'b'])
    const again = huntAfter(huntAfter(noHunt, put('a', 'b')), { do: 'hunt', lines: [line('a', 'settle', 'twice')] })
    expect(again.lines).toEqual([line('a', 'settle', 'twice'), line('b')])
  })

  it('is moved before another line, and goes to the end where that one is gone', () => {
    expect(idsAfter(put('a', 'b', 'c'), { ...put('c'), before: 'a' } as HuntDeed)).toEqual(['c', 'a', 'b'])
    expect(idsAfter(put('a', 'b', 'c'), { ...put('a'), before: 'gone' } as HuntDeed)).toEqual(['b', 'c', 'a'])
  })

  it('is taken back; the hunt ends, and goes on after all', () => {
    expect(idsAfter(put('a', 'b', 'c'), { do: 'unhunt', lines: ['b', 'gone'] })).toEqual(['a', 'c'])
    const finding = {
      id: 'finding-1',
      at,
      causes: [{ id: 'x', label: 'X' }],
      share: 1,
      remedy: '',
      evidence: [],
      proved: true,
    }
    const ended = huntAfter(noHunt, { do: 'conclude', finding })
    expect(ended.finding).toEqual(finding)
    expect(huntAfter(ended, { do: 'conclude' })).toEqual(noHunt)
  })

  const someId = fc.constantFrom('a', 'b', 'c', 'd', 'e')
  const someDeed: fc.Arbitrary<HuntDeed> = fc.oneof(
    fc.record({
      do: fc.constant('hunt' as const),
      lines: fc.uniqueArray(someId, { minLength: 1 }).map((ids) => ids.map((id) => line(id))),
      before: fc.option(someId, { nil: undefined }),
    }),
    fc.record({ do: fc.constant('unhunt' as const), lines: fc.array(someId, { minLength: 1 }) }),
  )
  it('never has a line twice, nor loses one that nobody took back; the same deed again changes nothing', () => {
    fc.assert(
      fc.property(fc.array(someDeed, { maxLength: 12 }), (deeds) => {
        const expected = new Set<string>()
        let record: HuntRecord = noHunt
        for (const deed of deeds) {
          record = huntAfter(record, deed)
          if (deed.do === 'hunt') deed.lines.forEach(({ entry }) => expected.add(entry.id))
          if (deed.do === 'unhunt') deed.lines.forEach((id) => expected.delete(id))
          expect(record.lines.map(({ entry }) => entry.id).sort()).toEqual([...expected].sort())
          expect(huntAfter(record, deed)).toEqual(record)
        }
      }),
    )
  })

  it.each<[unknown, string]>([
    [{ do: 'hunt', lines: [] }, 'lines'],
    [{ do: 'hunt', lines: [{ entry: { id: 'a', do: '' }, at, note: '' }] }, 'lines.0.entry'],
    [
      { do: 'hunt', lines: [{ entry: { id: 'a', see: { at: 'lever' }, found: { word: 'slack' } }, at, note: '' }] },
      'lines.0.entry',
    ],
    [
      {
        do: 'conclude',
        finding: { id: 'finding-1', at, causes: [], share: 2, remedy: '', evidence: [], proved: true },
      },
      'finding.causes',
    ],
  ])('is refused by its field where it cannot be: %#', (entry, field) => {
    const read = entrySchema.safeParse(entry)
    expect(read.error?.issues.map(({ path }) => path.join('.')).some((path) => path.startsWith(field))).toBe(true)
    expect(isHuntDeed(entry as HuntDeed)).toBe(true)
  })
})
