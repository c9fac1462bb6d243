import fc from 'fast-check'
import { installationOf, someAct, type Pick } from '../../testing'
import { typeDirectory } from '../catalogue'
import { edited, installationSchema, installationShape, referenceProblems, type Installation } from '../installation'
import { otherId, renamedChange } from '../installation'
import {
  applied,
  ChangeError,
  changesBetween,
  insisted,
  inverted,
  rebased,
  same,
  thingOf,
  valueAt,
  type FieldChange,
  type Ground,
} from '.'

const ground: Ground<Installation> = {
  shape: installationShape,
  sensible: (doc) => installationSchema.safeParse(doc).success && referenceProblems(doc, typeDirectory).length === 0,
  freeId: otherId,
  renamed: renamedChange,
}
const between = (a: Installation, b: Installation) => changesBetween(installationShape, a, b)
const start = installationOf('two-port-heating-hot-water')

/** Numbers to pick by, each once; when they run out it is always the first. */
function picker(numbers: readonly number[]): Pick {
  let i = 0
  return (n) => (numbers[i++] ?? 0) % n
}
const numbers = fc.array(fc.nat(100_000), { minLength: 4, maxLength: 6 })
const hand = fc.array(numbers, { minLength: 1, maxLength: 12 })

function worked(doc: Installation, acts: readonly number[][]): Installation {
  return acts.reduce((at, act) => {
    const command = someAct(at, picker(act))
    return command ? edited(at, command).doc : at
  }, doc)
}
/** As it was found with every optional list and map that holds nothing left out. */
const bare = (doc: Installation) => applied(installationShape, doc, [])

describe('what was changed between two states', () => {
  it('is as small as what the hand did', () => {
    const [centre] = start.wiringCentres
    const after = edited(start, {
      label: 'Legend',
      changes: [
        {
          do: 'put',
          in: 'wiringCentres',
          value: { ...centre, terminals: centre.terminals.map((t) => (t.id === '3' ? { ...t, legend: 'Earth' } : t)) },
        },
      ],
    }).doc
    expect(between(start, after)).toEqual([
      {
        do: 'set',
        path: ['wiringCentres', centre.id, 'terminals', '3', 'legend'],
        was: expect.any(String),
        now: 'Earth',
      },
    ])
  })

  it('makes the one of the other, and taken back the other of the one', () => {
    fc.assert(
      fc.property(hand, (acts) => {
        const after = worked(start, acts)
        const changes = between(start, after)
        expect(same(applied(installationShape, start, changes), bare(after))).toBe(true)
        expect(same(applied(installationShape, after, inverted(changes)), start)).toBe(true)
      }),
      { numRuns: 150 },
    )
  })

  it('tells another order of the same entries', () => {
    const after = { ...start, places: [...start.places].reverse() }
    const changes = between(start, after)
    expect(changes.map((c) => c.do)).toEqual(['order'])
    expect(applied(installationShape, start, changes).places).toEqual(after.places)
  })

  it('says nothing where a list or map that may be left out is empty', () => {
    expect(between(start, { ...start, waivers: [] })).toEqual([])
    const legends = { ...start.devices[0], legends: {} }
    expect(between(start, { ...start, devices: [legends, ...start.devices.slice(1)] })).toEqual([])
  })

  it('is refused where something else stands there, and changes nothing then', () => {
    const change: FieldChange = { do: 'set', path: ['name'], was: 'Another', now: 'Third' }
    expect(() => applied(installationShape, start, [change])).toThrow(ChangeError)
    const lost: FieldChange = { do: 'set', path: ['devices', 'nobody', 'name'], was: 'A', now: 'B' }
    expect(() => applied(installationShape, start, [lost])).toThrow(ChangeError)
  })
})

