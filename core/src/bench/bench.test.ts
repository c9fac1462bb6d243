import fc from 'fast-check'
import { circuitOf, installationOf } from '../../testing'
import { deviceType } from '../catalogue'
import { check, isGrave } from '../checks'
import { compile } from '../circuit'
import { examples } from '../examples'
import { edited, editedBy, EditError, parseInstallation, type Installation, type Step } from '../installation'
import { typeDirectory } from '../catalogue'
import { deedText, differenceTexts, differingName } from '../wording'
import {
  addCable,
  addDevice,
  addTerminal,
  changeDevice,
  cutLink,
  differencesOf,
  duplicateZone,
  fitLink,
  land,
  markEnd,
  moveEnd,
  netAt,
  park,
  recolour,
  removeCable,
  removeDevice,
  removeTerminal,
  replaceWith,
  sleeve,
  type EndRef,
} from '.'

/** Something a person does at the bench, chosen by numbers. */
function anything(doc: Installation, [what, n, m]: [number, number, number]): Step | undefined {
  const cable = doc.cables[n % doc.cables.length]
  const ref: EndRef = { cable: cable.id, core: cable.cores[m % cable.cores.length].id, end: (n % 2) as 0 | 1 }
  const centre = doc.wiringCentres[0]
  const terminal = (k: number) => `${centre.id}.${centre.terminals[k % centre.terminals.length].id}`
  const device = doc.devices[n % doc.devices.length]
  const verbs: (() => Step | undefined)[] = [
    () => land(ref, terminal(m)),
    () => moveEnd(ref, { at: 'cut-back' }),
    () => park(doc, ref),
    () => sleeve(ref, m % 2 ? 'brown' : null),
    () => recolour(ref, 'grey'),
    () => markEnd(doc, ref, 'tested'),
    () => fitLink(doc, terminal(n), terminal(m)),
    () => (doc.links.length ? cutLink(doc.links[m % doc.links.length]) : undefined),
    () => addCable(doc, `New ${m}`, 5),
    () => (doc.cables.length > 1 ? removeCable(doc, cable.id) : undefined),
    () => addTerminal(centre, 'New', centre.terminals[0].id),
    () => removeTerminal(doc, centre, centre.terminals[m % centre.terminals.length].id),
    () => addDevice(doc, deviceType('two-port-valve'), `Valve ${m}`, doc.places[0].id),
    () => removeDevice(doc, device.id),
    () => changeDevice(doc, device.id, { name: `Renamed ${m}` }),
  ]
  return verbs[what % verbs.length]()
}
const steps = fc.array(fc.tuple(fc.nat(14), fc.nat(200), fc.nat(200)), { minLength: 1, maxLength: 25 })
const anyExample = fc.constantFrom(...examples.map((e) => e.id))

