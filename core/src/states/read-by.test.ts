import fc from 'fast-check'
import { compile } from '../circuit'
import { exampleById, examples } from '../examples'
import { Rig } from '../hypotheses'
import type { Core, Installation } from '../installation'
import { traceReport } from '../trace'
import { inputActions } from '../inputs'
import { sensorIsRead } from './read-by'

const example = (id: string) => structuredClone(exampleById(id)!.installation)

/** The insulation of a bare terminal more or less moves an open core by a tenth of a millivolt. */
const coarse = (_: string, value: unknown) => (typeof value === 'number' ? Math.round(value * 100) / 100 : value)

describe('what a sensor says', () => {
  it('is read where its contact joins something, and not where it hangs in the air', () => {
    const doc = example('two-port-heating-hot-water')
    const stat = doc.devices.find((d) => d.id === 'stat-1')!
    doc.devices.push({ ...stat, id: 'spare' })
    const circuit = compile(doc)
    const read = circuit.sensors.flatMap((s, i) =>
      sensorIsRead(circuit, i) ? [circuit.devices[s.device].device.id] : [],
    )
    expect(read).toContain('stat-1')
    expect(read).not.toContain('spare')
    // One conductor on its output, leading nowhere, is enough: it may be live where somebody touches it.
    const [core] = doc.cables[0].cores
    doc.cables.push({
      id: 'stub',
      label: 'Stub',
      ratedForMains: true,
      cores: [
        { ...core, id: 'brown', ends: [{ at: 'terminal', terminal: 'spare.L' }, { at: 'loose' }] },
        { ...core, id: 'black', ends: [{ at: 'terminal', terminal: 'spare.SL' }, { at: 'loose' }] },
      ],
    })
    const stubbed = compile(doc)
    const spare = stubbed.sensors.findIndex((s) => stubbed.devices[s.device].device.id === 'spare')
    expect(sensorIsRead(stubbed, spare)).toBe(true)
  })

  it('changes nothing at all where nothing reads it, however ends are moved', () => {
    let unread = 0
    fc.assert(
      fc.property(
        fc.constantFrom(...examples),
        fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat(3)), { maxLength: 3 }),
        ({ installation }, moves) => {
          const doc: Installation = structuredClone(installation)
          const first = compile(doc)
          const sensing = new Set(first.sensors.map((s) => first.devices[s.device].device))
          const ends = doc.cables
            .flatMap((c) => c.cores.flatMap((core) => core.ends))
            .filter((e) => e.at === 'terminal')
          ;[...sensing].forEach((device, k) => doc.devices.push({ ...device, id: `spare-${k}` }))
          const spare = compile(doc).atoms.filter((a) => a.owner.startsWith('spare-') && a.kind === 'device')
          const cores = moves.map(([which, where, how], i): Core => ({
            id: `c${i}`,
            colour: 'brown',
            areaMm2: 0.75,
            ends: [
              { at: 'terminal', terminal: spare[which % spare.length].ref },
              how === 0 ? { at: 'loose' } : ends[where % ends.length],
            ],
          }))
          if (cores.length > 0) doc.cables.push({ id: 'more', label: 'More', ratedForMains: true, cores })
          const circuit = compile(doc)
          circuit.sensors.forEach((sensor, i) => {
            const asks = doc.intent.demands.flatMap((d) => [d.channel?.device, d.thermostat?.device])
            // What a demand asks by is an input whether it is wired or not.
            if (sensorIsRead(circuit, i) || asks.includes(circuit.devices[sensor.device].device.id)) return
            unread++
            const told = (asking: boolean) => {
              const rig = new Rig(circuit)
              const { id } = circuit.devices[sensor.device].device
              for (const action of inputActions(
                circuit,
                { device: id, leaves: [{ kind: 'sensor', sensor: i }] },
                asking,
              ))
                rig.perform(action)
              rig.simulation.run(5000)
              const { terminals, devices, ...report } = traceReport(rig)
              const others = (record: object) =>
                Object.entries(record).filter(([key]) => key !== id && !key.startsWith(`${id}.`))
              return JSON.stringify(
                { ...report, events: [], terminals: others(terminals), devices: others(devices) },
                coarse,
              )
            }
            expect(told(true) === told(false)).toBe(true)
          })
        },
      ),
      { numRuns: 60 },
    )
    expect(unread).toBeGreaterThan(10)
  })
})
