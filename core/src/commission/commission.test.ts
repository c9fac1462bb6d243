import fc from 'fast-check'
import { circuitOf, installationOf, moveCore } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import { Rig } from '../hypotheses'
import { demandActions } from '../inputs'
import { planBriefSchema, planSystem } from '../planning'
import { huntEntrySchema, misfits } from '../hunt'
import { carriedOut, commissioningRun, evidenceOf, meets, rowFrom, shownAnotherWay, usualRun, type RunRow } from '.'

const twoPort = circuitOf('two-port-heating-hot-water')
const midPosition = circuitOf('mid-position')
const runOf = (circuit = twoPort) => commissioningRun(circuit)
const words = (row: RunRow | undefined) =>
  Object.fromEntries(
    (row?.looks ?? []).map(({ see, expect }) => [
      'device' in see ? `${see.at} ${see.device}` : see.at,
      'word' in expect ? expect.word : 'value' in expect ? expect.value : '',
    ]),
  )
const rowOf = (rows: readonly RunRow[], id: string) => rows.find((row) => row.id === id)
/** What stands at the device's end of the conductor that ends here. */
function legendOf({ installation }: typeof twoPort, device: string, ref: string): string {
  const refs = installation.cables.flatMap(({ cores }) =>
    cores.map(({ ends }) => ends.map((end) => 'terminal' in end && end.terminal)),
  )
  const own = refs.find((ends) => ends.includes(ref) && ends.some((one) => one && one.startsWith(`${device}.`)))
  return String(own?.find((one) => one && one.startsWith(`${device}.`))).slice(device.length + 1)
}
const failing = (circuit: typeof twoPort, ...faults: string[]) => {
  const rig = Rig.after(
    circuit,
    faults.map((fault) => ({ do: 'fault', fault })),
  )
  return [...carriedOut(rig, commissioningRun(circuit))].flatMap(({ row, otherwise }) =>
    otherwise.length > 0 ? [row.id] : [],
  )
}

