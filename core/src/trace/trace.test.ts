import { circuitOf, installationOf, loosenCore, moveCore, rigAfter } from '../../testing'
import { type AtomId, compile, type Circuit } from '../circuit'
import { examples } from '../examples'
import { faultsOf } from '../hypotheses'
import { claimText, openPointText } from '../wording'
import {
  callLoad,
  demandStates,
  failedIn,
  gatesOf,
  livePath,
  runsOf,
  unaskedCalls,
  whyLoad,
  whyTerminal,
  type Way,
} from '.'

const house = ['programmer.heating=on', 'stat-1.set=21']

/** A way as terminals: `-` along wiring, `[a|b]` a gate, `{…//…}` a split. */
const drawn = (circuit: Circuit, way: Way): string =>
  way
    .map((s) => {
      const ref = (atom: AtomId) => circuit.atoms[atom].ref
      if (s.kind === 'leg') return s.steps.map((step) => `-${ref(step.to)}`).join('')
      if (s.kind === 'gate') return `[${ref(s.from)}|${ref(s.to)}]`
      if (s.kind === 'split') return `{${s.branches.map((b) => drawn(circuit, b)).join('//')}}`
      return 'tangle'
    })
    .join('')

describe('runs', () => {
  const circuit = circuitOf('two-port-two-heating-hot-water')
  const run = (id: string) => runsOf(circuit).find((r) => r.id === id)!

  it('lead from the origin through fuse, channel and thermostat to the motor, terminal by terminal', () => {
    expect(drawn(circuit, run('zv-1.motor').way)).toBe(
      '[spur.origin-L|spur.feed-L][spur.feed-L|spur.switched-L][spur.switched-L|spur.L]-wc.1-wc.2-programmer.L' +
        '[programmer.L|programmer.HTG-ON]-wc.24-wc.25-stat-1.L[stat-1.L|stat-1.SL]-wc.27-wc.28-zv-1.M',
    )
  })

  it('show the end switches side by side, and what they share once', () => {
    expect(drawn(circuit, run('boiler.call').way)).toContain(
      '-wc.3{-zv-1.SF[zv-1.SF|zv-1.SO]-wc.35-wc.36-wc.37//-wc.4-zv-2.SF[zv-2.SF|zv-2.SO]-wc.36-wc.37//',
    )
  })

  it('reduce to lines and splits in every shipped example', () => {
    for (const { installation } of examples)
      for (const r of runsOf(compile(installation)))
        expect(drawn(compile(installation), r.way)).not.toMatch(/tangle|^$/)
  })

  it('keep a bridge of contacts whole instead of dropping it', () => {
    const doc = installationOf('two-port-two-heating')
    // Downstairs' switched live crosses to the other thermostat's feed: motor 2 is reached on two ways that share a contact.
    doc.links.push({ id: 'stray', kind: 'fitted', between: ['zv-1.M', 'zv-2.M'] })
    const way = runsOf(compile(doc)).find((r) => r.id === 'zv-2.motor')!.way
    expect(gatesOf(way).length).toBe(6)
  })
})

describe('the live path', () => {
  it('is told hop by hop: terminal, what carries it, terminal', () => {
    const { simulation } = rigAfter(circuitOf('two-port-heating'), ...house, 'wait=1s')
    const { circuit } = simulation
    const path = livePath(simulation, circuit.atomIndex.get('zv-1.M')!)!
    expect(path.slice(-2)).toEqual([
      { from: 'wc.17', via: { kind: 'link', link: expect.any(String) }, to: 'wc.18' },
      { from: 'wc.18', via: { kind: 'core', cable: 'zv-1-lead', core: 'brown', colour: 'brown' }, to: 'zv-1.M' },
    ])
    expect(livePath(simulation, circuit.atomIndex.get('boiler.SL')!)).toBeUndefined()
  })
})

