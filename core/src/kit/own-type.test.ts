import { installationOf, rigAfter } from '../../testing'
import { typeDirectory } from '../catalogue'
import { compile } from '../circuit'
import { Hunt } from '../hunt'
import { ownValve } from '../examples'
import { faultsOf } from '../hypotheses'
import { DocumentError, parseInstallation, type Installation } from '../installation'
import { fittingTypes, newerTypes, withNewer, withType } from '../planning'
import { Simulation } from '../simulation'
import { demandStates, signsOf, whyTerminal, failedIn } from '../trace'
import { symptomsOf, tryOut, usualFeeds } from '.'

const parsed = (doc: Installation) => parseInstallation(JSON.parse(JSON.stringify(doc)), typeDirectory)
const fitted = () => parsed(withType(installationOf('two-port-heating-hot-water'), 'zv-1', ownValve()))

describe('a valve that a user has made', () => {
  it('is offered where its terminals, contacts and connections fit, and not elsewhere', () => {
    const doc = installationOf('two-port-heating-hot-water')
    const offered = (id: string) => fittingTypes(doc, id, [ownValve()]).map((t) => t.id)
    expect(offered('zv-1')).toEqual([
      'two-port-valve',
      'own-slow-valve',
      'two-port-valve-six-wire',
      'two-port-valve-other-lead',
    ])
    expect(offered('boiler')).not.toContain('own-slow-valve')
  })

  it('travels in the document, so that it is read elsewhere', () => {
    const doc = fitted()
    expect(doc.types.find((t) => t.id === 'own-slow-valve')!.definition).toBeDefined()
    const without = { ...doc, types: doc.types.map((t) => ({ ...t, definition: undefined })) }
    expect(() => parsed(without)).toThrow('"own-slow-valve" is not a device type Nobbet knows')
    const spoilt = JSON.parse(JSON.stringify(doc))
    spoilt.types.find((t: { id: string }) => t.id === 'own-slow-valve').definition.primitives[0].from = 'X'
    expect(() => parsed(spoilt)).toThrow(DocumentError)
    expect(() => parsed(spoilt)).toThrow(/types\.\d+\.definition\.primitives\.0\.from: there is no terminal "X"/)
  })

  it('takes part in Trace: the boiler is called by its relay, no sooner than at 85 % of half a minute', () => {
    const rig = rigAfter(compile(fitted()), 'programmer.heating=on', 'stat-1.set=25', 'wait=25s')
    expect(demandStates(rig.simulation)[0].word).toBe('held-up')
    rig.simulation.run(20_000)
    expect(demandStates(rig.simulation)[0].word).toBe('calling')
    expect(signsOf(rig.simulation).warm).toEqual(['heating-1'])
  })

  it('takes part with its faults: the welded relay is put in, seen, and named as the cause', () => {
    const circuit = compile(fitted())
    expect(faultsOf(circuit).map((f) => f.label)).toContain('House valve: end relay welded')
    const rig = rigAfter(circuit, 'fault=zv-1.end-switch.welded', 'wait=60s')
    expect(signsOf(rig.simulation).boilers[0].phase).toBe('firing')
    const cause = whyTerminal(rig.simulation, 'boiler.SL')
    expect(failedIn(cause).map((c) => c.claim)).toMatchObject([{ is: 'contact', device: 'zv-1', part: 'end-switch' }])
  })

  it('is hunted through: every fault of it is among the suspects', () => {
    const names = new Hunt(compile(fitted())).suspects.map((s) => s.id)
    expect(names).toEqual(expect.arrayContaining(['zv-1.end-switch.welded', 'zv-1.motor.open']))
  })

  it('shows in Kit what its faults do on a shipped system', () => {
    const { stand, symptoms } = symptomsOf(ownValve())
    expect(stand).toMatchObject({ ships: false })
    expect(
      symptoms.find((s) => s.failure.id === 'welded')!.shown.some((s) => s.signs.boilers[0].calls.length > 0),
    ).toBe(true)
  })

  it('is kept in its version, and the newer one is offered and taken when asked for', () => {
    const doc = fitted()
    const newer = ownValve(2, 60)
    expect(newerTypes(doc, [ownValve()])).toEqual([])
    expect(newerTypes(doc, [newer])).toMatchObject([{ has: 1, devices: ['House valve'] }])
    const opens = (of: Installation) => {
      const rig = rigAfter(compile(of), 'programmer.heating=on', 'stat-1.set=25')
      rig.simulation.settle()
      return rig.simulation.history.find((e) => e.kind === 'travel' && e.motion === 'open')!.time
    }
    expect(opens(doc)).toBeLessThan(31_000)
    expect(opens(parsed(withNewer(doc, newer)))).toBeGreaterThan(59_000)
  })

  it('can be tried out on a table before it is fitted anywhere', () => {
    const type = ownValve()
    const feeds = usualFeeds(type)
    expect(feeds).toEqual({ N: 'N', SF: 'L' })
    const closed = (all: typeof feeds) => {
      const circuit = tryOut(type, all)
      const sim = new Simulation(circuit)
      sim.settle()
      return sim.contactClosed(circuit.contacts.findIndex((c) => c.part.id === 'end-switch'))
    }
    expect(closed(feeds)).toBe(false)
    expect(closed({ ...feeds, M: 'L' })).toBe(true)
  })
})
