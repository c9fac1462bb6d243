import fc from 'fast-check'
import { installationOf } from '../../testing'
import { runSpice } from '../../testing/spice'
import { deviceType } from '../catalogue'
import { demandActions } from '../inputs'
import { type NetId, compile, magnitude, potentials, type Circuit, type Electrics } from '../circuit'
import { examples } from '../examples'
import type { Core, Installation } from '../installation'
import type { Simulation } from '../simulation'
import { Rig } from '../hypotheses'
import { netlist } from '.'

/** Picks from lists by numbers that a seeded generator draws. */
type Draw = <T>(list: readonly T[]) => T

/** The far ends of cores that lead a load back to neutral, or to its transformer. */
const returns = (doc: Installation) =>
  doc.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      ([0, 1] as const).flatMap((near): { core: Core; end: 0 | 1 }[] => {
        const end = core.ends[near]
        if (end.at !== 'terminal') return []
        const [owner, terminal] = end.terminal.split('.')
        const type = doc.devices.find((d) => d.id === owner)?.type
        const back = type && deviceType(type).primitives.some((p) => p.kind === 'load' && p.to === terminal)
        return back ? [{ core, end: near === 0 ? 1 : 0 }] : []
      }),
    ),
  )
/** Terminals of the wiring centre on which a signal comes and goes; where it holds none, those of the bus. */
const signals = (doc: Installation) => {
  const found = doc.wiringCentres[0].terminals
    .filter((t) => !['Line', 'Neutral', 'Earth', 'Spare', '24 V fed', '24 V common'].includes(t.legend))
    .map((t) => `wc.${t.id}`)
  return found.length > 0 ? found : ['receiver.B1', 'receiver.B2', 'receiver.H-NO']
}

const spoilt: Record<string, (doc: Installation, draw: Draw) => void> = {
  healthy: () => {},
  'open neutral': (doc, draw) => {
    const { core, end } = draw(returns(doc))
    core.ends[end] = { at: 'loose' }
  },
  'a load in series': (doc, draw) => {
    const { core, end } = draw(returns(doc))
    core.ends[end] = { at: 'terminal', terminal: draw(signals(doc)) }
  },
  'a back-feed': (doc, draw) => {
    const all = signals(doc)
    const first = draw(all)
    doc.links.push({ id: 'stray', kind: 'fitted', between: [first, draw(all.filter((t) => t !== first))] })
  },
}

/** Demands wanted and dropped in any combination a few times, some time after each; now and then any control anywhere. */
function stirred(circuit: Circuit, draw: Draw): Simulation {
  const rig = new Rig(circuit)
  const settable = circuit.devices.flatMap(({ device, type }) => type.controls.map((control) => ({ device, control })))
  const times = draw([1, 2, 3])
  for (let i = 0; i < times; i++) {
    const wanted = circuit.installation.intent.demands.filter(() => draw([true, true, false])).map((d) => d.id)
    for (const action of demandActions(circuit, wanted)) rig.perform(action)
    rig.perform({ do: 'wait', ms: draw([3, 900, 8000, 30_000, 60_000]) })
  }
  if (draw([true, false, false])) {
    const { device, control } = draw(settable)
    const value =
      control.kind === 'choice' ? draw(control.values.map((v) => v.id)) : String(draw([control.min, control.max]))
    rig.perform({ do: 'set', device: device.id, control: control.id, value })
    rig.perform({ do: 'wait', ms: draw([3, 900, 8000]) })
  }
  return rig.simulation
}

/** Does nothing but the leak bleed a direct voltage from this net? */
const onlyLeaks = (electrics: Electrics, net: NetId) =>
  electrics.dcOhms(net, electrics.nets.netOf[electrics.circuit.sources[0].neutral]) > 1e8

