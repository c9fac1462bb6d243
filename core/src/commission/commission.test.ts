import { circuitOf } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import { Rig } from '../hypotheses'
import { planBriefSchema, planSystem } from '../planning'
import { carriedOut, commissioningRun, usualRun, type RunRow } from '.'

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
      'earths',
      'polarity',
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

  it('has hot water first for whoever wants it so, and in summer only each demand alone', () => {
    const first = commissioningRun(twoPort, { ...usualRun, first: 'hot-water' })
    expect(first.find(({ kind }) => kind === 'alone')!.demand).toBe('hot-water')
    const short = commissioningRun(twoPort, { ...usualRun, short: true })
    expect(new Set(short.map(({ kind }) => kind))).toEqual(
      new Set(['rest', 'before-travel-ends', 'alone', 'all-off', 'overrun-over', 'isolated']),
    )
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
  })

  it.each([
    [twoPort, 'zv-1.motor.open', 'alone heating-1'],
    [twoPort, 'zv-hw.end-switch.stuck-made', 'rest'],
    [twoPort, 'programmer.heating.stuck-operated', 'channel-off heating-1'],
    [twoPort, 'zv-1-lead.green-yellow.open', 'earths'],
    [twoPort, 'boiler-cable.black.open', 'alone heating-1'],
    [midPosition, 'valve.s2.never-operates', 'alone heating-1'],
  ])('fails with a fault where it shows: %#', (circuit, fault, row) => {
    expect(failing(circuit, fault)).toContain(row)
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
