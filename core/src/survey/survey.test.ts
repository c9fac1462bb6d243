import fc from 'fast-check'
import { installationOf } from '../../testing'
import { departuresPutIn, HiddenWiring, withOtherColours } from '../../testing/hidden-survey'
import { numbers } from '../../testing/numbers'
import { falselyCertain, runInTurn, runProposed } from '../../testing/survey-runs'
import { compile } from '../circuit'
import { netsAmong } from '../moves/joins'
import { parseInstallation, type Installation } from '../installation'
import { typeDirectory } from '../catalogue'
import { asFoundOf, nothingSeen, surveyed, surveySchema, type SeenCable, type Survey, type SurveyFact } from '.'

const example = 'two-port-heating-hot-water'
const doc = installationOf(example)
const hiddenOf = (seed: number, put?: string, of = doc) => {
  const random = numbers(seed)
  const truth = put === undefined ? of : departuresPutIn[put](of, random)
  return truth && new HiddenWiring(withOtherColours(truth, random), random)
}
const cable = (id: string, cores: [string, string][], more: Partial<SeenCable> = {}): SeenCable =>
  surveySchema.shape.cables.unwrap().element.parse({
    id,
    label: id,
    cores: cores.map(([colour, terminal], i) => ({ id: `k${i + 1}`, colour, at: { at: 'terminal', terminal } })),
    ...more,
  })
/** The valve's lead, and three cables of which nobody knows the other end. */
const box = (facts: object[] = []): Survey =>
  surveySchema.parse({
    ...nothingSeen,
    cables: [
      cable(
        'lead',
        [
          ['brown', '5'],
          ['blue', '2'],
          ['green-yellow', '3'],
          ['grey', '1'],
          ['orange', '6'],
        ],
        { leadOf: 'two-port-valve' },
      ),
      cable('a', [
        ['brown', '4'],
        ['blue', '2'],
        ['green-yellow', '3'],
        ['black', '5'],
      ]),
      cable('b', [
        ['brown', '1'],
        ['blue', '2'],
        ['black', '4'],
      ]),
      cable('c', [
        ['brown', '1'],
        ['blue', '2'],
        ['green-yellow', '3'],
        ['black', '6'],
      ]),
    ],
    facts: facts.map((fact, i) => ({ id: `f${i + 1}`, ...fact })),
  })
const house = installationOf('two-port-heating')
const ends = (survey: Survey) =>
  Object.fromEntries(
    surveyed(survey, house).cores.map(({ cable: of, core, sure, to }) => [
      `${of} ${core}`,
      `${sure}: ${to?.at === 'terminal' ? to.terminal : to?.at}`,
    ]),
  )
const followed: Omit<SurveyFact, 'id' | 'by'>[] = [{ see: 'follows', cable: 'lead', device: 'zv-1' } as never]

