import { installationOf } from '../../testing'
import { typeDirectory } from '../catalogue'
import { compile } from '../circuit'
import { netlist, wiringCentreSvg } from '../formats'
import { Simulation } from '../simulation'
import { parseInstallation, quoted, type DocumentError } from '.'

/** A document before it is parsed: anything may be anywhere. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- what is spoilt has no type any more
type Unparsed = Record<string, any>

const said = (spoil: (doc: Unparsed) => void): string[] => {
  const doc = installationOf('two-port-heating') as Unparsed
  spoil(doc)
  try {
    parseInstallation(JSON.parse(JSON.stringify(doc)), typeDirectory)
    return []
  } catch (error) {
    return (error as DocumentError).problems.map((p) => `${p.field}: ${p.reason}`)
  }
}

describe('what is wrong with a document', () => {
  it.each<[(doc: Unparsed) => void, string]>([
    [(d) => (d.name = 7), 'name: a text is expected, not the number 7'],
    [(d) => delete d.supply, 'supply: is missing: an object is expected'],
    [(d) => (d.supply.frequency = 55), 'supply.frequency: has none of the forms it may have: the number 55'],
    [
      (d) => (d.provenance = 'guessed'),
      'provenance: "assumed", "planned", "seen" or "tested" is expected, not the text "guessed"',
    ],
    [(d) => (d.devices = {}), 'devices: a list is expected, not an object'],
    [(d) => (d.supply.volts = 900), 'supply.volts: at most 400 is expected, not the number 900'],
    [(d) => (d.places = []), 'places: is empty: at least 1 entry'],
    [
      (d) => (d.cables[0].cores[0].ends[0] = { at: 'nowhere' }),
      'cables.0.cores.0.ends.0.at: has none of the forms it may have: an object',
    ],
  ])('says what was expected and what was found: %#', (spoil, expected) => {
    expect(said(spoil)).toContain(expected)
  })

  it('never speaks in the words of the library', () => {
    const all = [
      said((d) => (d.version = 'one')),
      said((d) => (d.cables[0].cores = 'many')),
      said((d) => (d.cables[0].lengthM = -1)),
      said((d) => (d.devices[0].settings = { fuse: null })),
      said((d) => (d.intent.demands[0].priority = 1.5)),
    ].flat()
    expect(all.length).toBeGreaterThanOrEqual(5)
    for (const text of all)
      expect(text).not.toMatch(/Invalid|Too (small|big)|expected (string|number|array|object)|received/)
  })

  it('keeps to one line and prints, whatever was in it', () => {
    const [problem] = said((d) => (d.devices[0].type = 'spur\n.control\u0007'))
    // eslint-disable-next-line no-control-regex -- control characters are what it is about
    expect(problem).not.toMatch(/[\u0000-\u001f]/)
    expect(quoted(`a\nb${'x'.repeat(90)}`)).toMatch(/^"a bx{55,}…"$/)
  })
})

describe('what is written for others', () => {
  it('has no control characters, and no line of a name’s own', () => {
    const doc = installationOf('two-port-heating')
    doc.name = 'House\n.control\nshell rm\u0007'
    doc.wiringCentres[0].terminals[0].legend = 'Li\u0001ne\n'
    doc.cables[0].label = 'Supply\n.endc'
    const svg = wiringCentreSvg(doc, 'wc')
    // eslint-disable-next-line no-control-regex -- control characters are what it is about
    expect(svg).not.toMatch(/[\u0000-\u0009\u000b-\u001f]/)
    const { text } = netlist(new Simulation(compile(doc)))
    expect(text.split('\n').filter((line) => /^\.(control|endc)|^shell/.test(line))).toEqual([])
  })
})
