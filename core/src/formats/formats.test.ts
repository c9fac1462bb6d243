import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import Papa from 'papaparse'
import { installationOf } from '../../testing'
import { examples } from '../examples'
import { DocumentError, edited, type Installation } from '../installation'
import {
  conductorsCsv,
  conductorsFromCsv,
  briefJsonSchema,
  huntCaseJsonSchema,
  installationJsonSchema,
  readInstallation,
  ScheduleError,
  terminalsCsv,
  terminalsFromCsv,
  wiringCentreSvg,
  writeInstallation,
} from '.'

const anyExample = fc.constantFrom(...examples.map((e) => e.id))
/** An example with what a survey leaves behind: odd names, provenance, ends of every kind. */
const surveyed = fc
  .tuple(
    anyExample,
    fc.string({ minLength: 1, maxLength: 20 }),
    fc.array(fc.tuple(fc.nat(), fc.nat(4), fc.nat(3)), { maxLength: 6 }),
  )
  .map(([id, label, changes]) => {
    const doc = installationOf(id)
    if (label.trim()) doc.cables[0].label = label.trim()
    doc.wiringCentres[0].terminals[0].legend = `a "quoted", legend; ${label}`
    const cores = doc.cables.flatMap((c) => c.cores)
    for (const [n, what, known] of changes) {
      const core = cores[n % cores.length]
      const provenance = (['assumed', 'planned', 'seen', 'tested'] as const)[known]
      const end = core.ends[n % 2]
      core.ends[n % 2] = [
        { at: 'loose' as const, provenance },
        { at: 'unknown' as const },
        { at: 'cut-back' as const, provenance },
        { ...end, provenance },
        { ...end },
      ][what]
      core.sleeve = what === 2 ? 'brown' : core.sleeve
    }
    if (doc.links[0]) doc.links[0].provenance = 'tested'
    return doc
  })

describe('formats', () => {
  it('write an installation as JSON and read the same back', () => {
    fc.assert(
      fc.property(surveyed, (doc) => expect(readInstallation(writeInstallation(doc))).toEqual(doc)),
      { numRuns: 60 },
    )
  })

  it('write the wiring as schedules and read the same back, whatever stood there before', () => {
    fc.assert(
      fc.property(surveyed, anyExample, (doc, other) => {
        const bare: Installation = { ...doc, cables: installationOf(other).cables.filter(() => false), links: [] }
        const terminals = edited(bare, terminalsFromCsv(bare, terminalsCsv(doc))).doc
        const back = edited(terminals, conductorsFromCsv(terminals, conductorsCsv(doc))).doc
        expect(back.cables).toEqual(doc.cables)
        expect(back.wiringCentres).toEqual(doc.wiringCentres)
        const byId = (all: Installation['links']) => [...all].sort((x, y) => (x.id < y.id ? -1 : 1))
        expect(byId(back.links)).toEqual(byId(doc.links))
      }),
      { numRuns: 60 },
    )
  })

  it.each<[string, (csv: string) => string, RegExp]>([
    ['an end that is none', (csv) => csv.replace('cut back', 'somewhere'), /^line \d+, end_1: "somewhere" is no end/],
    [
      'a terminal that is not there',
      (csv) => csv.replace('wc.1,', 'wc.999,'),
      /^line 2, end_2: there is no terminal "wc.999"/,
    ],
    [
      'a colour that is none',
      (csv) => csv.replace(',brown,brown,', ',brown,pink,'),
      /^line 2, colour: "brown", .* or "bare" is expected, not the text "pink"/,
    ],
    ['a column left out', (csv) => csv.replace('colour,', 'color,'), /^line 1, colour: this column is missing/],
    ['a number that is none', (csv) => csv.replace(',0.75,', ',thick,'), /^line 2, area_mm2: /],
    [
      'two conductors of one name',
      (csv) => csv.replace('supply,Supply cable,,1,,yes,blue', 'supply,Supply cable,,1,,yes,brown'),
      /stands twice/,
    ],
  ])('refuse a conductor schedule with %s, by line and column', (_, spoil, reason) => {
    const doc = installationOf('two-port-heating')
    const before = JSON.stringify(doc)
    const text = spoil(conductorsCsv(doc))
    expect(text).not.toBe(conductorsCsv(doc))
    expect(() => conductorsFromCsv(doc, text)).toThrow(reason)
    expect(() => conductorsFromCsv(doc, text)).toThrow(ScheduleError)
    expect(JSON.stringify(doc)).toBe(before)
  })

  it('refuse a terminal schedule that would leave a conductor without its terminal', () => {
    const doc = installationOf('two-port-heating')
    const without = terminalsCsv(doc)
      .split('\n')
      .filter((line) => !line.startsWith('wc,') || !/^wc,[^,]*,[^,]*,3,/.test(line))
      .join('\n')
    expect(() => terminalsFromCsv(doc, without)).toThrow('there is no terminal "wc.3"')
  })

  it('refuse files that are no installation, or one of a newer Nobbet', () => {
    expect(() => readInstallation('{')).toThrow('this is not JSON')
    expect(() => readInstallation('{"a":1}')).toThrow('"format" must be "nobbet-installation"')
    const newer = writeInstallation(installationOf('single-zone')).replace('"version": 1', '"version": 7')
    expect(() => readInstallation(newer)).toThrow('version 7 was written by a newer Nobbet')
    expect(() => readInstallation(newer)).toThrow(DocumentError)
  })

  it('draw a wiring centre with every terminal and conductor on it, and nothing that breaks out of the drawing', () => {
    const doc = installationOf('two-port-heating-hot-water')
    doc.wiringCentres[0].terminals[0].legend = 'L <&> "in"'
    const svg = wiringCentreSvg(doc, 'wc')
    expect(svg).toContain('L &lt;&amp;&gt; &quot;in&quot;')
    for (const t of doc.wiringCentres[0].terminals) expect(svg).toContain(`>${t.id}</text>`)
    const landed = doc.cables
      .flatMap((c) => c.cores.flatMap((k) => k.ends))
      .filter((e) => 'terminal' in e && e.terminal.startsWith('wc.'))
    expect(svg.match(/width="22" height="10"/g)).toHaveLength(landed.length)
  })

  it('write no cell that a spreadsheet would run, and read back just what was there', () => {
    const start = fc.constantFrom('=', '+', '-', '@', "'=", "''+", "'", '')
    fc.assert(
      fc.property(start, fc.string({ minLength: 1, maxLength: 12 }), (first, rest) => {
        const doc = installationOf('two-port-heating')
        const label = `${first}${rest}`.trim() || 'x'
        doc.cables[0].label = label
        const csv = conductorsCsv(doc)
        for (const cell of Papa.parse<string[]>(csv).data.flat()) expect(cell).not.toMatch(/^[=+@-]/)
        const { changes } = conductorsFromCsv(doc, csv)
        const put = changes.find((c) => c.do === 'put' && c.in === 'cables')
        expect(put).toMatchObject({ value: { label } })
      }),
    )
  })

  it('publish the schema that is in force', () => {
    for (const [name, schema] of [
      ['installation', installationJsonSchema],
      ['hunt', huntCaseJsonSchema],
      ['brief', briefJsonSchema],
    ] as const) {
      const published = JSON.parse(readFileSync(`docs/formats/${name}.schema.json`, 'utf8'))
      expect(published).toEqual(JSON.parse(JSON.stringify(schema())))
    }
  })
})
