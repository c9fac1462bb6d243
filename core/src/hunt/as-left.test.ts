import { circuitOf } from '../../testing'
import { linkOutsOf } from '../../testing/link-outs'
import { compile } from '../circuit'
import { examples } from '../examples'
import { edited } from '../installation'
import { explored } from '../states'
import { severityOf, staticFindings } from '../checks'
import { asLeftOf, linksPastLimits } from './as-left'

const twoPort = circuitOf('two-port-heating-hot-water')
const dangers = (installation: Parameters<typeof compile>[0]) => {
  const circuit = compile(installation)
  return [
    ...staticFindings(circuit).filter(({ severity }) => severity === 'danger'),
    ...explored(circuit, { mostStates: 4000 }).breaches.filter(({ breach }) => severityOf(breach) === 'danger'),
  ]
}

describe('a wiring as it is left', () => {
  it('is the wiring itself where only controls were turned', () => {
    expect(asLeftOf(twoPort, ['stat-1.set=20', 'programmer.heating=off'])).toEqual({
      wiring: twoPort.installation,
      judged: twoPort.installation,
      pastLimit: false,
    })
  })

  it('has a conductor that was lifted in a connector of its own: nothing live hangs loose', () => {
    const { cables } = twoPort.installation
    for (const { id, cores } of cables.filter(({ label }) => !/lead/.test(label)).slice(0, 6))
      for (const core of cores.filter(({ colour, ends }) => colour !== 'green-yellow' && ends[1].at === 'terminal')) {
        const { wiring } = asLeftOf(twoPort, [`land=${id}.${core.id}.1`])
        const left = wiring.cables.find((one) => one.id === id)!.cores.find((one) => one.id === core.id)!
        expect([id, core.id, left.ends[1].at]).toEqual([id, core.id, 'cut-back'])
        expect(staticFindings(compile(wiring)).filter(({ rule }) => rule === 'live-end-loose')).toEqual([])
      }
  })

  it('has the link that was put in, and asks for a demand without the contacts it goes past: what was harmless is no danger', () => {
    let links = 0
    for (const { id } of examples.slice(0, 3)) {
      const circuit = circuitOf(id)
      const all = new Set(circuit.installation.intent.demands.map((demand) => demand.id))
      for (const { between, demand } of linkOutsOf(circuit, all)) {
        links++
        const { wiring, judged, pastLimit } = asLeftOf(circuit, [`unlink=${between.join('+')}`])
        expect([id, between, pastLimit]).toEqual([id, between, false])
        expect(wiring.links).toHaveLength(circuit.installation.links.length + 1)
        const asked = judged.intent.demands.find((one) => one.id === demand.id)!
        expect(asked.thermostat === null || asked.channel === null).toBe(true)
        expect(dangers(judged).length).toBeLessThanOrEqual(dangers(circuit.installation).length)
      }
    }
    expect(links).toBeGreaterThan(2)
  })

  it('never has a limit or cut-out linked out, in any example that has one', () => {
    let limits = 0
    for (const { id } of examples) {
      const circuit = circuitOf(id)
      for (const { device, throws } of circuit.sensors) {
        if (!throws) continue
        const owner = circuit.devices[device]
        for (const contact of owner.type.primitives)
          if (contact.kind === 'contact') {
            const between = [contact.a, contact.b].map((terminal) => `${owner.device.id}.${terminal}`)
            if (!between.every((ref) => circuit.atomIndex.has(ref))) continue
            limits++
            expect([id, between, asLeftOf(circuit, [`unlink=${between.join('+')}`]).pastLimit]).toEqual([
              id,
              between,
              true,
            ])
            const linked = edited(circuit.installation, {
              label: 'past',
              changes: [
                {
                  do: 'put',
                  in: 'links',
                  value: { id: 'past', kind: 'fitted', between: between as [string, string], provenance: 'seen' },
                },
              ],
            }).doc
            expect(linksPastLimits(linked, circuit.installation)).toEqual([between])
          }
      }
    }
    expect(limits).toBeGreaterThan(0)
  })

  it('knows no link past a limit in the examples as they are planned', () => {
    for (const { id, installation } of examples)
      expect([id, linksPastLimits(installation, undefined)]).toEqual([id, []])
  })
})