/** How far the farthest terminal is from what ngspice says, as a share of what is allowed, and which it is. */
function farthest(sim: Simulation): { share: number; at: string } {
  const { circuit, electrics } = sim
  const { text, nodeOf } = netlist(sim)
  const spice = runSpice(text, circuit.installation.supply.frequency)
  let worst = { share: 0, at: '' }
  for (const [ref, node] of nodeOf) {
    const atom = circuit.atomIndex.get(ref)!
    const ours = electrics.potential(electrics.nets.netOf[atom])
    const theirs = spice.get(node)
    if (!theirs) throw new Error(`ngspice knows no node ${node}`)
    // What only capacitance holds keeps the direct voltage of switching on for minutes: there the mean says nothing, and
    // while a diode still charges it, its slow rise shows as some tenths of a volt of the fundamental.
    const settled = potentials(electrics)[atom].state !== 'floating'
    const least = electrics.halfWave && onlyLeaks(electrics, electrics.nets.netOf[atom]) ? 1 : 0.2
    const away = Math.hypot(ours.re - theirs.re, ours.im - theirs.im) / Math.max(least, 0.01 * magnitude(ours))
    const mean = settled ? Math.abs(ours.mean - theirs.mean) / Math.max(0.2, 0.01 * Math.abs(ours.mean)) : 0
    const share = Math.max(away, mean)
    if (share > worst.share) worst = { share, at: `${ref}: ${JSON.stringify(ours)}, ngspice ${JSON.stringify(theirs)}` }
  }
  return worst
}

const states = 10

describe.each(examples.map((e) => e.id))('%s against ngspice, every terminal within 1 % or 0.2 V', (id) => {
  it.each(Object.keys(spoilt))(`%s, ${states} states`, (kind) => {
    const numbers = fc.sample(fc.noBias(fc.array(fc.nat(), { minLength: 40, maxLength: 40 })), {
      seed: 11,
      numRuns: states,
    })
    let compared = 0
    let halves = 0
    for (const drawn of numbers) {
      let next = 0
      const draw: Draw = (list) => list[drawn[next++ % drawn.length] % list.length]
      const doc = installationOf(id)
      spoilt[kind](doc, draw)
      const sim = stirred(compile(doc), draw)
      if (sim.shortNow) continue
      compared++
      if (sim.electrics.halfWave) halves++
      const { share, at } = farthest(sim)
      expect(share < 1 ? '' : at).toBe('')
    }
    expect(compared).toBeGreaterThanOrEqual(states)
    // The holding supply is among what is compared, or the comparison says nothing of it.
    if (id === 'mid-position' && kind === 'healthy') expect(halves).toBeGreaterThan(0)
  })
})

describe('a netlist', () => {
  it.each(['*ng_script', '.control', '*#shell id', 'House\n.control\nshell id\n.endc'])(
    'has no line that a simulator runs as a command, whatever a thing is called: %j',
    (name) => {
      const doc = installationOf('two-port-heating')
      doc.name = name
      for (const list of [doc.devices, doc.wiringCentres]) for (const one of list) one.name = name
      for (const cable of doc.cables) cable.label = name
      const lines = netlist(new Rig(compile(doc)).simulation).text.split('\n')
      expect(lines[0]).toMatch(/^Nobbet: /)
      expect(lines.filter((line) => /^(\.control|\*#|\*ng_script|shell)/.test(line))).toEqual([])
    },
  )

  it('names one resistor for every conductor, link and closed contact, and none for what is open', () => {
    const doc = installationOf('two-port-heating')
    const rig = Rig.after(compile(doc), [{ do: 'fault', fault: 'zv-1-lead.brown.open' }])
    const { text } = netlist(rig.simulation)
    for (const cable of doc.cables)
      for (const core of cable.cores) {
        const name = `r_${cable.id}_${core.id}`.replace(/-/g, '_')
        expect([name, text.toLowerCase().includes(`\n${name} `)]).toEqual([name, name !== 'r_zv_1_lead_brown'])
      }
    expect(text).toContain('\nR_link_1 ')
    expect(text).toContain('\nR_programmer_heating_nc ')
    expect(text).not.toContain('\nR_programmer_heating_no ')
    expect(text).toContain('.ac lin 1 50 50')
  })

  it('is a transient analysis where a diode conducts', () => {
    const both = ['programmer.heating=on', 'stat-1.set=25', 'programmer.hot-water=on', 'cyl-stat.set=75']
    const rig = new Rig(compile(installationOf('mid-position')))
    for (const text of both) {
      const [left, value] = text.split('=')
      const [device, control] = left.split('.')
      rig.perform({ do: 'set', device, control, value })
    }
    rig.perform({ do: 'wait', ms: 60_000 })
    const { text } = netlist(rig.simulation)
    expect(text).toContain('.tran')
    expect(text).toContain('\nD_valve_hold_path ')
  })
})
