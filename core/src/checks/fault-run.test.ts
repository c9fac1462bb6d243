import { circuitOf, installationOf, loosenCore } from '../../testing'
import { compile, type Circuit } from '../circuit'
import { examples } from '../examples'
import { faultsOf, type Fault } from '../hypotheses'
import { flagsOf, noDefects } from '../simulation'
import { alikeZones, breachKey, explored } from '../states'
import { faultRun, type FaultEnd, type FaultRunOptions } from './fault-run'

function endsOf(circuit: Circuit, options?: FaultRunOptions): FaultEnd[] {
  const run = faultRun(circuit, options)
  for (;;) {
    const { done, value } = run.next()
    if (done) return value
  }
}
const dangers = (ends: readonly FaultEnd[]) => ends.filter((e) => e.danger).map((e) => e.fault.name)

/** Every 24th fault, beginning elsewhere in each example, and the end switch of the last valve. */
const sample = (offset: number, faults: readonly Fault[]) => {
  const switches = faults.filter((f) => f.name.endsWith('end-switch.stuck-made')).slice(-1)
  return new Set(
    [...faults.filter((_, i) => i % 24 === offset % Math.min(24, faults.length)), ...switches].map((f) => f.name),
  )
}

describe('with one fault each', () => {
  it('finds the danger in the second of two like zones as in the first', () => {
    expect(dangers(endsOf(circuitOf('two-port-two-heating')))).toEqual([
      'programmer.heating.stuck-operated',
      'stat-1.contact.stuck-made',
      'zv-1.travel.seized-open',
      'zv-1.travel.no-return',
      'zv-1.end-switch.stuck-made',
      'stat-2.contact.stuck-made',
      'zv-2.travel.seized-open',
      'zv-2.travel.no-return',
      'zv-2.end-switch.stuck-made',
      'boiler.call.stuck-calling',
    ])
  })

  it('finds the same danger in each of five like zones', () => {
    const circuit = circuitOf('two-port-five-heating-hot-water')
    const of = (device: string) => {
      const ends = endsOf(circuit, { only: (f) => f.name.startsWith(`${device}.`) })
      return ends.map((e) => [e.fault.name.slice(device.length), e.danger !== undefined, e.complete])
    }
    const first = of('zv-1')
    expect(first.filter(([, danger]) => danger)).toHaveLength(3)
    for (const zone of [3, 5]) expect(of(`zv-${zone}`)).toEqual(first)
  })

  it.each(examples.map((e, i) => [e.id, i] as const))(
    'says the same of %s whether zones that are alike are counted together or told apart',
    (id, i) => {
      const circuit = circuitOf(id)
      const chosen = sample(
        i,
        faultsOf(circuit).filter((f) => f.subject.kind === 'device'),
      )
      const only = (f: Fault) => chosen.has(f.name)
      // Where there are more states than are looked at, nothing is known of what was not found.
      const together = endsOf(circuit, { only, mostStates: 4000 })
      const apart = endsOf(circuit, { only, mostStates: 1500, together: false })
      expect(together.some((e) => e.complete)).toBe(true)
      for (const [n, end] of apart.entries())
        if (end.complete && together[n].complete)
          expect([end.fault.name, together[n].danger !== undefined]).toEqual([end.fault.name, end.danger !== undefined])
    },
  )

  it('takes a zone with something broken in it for unlike one that is whole', () => {
    const circuit = circuitOf('two-port-two-heating')
    const { defects } = faultsOf(circuit).find((f) => f.name === 'zv-2.motor.open')!
    expect(alikeZones(circuit, noDefects(circuit))).toHaveLength(1)
    expect(alikeZones(circuit, flagsOf(circuit, defects))).toEqual([])
  })

  it('looks at a contact that makes at times only as one that makes and as one that misses', () => {
    const circuit = circuitOf('two-port-heating')
    const { defects } = faultsOf(circuit).find((f) => f.name === 'zv-1.end-switch.makes-sometimes')!
    const { table, breaches } = explored(circuit, { flags: flagsOf(circuit, defects) })
    const calls = table.find((row) => row.wanted.length === 1)!.outcomes.map((o) => o.calls.join())
    expect([...new Set(calls)].sort()).toEqual(['', 'boiler.SL'])
    expect(breaches.map((b) => b.breach.property)).toEqual(['demand-served'])
  })
})

describe('what is wrong in zones that are alike', () => {
  it('is told of each of them, with a way to it of its own', () => {
    const doc = installationOf('two-port-two-heating')
    for (const zone of [1, 2]) loosenCore(doc, `zv-${zone}-lead`, 'grey', 1)
    const circuit = compile(doc)
    const { breaches, alike } = explored(circuit)
    expect(alike).toHaveLength(1)
    const apart = explored(circuit, { together: false })
    expect(breaches.map((b) => breachKey(b.breach)).sort()).toEqual(
      apart.breaches.map((b) => breachKey(b.breach)).sort(),
    )
    expect(breaches.map((b) => b.breach.demands)).toEqual([['heating-1'], ['heating-2']])
    const inputs = breaches.map(({ path }) => path.flatMap((h) => (h.what === 'input' ? [h.input] : [])))
    expect(new Set(inputs.map(String)).size).toBe(2)
  })
})