describe('what follows from what is certain', () => {
  it('names the conductors of a lead that was followed by their colours', () => {
    expect(ends(box(followed))).toMatchObject({
      'lead k1': 'certain: zv-1.M',
      'lead k4': 'certain: zv-1.SF',
      'lead k5': 'certain: zv-1.SO',
    })
  })

  it('follows single conductors on: what goes on from the valve’s motor comes from its thermostat, and that from the channel', () => {
    expect(ends(box(followed))).toMatchObject({
      'a k4': 'likely: stat-1.SL',
      'a k1': 'likely: stat-1.L',
      'b k3': 'likely: programmer.HTG-ON',
      'c k4': 'likely: boiler.SL',
    })
  })

  it('says what speaks for it', () => {
    const { cores } = surveyed(box(followed), house)
    const { because } = cores.find((one) => one.cable === 'a' && one.core === 'k4')!
    expect(because).toEqual([{ why: 'sits-with', box: '5', with: 'zv-1.M', cable: 'lead', core: 'k1' }])
  })

  it('makes a whole cable certain of one conductor rung out, once the colours behind the plate are known; not before', () => {
    const rung = { see: 'rung', cable: 'a', core: 'k4', to: 'stat-1.SL', joined: true }
    const plate = {
      see: 'plate',
      device: 'stat-1',
      sheaths: [
        {
          cores: [
            { colour: 'brown', at: { at: 'terminal', terminal: 'L' } },
            { colour: 'blue', at: { at: 'terminal', terminal: 'N' } },
            { colour: 'black', at: { at: 'terminal', terminal: 'SL' } },
            { colour: 'green-yellow', at: { at: 'cut-back' } },
          ],
        },
      ],
    }
    expect(ends(box([rung]))).toMatchObject({ 'a k4': 'certain: stat-1.SL', 'a k1': 'likely: stat-1.L' })
    expect(ends(box([plate]))).toMatchObject({ 'a k4': 'likely: stat-1.SL', 'a k3': 'likely: cut-back' })
    expect(ends(box([rung, plate]))).toMatchObject({
      'a k1': 'certain: stat-1.L',
      'a k2': 'certain: stat-1.N',
      'a k3': 'certain: cut-back',
    })
  })

  it('weighs a label against the wiring, and says which of them is likely mistaken', () => {
    const said = { see: 'said', cable: 'a', device: 'boiler', from: 'label' }
    const { cables, doubtful } = surveyed(box([...followed, said]), house)
    expect(cables.find((one) => one.cable === 'a')).toMatchObject({ device: 'stat-1', sure: 'likely' })
    expect(doubtful).toMatchObject([{ id: 'f2' }])
  })

  it('takes nothing as certain by facts that exclude each other, and names them', () => {
    const at = (to: string) => ({ see: 'far-end', cable: 'a', core: 'k4', to })
    const { cores, disputes } = surveyed(box([at('stat-1.SL'), at('boiler.SL')]), house)
    expect(disputes).toEqual([['f1', 'f2']])
    expect(cores.find((one) => one.cable === 'a' && one.core === 'k4')!.sure).not.toBe('certain')
  })

  it('has a lead of one device excluded from another; a cable may serve two, and a joint behind a plate may go on to a terminal', () => {
    const disputes = (of: Installation, ...facts: object[]) => surveyed(box(facts), of).disputes
    const rung = (cable: string, core: string, to: string) => ({ see: 'rung', cable, core, to, joined: true })
    const valve = { see: 'follows', cable: 'lead', device: 'zv-1' }
    expect(disputes(doc, valve, rung('lead', 'k1', 'zv-hw.M'))).toEqual([['f1', 'f2']])
    expect(disputes(doc, { ...valve, cable: 'a', device: 'stat-1' }, rung('a', 'k1', 'programmer.L'))).toEqual([])
    const behind = (at: object) => ({ see: 'plate', device: 'stat-1', sheaths: [{ cores: [{ colour: 'black', at }] }] })
    const sl = rung('a', 'k4', 'stat-1.SL')
    expect(disputes(house, behind({ at: 'joint', joint: 1 }), sl)).toEqual([])
    expect(disputes(house, behind({ at: 'terminal', terminal: 'L' }), sl)).toEqual([['f1', 'f2']])
  })

  it('tells of a cable that is not there only once every cable is written down', () => {
    const kinds = (survey: Survey) => surveyed(survey, house).departures.map(({ kind }) => kind)
    expect(kinds(box(followed))).toEqual([])
    expect(kinds({ ...box(followed), complete: true })).toContain('fed-otherwise')
  })

  it('says nothing of an empty box; and of a lead that is not this valve’s, that it goes elsewhere', () => {
    expect(surveyed({ ...nothingSeen, complete: true }, house)).toMatchObject({
      cables: [],
      cores: [],
      departures: [],
      next: [],
    })
    const denied = ['M', 'N', 'E', 'SF', 'SO'].map((t) => ({
      see: 'rung',
      cable: 'lead',
      core: 'k1',
      to: `zv-1.${t}`,
      joined: false,
    }))
    // It is the lead of such a valve, and not of this one: another that is on no list.
    expect(surveyed(box(denied), house).cables[0]).toMatchObject({ cable: 'lead', away: true, sure: 'likely' })
  })
})

describe('a box of which no far end is known', () => {
  it('is certain throughout after the looks that are proposed, fewer than with everything opened in turn', () => {
    const hidden = hiddenOf(5)!
    const run = runProposed(hidden, doc)
    expect(run.certain).toBe(run.conductors)
    expect(run.looks).toBeLessThan(runInTurn(hidden, doc).looks)
    expect(run.result.departures).toEqual([])
  })

  it('is never told as certain where it is not so, whatever departs from the drawing', () => {
    const kinds = [undefined, ...Object.keys(departuresPutIn)]
    fc.assert(
      fc.property(fc.constantFrom(...kinds), fc.nat(99), fc.nat(20), (put, seed, looks) => {
        const hidden = hiddenOf(seed, put, seed % 2 ? doc : house)
        if (!hidden) return
        const against = seed % 2 ? doc : house
        let { survey } = hidden
        for (let i = 0; i < looks; i++) {
          const result = surveyed(survey, against)
          expect(falselyCertain(hidden, result)).toEqual([])
          const { next } = result
          // Whoever looks need not look where it is proposed.
          const look = next[(seed + i) % Math.max(1, next.length)] as (typeof next)[number] | undefined
          if (!look) break
          survey = { ...survey, facts: [...survey.facts, ...hidden.look(look.what)] }
        }
      }),
      { numRuns: 12 },
    )
  })

  it.each(Object.keys(departuresPutIn))('has the departure "%s" found and named', (put) => {
    const hidden = hiddenOf(11, put)!
    const { departures } = runProposed(hidden, doc).result
    expect(departures.map(({ kind }) => kind)).toContain(put)
  })

  it('makes a wiring as found that joins what is really joined, each end as sure as it is', () => {
    const hidden = hiddenOf(8, 'through-wall')!
    const { survey, result } = runProposed(hidden, doc)
    const found = parseInstallation(asFoundOf(survey, result, doc), typeDirectory)
    const nodes = doc.devices.flatMap(({ id }) =>
      compile(doc).atoms.flatMap(({ ref, owner, kind }) => (owner === id && kind !== 'internal' ? [ref] : [])),
    )
    expect(netsAmong(found, nodes)).toEqual(netsAmong(hidden.truth, nodes))
    const provenances = found.cables.flatMap(({ cores }) => cores.map(({ ends: [far] }) => far.provenance))
    expect(new Set(provenances)).toEqual(new Set(['tested', 'assumed']))
  })

  it('of which only a part is written down becomes a wiring with ends that nobody knows', () => {
    const found = asFoundOf(box(), surveyed(box(), house), house)
    expect(parseInstallation(found, typeDirectory).wiringCentres[0].terminals).toHaveLength(6)
  })
})
