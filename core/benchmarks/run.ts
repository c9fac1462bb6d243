import { Bench } from 'tinybench'
import { staticFindings } from '../src/checks'
import { hypothesesOf, restOf } from '../src/hypotheses'
import { demandActions } from '../src/inputs'
import { compile, Electrics, emptyNets, Equations, mergeNets, potentials } from '../src/circuit'
import { exampleById, examples } from '../src/examples'
import { advice, Hunt, atOnceOf, type HuntEntry } from '../src/hunt'
import { lidCodes } from '../src/formats'
import { changedTo, commonChanges, movesOf } from '../src/moves'
import { surveyed } from '../src/survey'
import { briefShapeSchema, conflictOf, planBriefSchema, planSystem, suggestions } from '../src/planning'
import { Simulation } from '../src/simulation'
import { explored } from '../src/states'
import { solveFlows } from '../src/water'
import { liveThrough, livedIn } from '../src/week'
import { HiddenWiring } from '../testing/hidden-survey'
import { numbers as numbersFrom } from '../testing/numbers'

/**
 * Times what a user waits for, each also as a ratio to a reference kernel of plain arithmetic in the same run, so that
 * figures of different machines can be compared. `-- hunt` times only what has that in its name.
 */
const bench = new Bench({ time: 400, warmupTime: 150, iterations: 12, warmupIterations: 3 })

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
  if (!thermostat) continue
  const stat = circuit.devices[circuit.deviceIndex.get(thermostat.device)!]
  const dial = stat.type.controls.find((c) => c.id === 'set')!
  const up = dial.kind === 'number' ? String(dial.max) : ''
  const channelOn = rest.fork()
  if (channel) channelOn.set(channel.device, channel.contact, 'on')
  channelOn.settle()
  bench.add(`settle after one control change, ${id}`, () => {
    const sim = channelOn.fork()
    sim.set(thermostat.device, 'set', up)
    sim.settle()
  })
  bench.add(`settle, every electrical state solved anew, ${id}`, () => {
    // A circuit of its own remembers nothing yet.
    const sim = new Simulation({ ...circuit }, channelOn)
    sim.set(thermostat.device, 'set', up)
    sim.settle()
  })
  bench.add(`rules, ${id}`, () => void staticFindings(compile(installation)))
}

/** A day as it is lived: everything on for the morning and the evening, each thermostat satisfied half way through. */
for (const { id, installation } of examples) {
  const circuit = compile(installation)
  const rest = new Simulation(circuit)
  const ids = installation.intent.demands.map((d) => d.id)
  const water = ids.filter((d) => d !== 'hot-water')
  const schedule: [hour: number, wanted: string[]][] = [
    [6, ids],
    [7, water],
    [8.5, []],
    [17, ids],
    [18, water],
    [22, []],
  ]
  bench.add(`a day's schedule, ${id}`, () => {
    const sim = rest.fork()
    for (const [hour, wanted] of schedule) {
      sim.run(hour * 3_600_000 - sim.time)
      for (const a of demandActions(circuit, wanted)) if (a.do === 'set') sim.set(a.device, a.control, a.value)
    }
    sim.run(24 * 3_600_000 - sim.time)
  })
}

/** Zones enough to give a row of network sizes. */
for (const zones of [1, 2, 4, 8, 16]) {
  const circuits = Array.from({ length: zones }, (_, i) => ({ kind: 'heating' as const, name: `Zone ${i + 1}` }))
  const brief = {
    scheme: 'low-voltage',
    supply: '120-60',
    circuits,
    cable: 'five-core',
    terminals: 'separate',
  } as const
  const circuit = compile(planSystem({ ...brief, circuits }, 'bench', 'Bench'))
  const { state, network } = new Simulation(circuit).electrics
  bench.add(`nodal solution, ${network.unknown.length} unknown nets`, () => {
    const equations = new Equations(network, 1)
    equations.solve(equations.re, equations.im)
  })
  bench.add(
    `whole electrical state (merge, network, solution), ${network.unknown.length} unknown nets`,
    () => void new Electrics(circuit, state),
  )
}
for (const [id, actions] of [
  ['two-port-two-heating-hot-water', []],
  ['mid-position', []],
  ['mid-position', ['programmer.heating=on', 'stat-1.set=30', 'programmer.hot-water=on', 'cyl-stat.set=75']],
] as const) {
  const circuit = compile(examples.find((e) => e.id === id)!.installation)
  const sim = new Simulation(circuit)
  for (const action of actions) {
    const [place, value] = action.split('=')
    const [device, control] = place.split('.')
    sim.set(device, control, value)
  }
  sim.settle()
  const { state, network, halfWave } = sim.electrics
  const name = `whole electrical state, ${network.unknown.length} unknown nets${halfWave ? ', half-waves' : ''}, ${id}`
  bench.add(name, () => void new Electrics(circuit, state))
  bench.add(
    `words and volts of all terminals, ${id}${halfWave ? ', half-waves' : ''}`,
    () => void potentials(new Electrics(circuit, state)),
  )
}

