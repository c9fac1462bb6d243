import { circuitOf, installationOf, loosenCore, moveCore, numbers, rigAfter } from '../../testing'
import { compile, type Circuit } from '../circuit'
import { examples } from '../examples'
import { alterationsOf, faultsOf, Rig } from '../hypotheses'
import { demandActions, subsets } from '../inputs'
import { edited } from '../installation'
import type { Action } from '../simulation'
import { claimText } from '../wording'
import { endsOf, explained, failedIn, whyDemand, whyTerminal, type Cause } from '.'

const halfAnHour: Action = { do: 'wait', ms: 30 * 60_000 }
/** What a chain may end at besides what is wrong: how something is set, and how warm it is. */
const settings: readonly string[] = ['control', 'setting', 'sensor']

/** What wiring of some circuit comes to, with some demands wanted, and what makes it so. */
function told(circuit: Circuit, plan: Circuit | undefined, before: readonly Action[], wanted: readonly string[]) {
  const acts = [...before, ...demandActions(circuit, wanted), halfAnHour]
  const rig = Rig.after(circuit, acts)
  return explained(rig.simulation, { plan, acts }).map(({ effect, because }) => ({
    effect,
    ends: because.flatMap(endsOf),
    texts: because.flatMap(endsOf).map((c) => claimText(circuit, c.claim, c.failed)),
  }))
}

/** Nothing wanted, each demand alone, and all together. */
const wantedSets = (circuit: Circuit) => {
  const ids = circuit.installation.intent.demands.map((d) => d.id)
  return subsets(ids).filter((s) => s.length < 2 || s.length === ids.length)
}

/** A chain that names nothing wrong, or ends at a part that is in order. */
const unexplained = (ends: readonly Cause[]) =>
  !ends.some((c) => c.failed) || ends.some((c) => !c.failed && !settings.includes(c.claim.is))

describe('why, of every example', () => {
  it('finds nothing to explain in one that is in order', () => {
    for (const { id } of examples) {
      const circuit = circuitOf(id)
      for (const wanted of wantedSets(circuit))
        expect([id, wanted, told(circuit, undefined, [], wanted)]).toEqual([id, wanted, []])
    }
  })

  it('names the fault behind every unmet demand and everything that nobody asked for, and never a healthy part', () => {
    let effects = 0
    for (const { id } of examples) {
      const circuit = circuitOf(id)
      for (const { name } of faultsOf(circuit))
        for (const wanted of wantedSets(circuit))
          for (const { effect, ends, texts } of told(circuit, undefined, [{ do: 'fault', fault: name }], wanted)) {
            effects++
            if (unexplained(ends)) expect([id, name, wanted, effect]).toEqual(texts)
          }
    }
    expect(effects).toBeGreaterThan(3000)
  })

  // Three hundred at a time; NOBBET_ALTERATIONS=1000 looks at a thousand.
  const wanted = Number(process.env.NOBBET_ALTERATIONS ?? 300)
  it('names the conductor, link or setting that departs from the plan, of sampled alterations', () => {
    const random = numbers(1127)
    const all = examples.flatMap(({ id }) => {
      const plan = circuitOf(id)
      return alterationsOf(plan).map((alteration) => ({ id, plan, alteration }))
    })
    const share = wanted / all.length
    let effects = 0
    let drawn = 0
    for (const { id, plan, alteration } of all) {
      if (random() > share) continue
      drawn++
      const circuit = compile(edited(plan.installation, alteration.command).doc, plan)
      for (const asked of wantedSets(plan))
        for (const { effect, ends, texts } of told(circuit, plan, [], asked)) {
          effects++
          if (unexplained(ends)) expect([id, alteration.name, asked, effect]).toEqual(texts)
        }
    }
    expect(drawn).toBeGreaterThan(0.8 * wanted)
    expect(effects).toBeGreaterThan(0.3 * wanted)
  })
})

describe('why, beside a plan', () => {
  const plan = circuitOf('two-port-heating')
  const house = ['programmer.heating=on', 'stat-1.set=21', 'wait=60s']
  const wrong = (circuit: Circuit, cause: Cause) => failedIn(cause).map((c) => claimText(circuit, c.claim, true))

  it('says in which terminal a core sits, and in which it is planned', () => {
    const doc = installationOf('two-port-heating')
    moveCore(doc, 'boiler-cable', 'black', 1, 'wc.5')
    const circuit = compile(doc)
    const { simulation } = rigAfter(circuit, ...house)
    expect(wrong(circuit, whyTerminal(simulation, 'boiler.SL', { plan }))).toEqual([
      expect.stringMatching(/^black of Boiler cable is in Wiring centre 5 .*, planned in Wiring centre \d+ /),
    ])
    // Without the plan nobody knows where it belongs: only that nothing brings it.
    expect(wrong(circuit, whyTerminal(simulation, 'boiler.SL'))).toEqual(['nothing brings line to Boiler SL'])
  })

  it('names a core that hangs loose, and one that is not there', () => {
    const loose = installationOf('two-port-heating')
    loosenCore(loose, 'stat-1-cable', 'black', 1)
    const gone = installationOf('two-port-heating')
    const cable = gone.cables.find((c) => c.id === 'stat-1-cable')!
    cable.cores = cable.cores.filter((core) => core.id !== 'black')
    const said = [loose, gone].map((doc) => {
      const circuit = compile(doc)
      const { simulation } = rigAfter(circuit, ...house)
      const [demand] = circuit.installation.intent.demands
      return whyDemand(simulation, demand, { plan }).flatMap((cause) => wrong(circuit, cause))
    })
    expect(said).toEqual([
      [expect.stringMatching(/^black of House thermostat cable is on nothing, planned in /)],
      ['black of House thermostat cable is planned, and is not there'],
    ])
  })

  it('says nothing against a core that sits elsewhere on the same function', () => {
    const doc = installationOf('two-port-heating')
    const circuit0 = compile(doc)
    const link = circuit0.installation.links[0].between
    const core = doc.cables
      .flatMap((c) => c.cores.map((k) => ({ c, k })))
      .find(({ k }) => k.ends.some((e) => e.at === 'terminal' && e.terminal === link[0]))!
    const end = core.k.ends.findIndex((e) => e.at === 'terminal' && e.terminal === link[0]) as 0 | 1
    moveCore(doc, core.c.id, core.k.id, end, link[1])
    const circuit = compile(doc)
    const { simulation } = rigAfter(circuit, 'programmer.heating=on', 'wait=60s')
    expect(wrong(circuit, whyTerminal(simulation, 'boiler.SL', { plan }))).toEqual([])
  })

  it('tells what opened a fuse by the moment before it did', () => {
    const doc = installationOf('two-port-heating')
    doc.links.push({ id: 'stray', kind: 'fitted', between: ['zv-1.M', 'zv-1.N'] })
    const circuit = compile(doc)
    const acts: Action[] = [...demandActions(circuit, ['heating-1']), halfAnHour]
    const { simulation } = Rig.after(circuit, acts)
    const [demand] = circuit.installation.intent.demands
    const named = whyDemand(simulation, demand, { plan, acts }).flatMap((cause) => wrong(circuit, cause))
    expect(named).toEqual([
      expect.stringMatching(/^The link between House valve brown and House valve blue is in, and should be out$/),
    ])
  })
})