describe('the bench', () => {
  it('leaves a document that makes sense, takes every step back exactly, and forward again', () => {
    fc.assert(
      fc.property(anyExample, steps, (id, numbers) => {
        const start = installationOf(id)
        let doc = start
        const done: { command: Step; inverse: Step }[] = []
        for (const n of numbers) {
          const command = anything(doc, n)
          if (!command) continue
          const before = JSON.stringify(doc)
          const after = edited(doc, command)
          expect(JSON.stringify(doc)).toBe(before)
          done.push({ command, inverse: after.inverse })
          doc = after.doc
          expect(() => parseInstallation(JSON.parse(JSON.stringify(doc)), typeDirectory)).not.toThrow()
          expect(() => compile(doc)).not.toThrow()
        }
        const back = [...done].reverse().reduce((at, { inverse }) => edited(at, inverse).doc, doc)
        expect(back).toEqual(start)
        expect(
          editedBy(
            start,
            done.map((d) => d.command),
          ),
        ).toEqual(doc)
      }),
      { numRuns: 60 },
    )
  })

  it('replays the steps of one person on what another has left, and says which one no longer fits', () => {
    const start = installationOf('two-port-heating')
    const mine = [
      sleeve({ cable: 'stat-1-cable', core: 'grey', end: 0 }, 'brown'),
      moveEnd({ cable: 'boiler-cable', core: 'black', end: 1 }, { at: 'loose' }),
    ]
    const theirs = edited(start, moveEnd({ cable: 'pump-cable', core: 'brown', end: 0 }, { at: 'loose' })).doc
    const both = editedBy(theirs, mine)
    expect(differencesOf(start, both).conductors.map((c) => [differingName(c), c.change])).toEqual(
      [
        ['grey of House thermostat cable', 'looks'],
        ['black of Boiler cable', 'moved'],
        ['brown of Pump cable', 'moved'],
      ].sort((x, y) => order(start, x[0]) - order(start, y[0])),
    )
    const gone = edited(start, removeCable(start, 'boiler-cable')).doc
    expect(() => editedBy(gone, mine)).toThrow(EditError)
    expect(() => editedBy(gone, mine)).toThrow('there is no cable "boiler-cable" any more')
  })

  it('says each step in words, by names that stand in the document before it', () => {
    const doc = installationOf('two-port-heating')
    const black = { cable: 'boiler-cable', core: 'black', end: 1 as const }
    const said = [
      land(black, 'wc.1'),
      moveEnd(black, { at: 'cut-back' }),
      sleeve(black, 'brown'),
      sleeve(black, null),
      fitLink(doc, 'wc.1', 'wc.2'),
      cutLink(doc.links[0]),
      removeDevice(doc, 'pump')!,
    ].map(({ deed }) => deedText(doc, deed))
    const [a, b] = doc.links[0].between.map((t) => `Wiring centre ${t.split('.')[1]}`)
    expect(said).toEqual([
      'black of Boiler cable: Wiring centre 1',
      'black of Boiler cable: cut back and sleeved',
      'black of Boiler cable sleeved brown',
      'Sleeve off black of Boiler cable',
      'Link Wiring centre 1 to Wiring centre 2',
      `Link between ${a} and ${b} out`,
      'Take Pump out',
    ])
  })

  it('compares two states conductor by conductor', () => {
    const before = installationOf('two-port-heating')
    const after = editedBy(before, [
      land({ cable: 'boiler-cable', core: 'black', end: 1 }, 'wc.1'),
      addCable(before, 'Second cable', 3),
      cutLink(before.links[0]),
      changeDevice(before, 'zv-1', { settings: { makes: 0.9 } })!,
    ])
    const { conductors, links, devices, same } = differencesOf(before, after)
    const moved = conductors.find((c) => c.change === 'moved')!
    expect(differingName(moved)).toBe('black of Boiler cable')
    expect(differenceTexts(moved, before, after).after).toBe('Boiler SL to Wiring centre 1')
    expect(conductors.filter((c) => c.change === 'added')).toHaveLength(3)
    expect(links.map((l) => l.change)).toEqual(['removed'])
    expect(devices).toEqual([{ id: 'zv-1', name: 'House valve', change: 'changed' }])
    expect(same).toBe(before.cables.flatMap((c) => c.cores).length - 1)
    expect(edited(before, { changes: replaceWith(before, after) }).doc).toEqual(after)
    expect(replaceWith(before, before)).toEqual([])
  })

  it('shows the whole net of a terminal or conductor', () => {
    const net = netAt(circuitOf('two-port-heating'), 'boiler.SL')!
    expect(net.terminals).toEqual(expect.arrayContaining(['boiler.SL', 'zv-1.SO']))
    expect(net.conductors).toEqual(expect.arrayContaining(['boiler-cable.black', 'zv-1-lead.orange']))
    expect(netAt(circuitOf('two-port-heating'), 'zv-1-lead.orange')).toEqual(net)
    expect(netAt(circuitOf('two-port-heating'), 'nowhere.1')).toBeUndefined()
  })

  it.each(['two-port-heating-hot-water', 'hot-water-priority', 'low-voltage', 'relay-panel'])(
    'duplicates a zone of %s that works like the one it came from',
    (id) => {
      const doc = installationOf(id)
      const command = duplicateZone(doc, 'heating-1', 'Studio')!
      const { doc: after, inverse } = edited(doc, command)
      const parsed = parseInstallation(JSON.parse(JSON.stringify(after)), typeDirectory)
      expect(parsed.intent.demands).toHaveLength(doc.intent.demands.length + 1)
      const { findings, states } = check(compile(parsed))
      expect(findings.filter(isGrave)).toEqual([])
      const { id: made } = parsed.intent.demands.find((d) => d.name === 'Studio')!
      expect([...states.table.flatMap((row) => row.wanted), ...states.alike.flat()]).toContain(made)
      expect(edited(after, inverse).doc).toEqual(doc)
    },
  )

  it('does not take out what a demand needs', () => {
    const doc = installationOf('two-port-heating')
    expect(removeDevice(doc, 'zv-1')).toBeUndefined()
    expect(removeDevice(doc, 'pump')).toBeDefined()
  })
})

const order = (doc: Installation, name: string): number =>
  doc.cables.flatMap((c) => c.cores.map((k) => `${k.colour} of ${c.label}`)).indexOf(name)