const two = compile(examples.find((e) => e.id === 'two-port-heating-hot-water')!.installation)
/** A log of a dozen entries, taken along by every suspect; then one entry more; then what to look at next. */
const acts = [
  'programmer.heating=on',
  'stat-1.set=30',
  'settle',
  'programmer.hot-water=on',
  'cyl-stat.set=75',
  'settle',
]
const seen = [['wc.19'], ['wc.21'], ['boiler.SL']].map(([red]) => ({ at: 'points', with: 'tester', red }) as const)
const log = [
  ...acts.map((act, i): HuntEntry => ({ id: `act-${i}`, do: act })),
  ...seen.map((see, i): HuntEntry => ({ id: `seen-${i}`, see, found: { word: 'live' } })),
]
const hunt = new Hunt(two)
bench.add(`hunt: ${hunt.suspects.length} suspects brought to rest and taken along nine entries`, () => {
  new Hunt(two).follow(log)
})
bench.add('hunt: the same, where they have been at rest before: an edited log', () => {
  hunt.follow([])
  hunt.follow(log)
})
bench.add(
  'hunt: one entry more',
  () => {
    hunt.follow(log)
    hunt.follow([...log, { id: 'more', do: 'programmer.heating=off' }])
  },
  { beforeEach: () => hunt.follow(log) },
)
/** A fork has foreseen nothing yet: each time as the first time. */
let standing = hunt
const forked = { beforeEach: () => void (standing = hunt.fork()) }
bench.add('hunt: the next look', () => void advice(standing, log), { beforeAll: () => hunt.follow(log), ...forked })
bench.add('hunt: the next look once more, nothing done meanwhile', () => void advice(hunt, log), {
  beforeAll: () => hunt.follow(log),
})
const complained: HuntEntry[] = [{ id: 'said', says: { what: 'does-not-come-on', demand: 'heating-1' } }]
bench.add('hunt: the first look, after the customer was heard', () => void advice(standing, complained), {
  beforeAll: () => hunt.follow(complained),
  ...forked,
})
let unseen = hunt
bench.add('hunt: the first look in a system of which nothing is remembered', () => void advice(unseen, complained), {
  beforeEach: () => {
    unseen = new Hunt(compile(two.installation))
    unseen.follow(complained)
  },
})
bench.add('hunt: the likeliest 400 pairs', () => void [...atOnceOf(hunt, log, { most: 400 })], {
  beforeAll: () => hunt.follow(log),
})

/** Flows, in every state that a valve's travel and a pump can bring about, solved anew. */
for (const id of ['two-port-two-heating-hot-water', 'more-zones']) {
  const { water } = compile(examples.find((e) => e.id === id)!.installation)
  const state = {
    gates: Uint8Array.from(water.ways, () => 1),
    pumps: Uint8Array.from(water.ways, () => 1),
    rising: new Uint8Array(water.emitters.length),
  }
  bench.add(`flows solved anew, ${water.nets} nets of pipes, ${id}`, () => void solveFlows(water, state))
}

const [only] = process.argv.slice(2)
/** Leaves out what was not asked for; the kernel is what all is compared with. */
function chosen(of: Bench): Bench {
  for (const { name } of of.tasks) if (only && name !== reference && !name.includes(only)) of.remove(name)
  return of
}
await chosen(bench).run()

/** Weeks are long: a few runs of each, nothing remembered from one to the next. */
const weeks = new Bench({ time: 0, iterations: 3, warmup: false })
/** All states: heating zones and hot water, two-port, one channel for heating; nothing is remembered from run to run. */
/** Ten circuits, laid out; the same where it does not go in, as the smallest set of answers in conflict; and the schemes for three. */
{
  const zones = Array.from({ length: 8 }, (_, i) => ({ kind: 'heating', name: `Zone ${i + 1}` }))
  const ten = [...zones, { kind: 'towel-rails', name: 'Towel rails' }, { kind: 'hot-water', name: 'Hot water' }]
  const brief = briefShapeSchema.parse({ scheme: 'two-port', circuits: ten, terminals: 'levers' })
  weeks.add('plan, ten circuits', () => void planSystem(planBriefSchema.parse(brief), 'plan', 'Plan'))
  weeks.add(
    'plan, ten circuits in a strip of 8: what stands in the way',
    () => void conflictOf({ ...brief, terminals: 'strip-8' }),
  )
  const house = briefShapeSchema.parse({
    scheme: 'two-port',
    circuits: [...ten.slice(0, 2), ...ten.slice(-1)],
    terminals: 'levers',
  })
  weeks.add('plan, every scheme for three circuits', () => void suggestions(house))
  const plan = planSystem(brief, 'plan', 'Plan')
  weeks.add('plan, the codes of a lid sheet, ten circuits', () => void lidCodes(plan))
}

