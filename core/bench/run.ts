import { Bench } from 'tinybench'
import { check } from '../src/checks'
import { compile, emptyNets, mergeNets } from '../src/circuit'
import { diagnose, type LoggedFinding } from '../src/diagnosis'
import { examples } from '../src/examples'
import { Simulation } from '../src/simulation'

/**
 * Times what a user waits for, each also as a ratio to a reference kernel of plain arithmetic in the same run, so that
 * figures of different machines can be compared.
 */
const bench = new Bench({ time: 400, warmupTime: 150 })

const numbers = Float64Array.from({ length: 65536 }, (_, i) => Math.sin(i))
let sink = 0
const reference = 'reference kernel: 65,536 multiply-adds'
bench.add(reference, () => {
  let sum = 0
  for (let i = 0; i < numbers.length; i++) sum += numbers[i] * 1.000001
  sink += sum
})

for (const { id, installation } of examples) {
  const circuit = compile(installation)
  const nets = emptyNets(circuit)
  const rest = new Simulation(circuit)
  bench.add(`compile, ${id}`, () => void compile(installation))
  bench.add(`merge, ${id}`, () => void mergeNets(circuit, rest.electrics.state, nets))

  const { channel, thermostat } = installation.intent.demands[0]
  if (!channel || !thermostat) continue
  const stat = circuit.devices[circuit.deviceIndex.get(thermostat.device)!]
  const dial = stat.type.controls.find((c) => c.id === 'set')!
  const up = dial.kind === 'number' ? String(dial.max) : ''
  const channelOn = rest.fork()
  channelOn.set(channel.device, channel.contact, 'on')
  channelOn.settle()
  bench.add(`settle after one control change, ${id}`, () => {
    const sim = channelOn.fork()
    sim.set(thermostat.device, 'set', up)
    sim.settle()
  })
  bench.add(`check, ${id}`, () => void check(circuit))
}

const two = compile(examples.find((e) => e.id === 'two-port-heating-hot-water')!.installation)
const heating = ['programmer.heating', 'stat-1.contact']
const findings: LoggedFinding[] = [
  { id: '1', asking: heating, observable: { kind: 'boiler', device: 'boiler' }, result: 'not-called' },
  { id: '2', asking: heating, observable: { kind: 'terminal', terminal: 'wc.19' }, result: 'live' },
]
bench.add('hunt: all single faults, two findings, next reading', () => void diagnose(two, findings))

await bench.run()

const meanMs = (name: string) => {
  const { result } = bench.getTask(name)!
  if (!('latency' in result)) throw new Error(`"${name}" did not run`)
  return result.latency.mean
}
const unit = meanMs(reference)
process.stdout.write(`${'task'.padEnd(74)}${'mean'.padStart(12)}${'ratio'.padStart(10)}\n`)
for (const { name } of bench.tasks) {
  const ms = meanMs(name)
  const text = ms < 1 ? `${(ms * 1000).toFixed(1)} µs` : `${ms.toFixed(2)} ms`
  process.stdout.write(`${name.padEnd(74)}${text.padStart(12)}${(ms / unit).toFixed(2).padStart(10)}\n`)
}
if (!Number.isFinite(sink)) process.exitCode = 1