describe('the commissioning run', () => {
  it('goes from earths and polarity over each demand alone and together to overrun and isolation', () => {
    expect(runOf().map(({ id }) => id)).toEqual([
      'as-it-stood',
      'box',
      'earths',
      'polarity',
      'covers',
      'rest',
      'before-travel-ends heating-1',
      'alone heating-1',
      'thermostat-down heating-1',
      'thermostat-up heating-1',
      'channel-off heating-1',
      'before-travel-ends hot-water',
      'alone hot-water',
      'thermostat-down hot-water',
      'thermostat-up hot-water',
      'channel-off hot-water',
      'together',
      'dropped-from-together heating-1',
      'dropped-from-together hot-water',
      'all-off',
      'overrun-over',
      'isolated',
      'put-back',
      'told',
    ])
  })

  it('expects the boiler called near the end of travel and not before it, the pump, and the right thing warm', () => {
    const rows = runOf()
    expect(words(rowOf(rows, 'before-travel-ends heating-1'))).toEqual({ 'boiler boiler': 'not-called' })
    expect(words(rowOf(rows, 'alone heating-1'))).toMatchObject({
      'boiler boiler': 'called',
      'valve zv-1': 'open',
      'valve zv-hw': 'shut',
      'pump pump': 'running',
      'warmth radiators-heating-1': 'warms',
      'warmth hot-water-cylinder': 'stays-cold',
    })
    expect(words(rowOf(rows, 'all-off'))).toMatchObject({ 'boiler boiler': 'not-called', 'pump pump': 'running' })
    expect(words(rowOf(rows, 'overrun-over'))).toEqual({ 'pump pump': 'not-running' })
  })

  it('of a mid-position valve expects it to stay where heating left it: held over is no fault', () => {
    expect(words(rowOf(runOf(midPosition), 'channel-off heating-1'))).toMatchObject({
      'valve valve': 'open',
      'boiler boiler': 'not-called',
    })
  })

  it('goes to a control only to set it otherwise than it stands', () => {
    const stands = new Map<string, string>()
    for (const { acts } of runOf())
      for (const act of acts)
        if (act.do === 'set') {
          const control = `${act.device}.${act.control}`
          expect(stands.get(control)).not.toBe(act.value)
          stands.set(control, act.value)
        }
  })

  it('takes nothing for granted of how the controls stand: everything off sets each of them', () => {
    const [programmer, stats] = [
      ['programmer.heating', 'programmer.hot-water'],
      ['stat-1.set', 'cyl-stat.set'],
    ]
    const set = rowOf(runOf(), 'rest')!.acts.map((act) => (act.do === 'set' ? `${act.device}.${act.control}` : ''))
    expect(set).toEqual(expect.arrayContaining(['spur.switch', ...programmer, ...stats]))
  })

  it('has each thing felt to warm once: what is hot already cannot be felt to warm', () => {
    const felt = runOf().flatMap(({ looks }) =>
      looks.flatMap(({ see, expect: is }) =>
        see.at === 'warmth' && 'word' in is && is.word === 'warms' ? [see.device] : [],
      ),
    )
    expect(felt).toEqual(['radiators-heating-1', 'hot-water-cylinder'])
  })

  it('counts links and cables of the open box, and has every cover that came off put on before the power goes on', () => {
    const rows = runOf()
    const box = rowOf(rows, 'box')!.byHand
    const { links, cables } = twoPort.installation
    const boxed = cables.filter((cable) => JSON.stringify(cable.cores).includes('"wc.'))
    expect(box).toEqual([
      { check: 'links', centre: 'wc', links: links.map(({ between }) => between.map((ref) => ref.slice(3))) },
      { check: 'clamped', centre: 'wc', cables: boxed.map(({ label }) => label) },
    ])
    const covers = rowOf(rows, 'covers')!.byHand
    for (const owner of ['wc', 'boiler', 'programmer']) expect(covers).toContainEqual({ check: 'cover', owner })
    expect(rows.findIndex(({ id }) => id === 'covers')).toBeLessThan(rows.findIndex(({ id }) => id === 'rest'))
  })

  it('before anything is touched measures nothing, and needs no cover off', () => {
    const rows = commissioningRun(twoPort, { ...usualRun, coversOn: true })
    expect(rows.flatMap(({ looks }) => looks).filter(({ see }) => see.at === 'points')).toEqual([])
    expect(rows.flatMap(({ byHand }) => byHand).filter(({ check }) => check === 'cover' || check === 'links')).toEqual(
      [],
    )
    expect(rowOf(rows, 'alone hot-water')).toBeDefined()
  })

  it('measures insulation where it is asked for: as much as the trade asks is enough, less is not', () => {
    const [line] = rowOf(commissioningRun(twoPort, { ...usualRun, insulation: true }), 'insulation')!.looks
    expect([1, 200, null].map((value) => meets(line, { value, unit: 'MΩ' }))).toEqual([true, true, true])
    expect(meets(line, { value: 0.4, unit: 'MΩ' })).toBe(false)
  })

  it('of an earth passes fewer ohms than expected, and not many more', () => {
    const [look] = rowOf(runOf(), 'earths')!.looks
    expect([0, 0.5, 40].map((value) => meets(look, { value, unit: 'Ω' }))).toEqual([true, true, false])
  })

  it('puts controls back as they were written down; of the others it asks', () => {
    const stood = { 'stat-1.set': '19', 'programmer.heating': 'no-such-mode' }
    const last = rowOf(commissioningRun(twoPort, { ...usualRun, stood }), 'put-back')!
    expect(last.acts).toEqual([
      { do: 'set', device: 'spur', control: 'switch', value: 'on' },
      { do: 'set', device: 'stat-1', control: 'set', value: '19' },
    ])
    expect(last.byHand.flatMap((one) => (one.check === 'as-wanted' ? [`${one.device}.${one.control}`] : []))).toEqual([
      'programmer.heating',
      'programmer.hot-water',
      'cyl-stat.set',
    ])
  })

  it('shows a cylinder that is too hot to call another way: common live, SATISFIED live, DEMAND dead', () => {
    const rows = runOf(midPosition)
    const found = Object.fromEntries(
      shownAnotherWay(midPosition, rows, 'alone hot-water').map(({ see, expect: is }) => [
        see.at === 'points' ? legendOf(midPosition, 'cyl-stat', see.red) : '',
        'word' in is && is.word,
      ]),
    )
    expect(found).toEqual({ C: 'live', SATISFIED: 'live', DEMAND: 'dead' })
    expect(shownAnotherWay(midPosition, rows, 'all-off')).toEqual([])
  })

  it('tells a hunt what was done and seen, in the order in which it was, and no more than it takes', () => {
    const rows = runOf()
    const done = rows.map((row, i) => ({
      id: `row-${i}`,
      acts: row.acts.flatMap((act) => (act.do === 'set' ? [`${act.device}.${act.control}=${act.value}`] : [])),
      waitMs: row.waitMs,
      looks: row.looks.map(({ see, expect: found }) => ({ see, found })),
    }))
    const log = evidenceOf(done)
    for (const entry of log) huntEntrySchema.parse(entry)
    expect(misfits(twoPort, log)).toEqual([])
    expect(log.filter((entry) => 'see' in entry)).toHaveLength(rows.flatMap(({ looks }) => looks).length)
    const [many, most] = [[0, 1, 2, 3, 4].flatMap((k) => done.map((row) => ({ ...row, id: `${row.id}-${k}` }))), 300]
    const long = evidenceOf(many)
    expect(long.length).toBeLessThanOrEqual(most)
    expect(long.filter((entry) => 'do' in entry)).toHaveLength(5 * log.filter((entry) => 'do' in entry).length)
    expect(long.at(-1)).toMatchObject({ id: expect.stringMatching(/^row-.*-4\+/) })
  })

  it('has hot water first for whoever wants it so, and in summer only each demand alone', () => {
    const first = commissioningRun(twoPort, { ...usualRun, first: 'hot-water' })
    expect(first.find(({ kind }) => kind === 'alone')!.demand).toBe('hot-water')
    const short = commissioningRun(twoPort, { ...usualRun, short: true })
    expect(short.map(({ kind }) => kind)).toEqual([
      'as-it-stood',
      'rest',
      // The boiler is still called by the valve that is on its way shut.
      ...['before-travel-ends', 'alone', 'alone'],
      ...['all-off', 'overrun-over', 'isolated', 'put-back', 'told'],
    ])
    const minutes = (rows: readonly RunRow[]) => rows.reduce((sum, row) => sum + row.minutes, 0)
    expect(minutes(short)).toBeLessThan(minutes(runOf()) / 2)
    // Somebody at the controls spares the way to them.
    expect(minutes(commissioningRun(twoPort, { ...usualRun, helper: true }))).toBeLessThan(minutes(runOf()))
  })

  it.each(examples.map(({ id }) => [id]))('of %s is passed row by row by the healthy installation', (id) => {
    const circuit = circuitOf(id)
    const rows = commissioningRun(circuit)
    expect(rows.filter(({ kind }) => kind === 'alone')).toHaveLength(circuit.installation.intent.demands.length)
    expect(failing(circuit)).toEqual([])
    expect(rows.filter(({ amiss }) => amiss)).toEqual([])
  })

  it.each([
    [twoPort, 'zv-1.motor.open', 'alone heating-1'],
    [twoPort, 'zv-hw.end-switch.stuck-made', 'rest'],
    [twoPort, 'programmer.heating.stuck-operated', 'channel-off heating-1'],
    [twoPort, 'zv-1-lead.green-yellow.open', 'earths'],
    [twoPort, 'boiler-cable.black.open', 'alone heating-1'],
    [twoPort, 'spur.pole-L.stuck-made', 'isolated'],
    [midPosition, 'valve.s2.never-operates', 'alone heating-1'],
  ])('fails with a fault where it shows: %#', (circuit, fault, row) => {
    expect(failing(circuit, fault)).toContain(row)
  })

  it.each(examples.map(({ id }) => [id]))(
    'of %s is passed whatever was asked for before it, and whichever rows are left out',
    (id) => {
      const circuit = circuitOf(id)
      const rows = commissioningRun(circuit)
      fc.assert(
        fc.property(
          fc.subarray(circuit.installation.intent.demands.map((demand) => demand.id)),
          fc.infiniteStream(fc.boolean()),
          (last, coins) => {
            const rig = new Rig(circuit)
            for (const wanted of [last, []]) {
              for (const act of demandActions(circuit, wanted)) rig.perform(act)
              rig.perform({ do: 'wait', ms: 1_200_000 })
            }
            const done: RunRow[] = []
            for (const { id: name } of rows) {
              if (coins.next().value) continue
              const row = rowFrom(circuit, rows, name, done)!
              const [{ otherwise }] = carriedOut(rig, [row])
              expect({ row: row.id, otherwise }).toEqual({ row: name, otherwise: [] })
              done.push(row)
            }
          },
        ),
        { numRuns: 2 },
      )
    },
  )

  it('expects nothing of a valve that stays where it was driven before the run', () => {
    expect(words(rowOf(runOf(midPosition), 'rest'))).not.toHaveProperty('valve valve')
    expect(words(rowOf(runOf(), 'rest'))).toHaveProperty('valve zv-1', 'shut')
  })

  it('sets first what rows that were left out would have set', () => {
    const rows = runOf()
    expect(rowFrom(twoPort, rows, 'alone heating-1', rows.slice(0, 7))).toBe(rows[7])
    const late = rowFrom(twoPort, rows, 'channel-off hot-water', [])!
    expect(late.acts.map((act) => (act.do === 'set' ? `${act.control}=${act.value}` : act.do))).toEqual([
      'switch=on',
      ...['heating=off', 'set=5', 'hot-water=on', 'set=75'],
      'wait',
      'hot-water=off',
    ])
  })

  it('of a wiring that is wrong as it is drawn expects what the demands say, never that a boiler is called unasked', () => {
    const doc = installationOf('two-port-heating-hot-water')
    // The boiler's call on its own permanent live.
    const cable = doc.cables.find(({ id }) => id === 'boiler-cable')!
    const line = cable.cores.find(({ id }) => id === 'brown')!.ends[1]
    moveCore(doc, 'boiler-cable', 'black', 1, line.at === 'terminal' ? line.terminal : '')
    const rows = commissioningRun(compile(doc))
    const rest = rowOf(rows, 'rest')!
    expect([rest.amiss, words(rest)]).toEqual([true, { 'boiler boiler': 'not-called' }])
    const found = [...carriedOut(new Rig(compile(doc)), rows)].flatMap(({ row, otherwise }) =>
      otherwise.length > 0 ? [row.id] : [],
    )
    expect(found).toContain('rest')
    const again = rowFrom(compile(doc), rows, 'rest', [])!
    expect(words(again)).toEqual({ 'boiler boiler': 'not-called' })
  })

  it('of a system without a switch at its supply neither isolates nor measures earths', () => {
    const brief = planBriefSchema.parse({ scheme: 'two-port', circuits: [{ kind: 'heating', name: 'House' }] })
    const plan = planSystem(brief, 'plan', 'Plan')
    const without = { ...plan, devices: plan.devices.filter(({ id }) => id !== 'spur') }
    const doc = { ...without, cables: plan.cables.filter(({ id }) => id !== 'supply') }
    const kinds = commissioningRun(compile(doc)).map(({ kind }) => kind)
    expect(kinds).not.toContain('isolated')
    expect(kinds).toContain('alone')
  })
})