for (const id of ['two-port-heating-hot-water', 'mid-position', 'two-port-five-heating-hot-water']) {
  const { installation, brief } = exampleById(id)!
  const cores = installation.cables.reduce((n, cable) => n + cable.cores.length, 0)
  const [receiver] = commonChanges(brief)
  const hidden = new HiddenWiring(installation, numbersFrom(7))
  weeks.add(`survey, ${id}, ${cores} conductors written down, what follows`, () => {
    void surveyed(hidden.survey, installation)
  })
  weeks.add(`change, ${id}, ${cores} conductors, to a smart receiver`, () => {
    void movesOf(changedTo(installation, receiver.brief))
  })
}

for (const zones of [2, 4, 8]) {
  const heating = Array.from({ length: zones - 1 }, (_, i) => ({ kind: 'heating' as const, name: `Zone ${i + 1}` }))
  const circuits = [...heating, { kind: 'hot-water' as const, name: 'Hot water' }]
  const installation = planSystem(planBriefSchema.parse({ scheme: 'two-port', circuits }), 'zones', 'Zones')
  const { states } = explored(compile(installation))
  weeks.add(`all ${states} states, ${zones} zones`, () => void explored(compile(installation)))
}
/** Zones of which no two are alike: their end switches make at different places. */
for (const zones of [9, 12]) {
  const heating = Array.from({ length: 8 }, (_, i) => ({ kind: 'heating' as const, name: `Zone ${i + 1}` }))
  const more = ['underfloor', 'underfloor', 'towel-rails'] as const
  const circuits = [
    ...heating,
    ...more.slice(0, zones - 9).map((kind, i) => ({ kind, name: `Circuit ${i + 9}` })),
    { kind: 'hot-water' as const, name: 'Hot water' },
  ]
  const doc = planSystem(planBriefSchema.parse({ scheme: 'two-port', circuits, terminals: 'merged' }), 'zones', 'Zones')
  const valves = doc.intent.demands.flatMap((d) => d.circuit.valves.map((v) => v.device))
  const devices = doc.devices.map((d) =>
    valves.includes(d.id) ? { ...d, settings: { ...d.settings, makes: 0.8 + 0.01 * valves.indexOf(d.id) } } : d,
  )
  const installation = { ...doc, devices }
  const { states, complete } = explored(compile(installation))
  const name = `all ${states} states, ${zones} circuits that are unlike${complete ? '' : ', not complete'}`
  weeks.add(name, () => void explored(compile(installation)))
}
for (const id of ['mid-position', 'hot-water-priority', 'more-zones', 'unvented']) {
  const { installation } = examples.find((e) => e.id === id)!
  const { states } = explored(compile(installation))
  weeks.add(`all ${states} states, ${id}`, () => void explored(compile(installation)))
}

/** Every hypothesis of a system as a variant of it, made and brought to rest. */
for (const zones of [2, 8]) {
  const heating = Array.from({ length: zones - 1 }, (_, i) => ({ kind: 'heating' as const, name: `Zone ${i + 1}` }))
  const circuits = [...heating, { kind: 'hot-water' as const, name: 'Hot water' }]
  const installation = planSystem(planBriefSchema.parse({ scheme: 'two-port', circuits }), 'zones', 'Zones')
  const count = hypothesesOf(compile(installation)).length
  weeks.add(`all ${count} variants made and at rest, ${zones} zones`, () => {
    const circuit = compile(installation)
    const rest = new Simulation(circuit)
    const all = hypothesesOf(circuit).map(({ variant }) => restOf(circuit, variant, rest))
    sink += all.length
  })
}

for (const { id, installation } of examples)
  weeks.add(`a week lived through, ${id}`, () => {
    const circuit = compile(installation)
    const plan = { scenario: { house: 'semi', weather: 'winter' }, actions: livedIn(installation), days: 7 } as const
    const run = liveThrough(circuit, plan)
    while (!run.next().done);
  })
await chosen(weeks).run()

const meanMs = (name: string) => {
  const { result } = (bench.getTask(name) ?? weeks.getTask(name))!
  if (!('latency' in result)) throw new Error(`"${name}" did not run`)
  return result.latency.mean
}
const unit = meanMs(reference)
process.stdout.write(`${'task'.padEnd(74)}${'mean'.padStart(12)}${'ratio'.padStart(10)}\n`)
for (const { name } of [...bench.tasks, ...weeks.tasks]) {
  const ms = meanMs(name)
  const text = ms < 1 ? `${(ms * 1000).toFixed(1)} µs` : `${ms.toFixed(2)} ms`
  process.stdout.write(`${name.padEnd(74)}${text.padStart(12)}${(ms / unit).toFixed(2).padStart(10)}\n`)
}
if (!Number.isFinite(sink)) process.exitCode = 1
