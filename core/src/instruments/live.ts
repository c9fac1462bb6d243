import {
  type AtomId,
  currentsWithin,
  edgesAt,
  Electrics,
  magnitude,
  potentials,
  type Branch,
  type Circuit,
  type Phasor,
} from '../circuit'
import { returnAtHand } from './at-hand'
import { leadOhms, type PolarityVerdict, type Reading } from './reading'

/** The leads of an instrument as a branch of the circuit. */
const leads = (a: AtomId, b: AtomId, ohms: number): Branch => ({
  a,
  b,
  element: { kind: 'resistance', ohms },
  y: { re: 1 / ohms, im: 0 },
  of: { kind: 'instrument' },
})

/** Where the instrument draws less than this share of the volts away, it need not be solved for. */
const negligible = 0.002

/** Volts from `black` to `red` with an instrument of so many ohms across them. */
export function voltsBetween(electrics: Electrics, red: AtomId, black: AtomId, ohms: number): Phasor {
  const { circuit, nets, state, halfWave } = electrics
  const open = electrics.between(red, black)
  const [a, b] = [nets.netOf[red], nets.netOf[black]]
  if (a === b) return open
  const z = electrics.impedance(a, b)
  if (Math.hypot(z.re, z.im) < negligible * ohms) return open
  // Half-waves answer to a load by conducting longer: only solving again tells.
  if (halfWave) return new Electrics(circuit, state, leads(red, black, ohms)).between(red, black)
  // Thevenin: V · R / (R + Z).
  const [dr, di] = [ohms + z.re, z.im]
  const d = (dr * dr + di * di) / ohms
  return { re: (open.re * dr + open.im * di) / d, im: (open.im * dr - open.re * di) / d, mean: 0 }
}

export function voltsReading(electrics: Electrics, red: AtomId, black: AtomId, ohms: number): Reading {
  const v = voltsBetween(electrics, red, black, ohms)
  return { kind: 'volts', volts: magnitude(v), mean: v.mean, phase: (Math.atan2(v.im, v.re) * 180) / Math.PI }
}

export interface TerminalVolts {
  volts: number
  mean: number
  /** The transformer whose return they are against; left out, they are against neutral. */
  against?: string
}

const readingsByState = new WeakMap<Electrics, Record<keyof typeof leadOhms, Map<string, TerminalVolts>>>()

/**
 * What a tester or meter shows on a terminal against the neutral, or the return of its transformer, that is at hand there;
 * `undefined` where that cannot be known. Remembered for as long as the electrical state lives: a screen and a hunt ask for
 * every terminal again and again.
 */
export function terminalVolts(
  electrics: Electrics,
  atom: AtomId,
  instrument: keyof typeof leadOhms,
): TerminalVolts | undefined {
  const { circuit, nets } = electrics
  const { volts, against } = potentials(electrics)[atom]
  const point =
    against === undefined
      ? circuit.sources[0]?.neutral
      : circuit.transformers.find((t) => circuit.devices[t.device].device.id === against)?.common
  if (volts === null || point === undefined) return undefined
  const black = returnAtHand(circuit, atom, point)
  let readings = readingsByState.get(electrics)
  if (!readings) readingsByState.set(electrics, (readings = { tester: new Map(), meter: new Map() }))
  // What is joined reads alike.
  const key = `${nets.netOf[atom]} ${nets.netOf[black]} ${against ?? ''}`
  let read = readings[instrument].get(key)
  if (!read) {
    const v = voltsBetween(electrics, atom, black, leadOhms[instrument])
    read = { volts: magnitude(v), mean: Math.abs(v.mean), ...(against !== undefined && { against }) }
    readings[instrument].set(key, read)
  }
  return read
}

/** Full and next to no volts, as shares of the supply's, between which a polarity reading is unclear. */
const [full, little] = [0.8, 0.1]

/** Line, neutral and earth at one device, read with a low-impedance tester. */
export function polarityReading(electrics: Electrics, line: AtomId, neutral: AtomId, earth: AtomId): Reading {
  const { volts } = electrics.circuit.installation.supply
  const read = (a: AtomId, b: AtomId) => magnitude(voltsBetween(electrics, a, b, leadOhms.tester))
  const [lineNeutral, lineEarth, neutralEarth] = [read(line, neutral), read(line, earth), read(neutral, earth)]
  const word = (v: number) => (v >= full * volts ? 'full' : v <= little * volts ? 'none' : 'part')
  const seen = [lineNeutral, lineEarth, neutralEarth].map(word).join(' ')
  const verdicts: Record<string, PolarityVerdict> = {
    'full full none': 'correct',
    'full none full': 'reversed',
    'none full none': 'no-neutral',
    // With the neutral gone the loads bring line through to it.
    'none full full': 'no-neutral',
    'part full none': 'no-neutral',
    'part full part': 'no-neutral',
    'full none none': 'no-earth',
    'full part part': 'no-earth',
    'full part none': 'no-earth',
    'none none none': 'dead',
  }
  return { kind: 'polarity', verdict: verdicts[seen] ?? 'unclear', lineNeutral, lineEarth, neutralEarth }
}

/** What a device takes; at a spur, everything that hangs on it. */
export function powerReading(electrics: Electrics, device: number): Reading {
  const { circuit } = electrics
  const { volts } = circuit.installation.supply
  const source = circuit.sources.find((s) => s.device === device)
  if (source) {
    const current = suppliedBy(electrics, circuit, source.line)
    const va = volts * magnitude(current)
    return { kind: 'power', watts: volts * current.re, va, amps: magnitude(current) }
  }
  let [watts, vars, amps] = [0, 0, 0]
  let halfWaves = false
  circuit.loads.forEach((load, i) => {
    if (load.device !== device) return
    const power = electrics.loadPower(i)
    watts += power.re
    vars += power.im
    // What half-waves drive has its current counted where they come from.
    if (electrics.elementOf(i) !== load.element) return
    const across = magnitude(electrics.between(load.a, load.b))
    if (across > 0) amps += Math.hypot(power.re, power.im) / across
  })
  circuit.diodes.forEach((diode, i) => {
    if (diode.device !== device) return
    const heat = electrics.diodeHeat(i)
    halfWaves ||= heat.amps > 0
    watts += heat.watts
    amps += heat.amps
  })
  return { kind: 'power', watts, va: halfWaves ? volts * amps : Math.hypot(watts, vars), amps }
}

/** Amperes that leave an origin. */
function suppliedBy(electrics: Electrics, circuit: Circuit, line: AtomId): Phasor {
  const currents = currentsWithin(electrics, electrics.nets.netOf[line])
  return edgesAt(circuit, line).reduce(
    (sum, index) => {
      const current = currents.get(index)
      if (!current) return sum
      const sign = circuit.edges[index].a === line ? 1 : -1
      return { re: sum.re + sign * current.re, im: sum.im + sign * current.im, mean: sum.mean + sign * current.mean }
    },
    { re: 0, im: 0, mean: 0 },
  )
}
