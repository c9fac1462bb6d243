import fc from 'fast-check'
import { circuitOf, installationOf, rigAfter } from '../../testing'
import { alterationsOf } from '../hypotheses'
import { edited } from '../installation'
import { lookAt, placesAt, wiringAt, wiringSeen } from '.'

const twoPort = circuitOf('two-port-heating-hot-water')
const eyes = (thing: string, ...actions: string[]) =>
  lookAt(rigAfter(twoPort, ...actions).simulation, { at: 'eyes', thing })

describe('with the cover off', () => {
  it('nothing is seen of what is whole', () => {
    for (const thing of ['wc', 'pump', 'boiler', 'programmer', 'stat-1']) expect(eyes(thing)).toEqual({ word: 'sound' })
  })

  it('water may be seen where it flows, and where its insulation has failed; nowhere else', () => {
    const wet = eyes('pump', 'fault=pump.terminals.leak')
    expect(wet).toMatchObject({ chances: { loose: 0, burnt: 0 } })
    expect('chances' in wet && wet.chances.water).toBeGreaterThan(0.5)
    expect(eyes('wc', 'fault=pump.terminals.leak')).toEqual({ word: 'sound' })
  })

  it('an open conductor may have come loose or burnt off at either end, but not where its maker has fixed it', () => {
    const open = ['fault=zv-1-lead.brown.open']
    expect(eyes('wc', ...open)).toMatchObject({ chances: { water: 0 } })
    expect(eyes('zv-1', ...open)).toEqual({ word: 'sound' })
    for (const thing of ['programmer', 'wc']) {
      const shown = eyes(thing, 'fault=programmer-cable.brown.open')
      expect('chances' in shown && shown.chances.loose > shown.chances.burnt).toBe(true)
    }
  })

  it('a failed contact or winding mostly shows nothing', () => {
    for (const fault of ['stat-1.contact.never-makes', 'pump.motor.open']) {
      const shown = eyes(fault.split('.')[0], `fault=${fault}`)
      expect('chances' in shown && shown.chances.sound).toBeGreaterThan(0.5)
    }
  })

  it('what may be seen comes to one, whatever two things are wrong', () => {
    const faults = ['pump.terminals.leak', 'pump.motor.open', 'pump-cable.brown.open', 'stat-1.contact.never-makes']
    fc.assert(
      fc.property(fc.subarray(faults, { minLength: 1 }), fc.constantFrom('pump', 'wc', 'stat-1'), (wrong, thing) => {
        const shown = eyes(thing, ...wrong.map((fault) => `fault=${fault}`))
        const sum = 'chances' in shown ? Object.values(shown.chances).reduce((all, one) => all + one, 0) : 1
        expect(sum).toBeCloseTo(1, 9)
      }),
    )
  })
})

describe('beside the drawing', () => {
  it('is told where it lies otherwise: at both ends of a link, where a conductor should be and where it is, what is set otherwise', () => {
    const doc = installationOf('two-port-heating-hot-water')
    const altered = (kind: string, thing: string) =>
      alterationsOf(twoPort).flatMap(({ kind: own, command }) => {
        const shown = own === kind ? wiringSeen(doc, edited(doc, command).doc, thing) : undefined
        return shown && 'at' in shown ? [shown.at] : []
      })
    for (const [kind, thing, places] of [
      ['link-missing', 'wc', 2],
      ['setting', 'boiler', 1],
    ] as const)
      expect([...new Set(altered(kind, thing).map((at) => at.length))]).toEqual([places])
    expect(altered('link-extra', 'wc').length).toBeGreaterThan(0)
    expect(altered('core-moved', 'stat-1')).toContainEqual(['stat-1.L', 'stat-1.SL'])
  })

  it('nothing can be told without one', () => {
    const look = { at: 'wiring', thing: 'wc' } as const
    const { simulation } = rigAfter(twoPort)
    expect(lookAt(simulation, look)).toEqual({ unknown: 'nothing-there' })
    expect(lookAt(simulation, look, twoPort.installation)).toEqual({ word: 'as-drawn' })
  })

  it('a terminal has its colours, a device its links and how it is set up', () => {
    const { terminals, links } = wiringAt(twoPort.installation, 'programmer')
    expect(terminals.map(({ conductors }) => conductors.map(({ colour }) => colour))).toContainEqual(['brown'])
    expect(links.every(({ between }) => between.every((end) => end.startsWith('programmer.')))).toBe(true)
    expect(wiringAt(twoPort.installation, 'boiler').settings.length).toBeGreaterThan(0)
  })

  it.each(['two-port-heating-hot-water', 'mid-position', 'low-voltage', 'relay-panel', 'single-zone-bus'])(
    '%s: what was altered is seen where it was, unless colours are the same',
    (id) => {
      const doc = installationOf(id)
      const things = [...doc.devices, ...doc.wiringCentres].map((one) => one.id)
      for (const { kind, name, command } of alterationsOf(circuitOf(id))) {
        if (kind === 'core-open') continue
        const there = edited(doc, command).doc
        const seen = things.filter((thing) => wiringSeen(doc, there, thing).word === 'otherwise')
        const before = JSON.stringify(things.map((thing) => colours(doc, thing)))
        const after = JSON.stringify(things.map((thing) => colours(there, thing)))
        const isRewired = kind === 'core-moved' || kind === 'cores-exchanged'
        expect({ name, seen: seen.length > 0 }).toEqual({ name, seen: !isRewired || before !== after })
        for (const thing of seen) {
          const shown = wiringSeen(doc, there, thing)
          const places = 'at' in shown ? shown.at : []
          expect(places.length).toBeGreaterThan(0)
          expect(placesAt(doc, thing)).toEqual(expect.arrayContaining(places))
        }
      }
    },
  )
})

/** Which colours are in which terminal. */
const colours = (doc: ReturnType<typeof installationOf>, thing: string): string[] =>
  wiringAt(doc, thing)
    .terminals.flatMap(({ terminal, conductors }) =>
      conductors.map(({ colour, sleeve }) => `${terminal} ${colour} ${sleeve}`),
    )
    .sort()