describe('changes made again on what somebody else has made of it', () => {
  /** Everything named by changes: themselves, and where an entry came or went all that is in it. */
  const touches = (changes: readonly FieldChange[]) => changes.filter((c) => c.do !== 'order').map((c) => thingOf(c))
  const meets = (a: readonly string[], b: readonly string[]) =>
    a.slice(0, b.length).every((key, i) => key === b[i]) || b.slice(0, a.length).every((key, i) => key === a[i])

  it('leave theirs alone, lose nothing of mine that they have not touched, and make sense', () => {
    fc.assert(
      fc.property(hand, hand, (left, right) => {
        const [mine, theirs] = [worked(start, left), worked(start, right)]
        const [my, their] = [between(start, mine), between(start, theirs)]
        const result = rebased(ground, theirs, my, their)
        expect(ground.sensible(result.doc)).toBe(true)
        expect(same(applied(installationShape, theirs, result.changes), bare(result.doc))).toBe(true)
        // What they touched stands as they left it.
        for (const change of their) {
          if (change.do !== 'set') continue
          const { value, missing } = valueAt(installationShape, result.doc, change.path)
          if (!missing) expect(value).toEqual(change.now)
        }
        // What I touched alone stands as I left it, or is told as what cannot stand beside theirs.
        const senseless = result.clashes.some((c) => c.why === 'senseless')
        for (const change of my) {
          if (change.do === 'order' || touches(their).some((t) => meets(t, thingOf(change))) || senseless) continue
          if (result.renamings.length > 0) continue
          const { value } = valueAt(installationShape, result.doc, change.path)
          if (change.do === 'set') expect(value).toEqual(change.now)
          if (change.do === 'add') expect(value).toContainEqual(expect.objectContaining({ id: change.value.id }))
          if (change.do === 'drop') expect(value).not.toContainEqual(expect.objectContaining({ id: change.was.id }))
        }
        // Where both touched one thing otherwise, that one thing is told.
        for (const change of my) {
          if (change.do !== 'set' || senseless) continue
          const other = their.find((c) => c.do === 'set' && same(c.path, change.path))
          if (other?.do !== 'set' || same(other.now, change.now)) continue
          expect(result.clashes.some((c) => c.mine.some((m) => same(m.path, change.path)))).toBe(true)
        }
      }),
      { numRuns: 250 },
    )
  })

  const end = (to: string): FieldChange => ({
    do: 'set',
    path: ['cables', 'pump-cable', 'cores', 'brown', 'ends', '1'],
    was: start.cables.find((c) => c.id === 'pump-cable')!.cores.find((k) => k.id === 'brown')!.ends[1],
    now: { at: 'terminal', terminal: to },
  })
  const drop = (path: string[], id: string, after: string | null = null): FieldChange => ({
    do: 'drop',
    path,
    was: entryOf(path, id),
    after,
  })
  const entryOf = (path: string[], id: string) =>
    valueAt(installationShape, start, [...path, id]).value as { id: string }

  it('tell one end that both have moved, mine and theirs, and put mine there when it is chosen', () => {
    const theirs = applied(installationShape, start, [end('wc.1')])
    const { doc, clashes } = rebased(ground, theirs, [end('wc.2')], [end('wc.1')])
    expect(doc).toBe(theirs)
    expect(clashes).toEqual([
      { mine: [end('wc.2')], theirs: { at: 'terminal', terminal: 'wc.1' }, why: 'both', restore: [] },
    ])
    const chosen = insisted(ground, doc, clashes[0])!
    expect(valueAt(installationShape, chosen, end('').path).value).toEqual({ at: 'terminal', terminal: 'wc.2' })
  })

  it('say of a thing they took out that it is gone, and bring it back with mine when that is chosen', () => {
    const out = drop(['links'], start.links[0].id)
    const theirs = applied(installationShape, start, [out])
    const cut: FieldChange = {
      do: 'set',
      path: ['links', start.links[0].id, 'kind'],
      was: start.links[0].kind,
      now: 'cut',
    }
    const { clashes } = rebased(ground, theirs, [cut], [out])
    expect(clashes).toMatchObject([{ why: 'gone' }])
    expect(insisted(ground, theirs, clashes[0])!.links).toContainEqual({ ...start.links[0], kind: 'cut' })
  })

  it('put aside a conductor of mine on a terminal they took out, and bring the terminal back when mine is chosen', () => {
    const [centre] = start.wiringCentres
    const more: FieldChange = {
      do: 'add',
      path: ['wiringCentres', centre.id, 'terminals'],
      value: { id: '99', legend: 'Spare', ways: 1 },
      after: null,
    }
    const before = applied(installationShape, start, [more])
    const theirs = applied(installationShape, before, inverted([more]))
    const { clashes, doc } = rebased(ground, theirs, [end(`${centre.id}.99`)], inverted([more]))
    expect(doc).toBe(theirs)
    expect(clashes).toMatchObject([{ why: 'senseless', restore: [{ do: 'add', value: { id: '99' } }] }])
    expect(insisted(ground, theirs, clashes[0])!.wiringCentres[0].terminals).toContainEqual(more.value)
  })

  it('give a new terminal of mine another number where they have taken it, and my conductor follows', () => {
    const [centre] = start.wiringCentres
    const add = (legend: string): FieldChange => ({
      do: 'add',
      path: ['wiringCentres', centre.id, 'terminals'],
      value: { id: '99', legend, ways: 1 },
      after: null,
    })
    const theirs = applied(installationShape, start, [add('Theirs')])
    const { doc, renamings, clashes } = rebased(ground, theirs, [add('Mine'), end(`${centre.id}.99`)], [add('Theirs')])
    expect(clashes).toEqual([])
    expect(renamings).toEqual([{ path: ['wiringCentres', centre.id, 'terminals'], from: '99', to: '100' }])
    expect(doc.wiringCentres[0].terminals.map((t) => t.legend)).toEqual(expect.arrayContaining(['Mine', 'Theirs']))
    expect(valueAt(installationShape, doc, end('').path).value).toEqual({
      at: 'terminal',
      terminal: `${centre.id}.100`,
    })
  })

  it('are nothing where they have done the very same', () => {
    const theirs = applied(installationShape, start, [end('wc.2')])
    expect(rebased(ground, theirs, [end('wc.2')], [end('wc.2')])).toMatchObject({ changes: [], clashes: [] })
  })
})