describe('a demand, in one of four words', () => {
  const circuit = circuitOf('two-port-heating-hot-water')
  const words = (...actions: string[]) =>
    demandStates(rigAfter(circuit, ...actions).simulation).map((d) =>
      [d.word, ...d.openPoints.map((p) => openPointText(circuit, p))].join(' '),
    )

  it.each([
    [[], ['not-asked', 'not-asked']],
    [
      ['programmer.heating=on', 'wait=1s'],
      ['satisfied', 'not-asked'],
    ],
    [
      [...house, 'wait=5s'],
      ['calling', 'not-asked'],
    ],
    [
      [...house, 'wait=30s'],
      ['calling', 'not-asked'],
    ],
    [
      ['fault=stat-1.contact.never-makes', ...house, 'wait=30s'],
      ['held-up House thermostat contact', 'not-asked'],
    ],
    [
      ['fault=zv-1.motor.open', ...house, 'wait=30s'],
      ['held-up House valve motor, open inside', 'not-asked'],
    ],
    [
      ['fault=zv-1-lead.blue.open', ...house, 'wait=30s'],
      ['held-up blue of House valve lead', 'not-asked'],
    ],
    [
      ['fault=stat-1-cable.black.open', ...house, 'wait=30s'],
      ['held-up black of House thermostat cable', 'not-asked'],
    ],
    [
      ['fault=programmer.clock.open', ...house, 'wait=30s'],
      ['held-up Programmer heating channel', 'not-asked'],
    ],
    [
      ['fault=spur.fuse.blown', ...house, 'wait=30s'],
      ['held-up Fused spur fuse', 'not-asked'],
    ],
  ])('after %j', (actions, expected) => {
    expect(words(...actions)).toEqual(expected)
  })

  it('names its own end switch although another zone has the boiler running', () => {
    const asked = [...house, 'programmer.hot-water=on', 'cyl-stat.set=75', 'wait=60s']
    expect(words('fault=zv-hw.end-switch.never-makes', ...asked)).toEqual([
      'calling',
      'held-up Hot water valve end switch',
    ])
  })
})

describe('the chain of causes', () => {
  const circuit = circuitOf('two-port-heating-hot-water')
  const failures = (cause: ReturnType<typeof whyLoad>) => failedIn(cause).map((c) => claimText(circuit, c.claim, true))

  it('names the stuck end switch behind a call nobody asked for', () => {
    const { simulation } = rigAfter(circuit, 'fault=zv-hw.end-switch.stuck-made', 'wait=60s')
    const [call] = unaskedCalls(simulation)
    expect(failures(call.cause)).toEqual(['Hot water valve end switch is stuck made'])
  })

  it('leads from a dead call through the shut valve to the thermostat that is satisfied', () => {
    const { simulation } = rigAfter(circuit, 'programmer.heating=on', 'wait=10s')
    const told: string[] = []
    const tell = (cause: ReturnType<typeof whyTerminal>) => {
      told.push(claimText(circuit, cause.claim, cause.failed))
      cause.because.forEach(tell)
    }
    tell(whyTerminal(simulation, 'boiler.SL'))
    expect(told.slice(0, 6)).toEqual([
      'Boiler SL is not live',
      'House valve end switch is open',
      'House valve is shut',
      'House valve motor has no supply',
      'House valve brown is not live',
      'House thermostat contact is open',
    ])
    expect(told).toContain('House thermostat is satisfied: 18 °C, set to 10 °C')
  })

  it('finds every fault that keeps a called boiler from its call, and names nothing else', () => {
    for (const fault of faultsOf(circuit)) {
      const { simulation } = rigAfter(circuit, `fault=${fault.name}`, ...house, 'wait=60s')
      const call = callLoad(circuit, { boiler: 'boiler', input: 'SL' })
      if (simulation.loadEnergised(call)) continue
      expect([fault.name, failures(whyLoad(simulation, call))]).toEqual([fault.name, [expect.any(String)]])
    }
  })

  it('says so where nothing at all leads to a terminal', () => {
    const doc = installationOf('two-port-heating')
    loosenCore(doc, 'boiler-cable', 'black', 1)
    const broken = compile(doc)
    const cause = whyTerminal(rigAfter(broken, ...house, 'wait=30s').simulation, 'boiler.SL')
    expect(failedIn(cause).map((c) => claimText(broken, c.claim, true))).toEqual(['nothing brings line to Boiler SL'])
  })

  it('does not go round for ever where a cause leads back to itself', () => {
    const doc = installationOf('two-port-heating')
    moveCore(doc, 'programmer-cable', 'brown', 0, 'programmer.HTG-OFF')
    const looped = compile(doc)
    expect(whyTerminal(rigAfter(looped, 'programmer.heating=on', 'wait=50ms').simulation, 'programmer.L')).toBeDefined()
  })
})
