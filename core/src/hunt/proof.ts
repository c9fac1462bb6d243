import { hasClock } from '../catalogue'
import { same } from '../changes'
import type { Circuit } from '../circuit'
import type { Demand } from '../installation'
import { lookAt, wordOf, type Look, type WrittenLook } from '../looks'
import { settle } from './acts'
import { actsTo, askingNow } from './ahead'
import type { ControlState } from './candidates'
import type { HuntEntry } from './case'
import type { Complaint } from './complaints'
import { minutesFor } from './minutes'
import type { NextLook } from './next'
import { asEntries } from './standing'
import { askingFor } from './strategies'
import { wholeAfter } from './whole'

/** What shows that a service is as it should be again: a state of the controls, a look in it, and what it shows where all is well. */
interface Proof {
  /** Undefined: as things stand, whatever is asked for. */
  asking?: ControlState
  see: WrittenLook
  shows: string
}

/**
 * What is still to be seen before it can be said that what was put right has cured: of every service that was complained of, or of
 * all where none was, the same demand again. What shows otherwise is no proof, and is asked again after the next thing put right.
 */
export function proofsLeft(circuit: Circuit, log: readonly HuntEntry[]): NextLook[] {
  const last = log.findLastIndex((entry) => 'mended' in entry || 'renew' in entry)
  if (last < 0) return []
  const seen = log.flatMap((entry, i) =>
    i > last && 'see' in entry ? [{ entry, asking: askingNow(circuit, log.slice(0, i)) }] : [],
  )
  const isGiven = ({ asking, see, shows }: Proof) =>
    seen.some(
      ({ entry, asking: then }) =>
        (asking === undefined || sameAsking(then, asking)) &&
        same(entry.see, see) &&
        typeof entry.found !== 'string' &&
        'word' in entry.found &&
        entry.found.word === shows,
    )
  return proofsOf(circuit, log)
    .filter((proof) => !isGiven(proof))
    .map((proof) => lookFor(circuit, log, proof))
}

/** A service that nobody complained of, which has not been seen to work. */
export interface ServiceUntried {
  demand: Demand
  look: NextLook
  /** It was asked for, and somebody could not, or would not, try it. */
  refused: boolean
}

/**
 * Services that nobody spoke of and that were not once seen to do what they should, when something was put right: whatever is wrong with
 * them besides is found now or at the next call. Tried alone; seen at any time is seen.
 */
export function servicesUntried(circuit: Circuit, log: readonly HuntEntry[]): ServiceUntried[] {
  if (!log.some((entry) => 'mended' in entry || 'renew' in entry)) return []
  const said = log.flatMap((entry) => ('says' in entry ? [entry.says] : []))
  const isSpokenOf = (id: string) =>
    said.some(({ what, demand }) => demand === id || (demand === undefined && what !== 'is-fine'))
  const seen = log.flatMap((entry, i) => {
    if (!('see' in entry)) return []
    return [{ entry, asking: askingNow(circuit, [...log.slice(0, i), ...asEntries(entry.after ?? [])]) }]
  })
  if (said.every(({ what }) => what === 'is-fine')) return []
  return circuit.installation.intent.demands
    .filter(({ id }) => !isSpokenOf(id))
    .flatMap((demand): ServiceUntried[] => {
      const asking = askingFor(circuit, demand)
      const [see] = warmthOf(circuit, demand)
      const own = seen.filter((one) => sameAsking(one.asking, asking) && same(one.entry.see, see))
      const words = own.flatMap(({ entry: { found } }) =>
        typeof found !== 'string' && 'word' in found ? [found.word] : [],
      )
      if (see === undefined || words.some((word) => works.has(word))) return []
      return [
        {
          demand,
          look: lookFor(circuit, log, { asking, see }),
          refused: own.some(({ entry }) => typeof entry.found === 'string'),
        },
      ]
    })
}
/** What {@link warmthOf} shows of a service that does what it should. */
const works: ReadonlySet<string> = new Set(['warms', 'called'])

function lookFor(
  circuit: Circuit,
  log: readonly HuntEntry[],
  { asking, see }: Pick<Proof, 'asking' | 'see'>,
): NextLook {
  const acts = asking ? actsTo(circuit, asking, log) : []
  const settled = acts.length > 0 ? [...acts, settle] : []
  const { minutes, places } = minutesFor(circuit, log, settled, see)
  return {
    acts: settled,
    ...(asking && { asking }),
    see,
    minutes,
    places,
    live: false,
    bits: 0,
    outcomes: [],
    alongside: [],
  }
}

function proofsOf(circuit: Circuit, log: readonly HuntEntry[]): Proof[] {
  const { demands } = circuit.installation.intent
  const said = log.flatMap((entry) => ('says' in entry && entry.says.what !== 'is-fine' ? [entry.says] : []))
  const wanted =
    said.length > 0
      ? said.flatMap(({ what, demand }) =>
          demands.filter(({ id }) => demand === undefined || id === demand).map((one) => ({ what, one })),
        )
      : demands.map((one) => ({ what: 'does-not-come-on' as const, one }))
  const found = new Map<string, Proof>()
  for (const { what, one } of wanted)
    for (const { asking, see } of statesOf(circuit, what, one, log)) {
      const acts = asking ? actsTo(circuit, asking, log) : []
      const whole = wholeAfter(circuit, [...log, ...asEntries([...acts, settle])])
      const shows = wordOf(lookAt(whole, see as Look))
      if (shows !== undefined) found.set(JSON.stringify([asking, see]), { asking, see, shows })
    }
  return [...found.values()]
}

/** In which state, and where, it shows that a complaint is no longer so. */
function statesOf(
  circuit: Circuit,
  what: Complaint,
  demand: Demand,
  log: readonly HuntEntry[],
): Pick<Proof, 'asking' | 'see'>[] {
  const asked = askingFor(circuit, demand)
  const warms = warmthOf(circuit, demand)
  const each = (asking: ControlState, looks: readonly WrittenLook[]) => looks.map((see) => ({ asking, see }))
  switch (what) {
    case 'never-goes-off':
    case 'comes-on-by-itself':
      // That it is off says something of what comes on.
      return [...each(asked, warms), ...each([], callAt(circuit))]
    case 'comes-on-at-wrong-times':
      // A clock goes whatever is asked for; one that is fed through a channel is dark unless that is on.
      return [
        ...clocksOf(circuit, demand).map((see) => ({ see, ...(!isLit(circuit, log, see) && { asking: asked }) })),
        ...each(asked, warms),
      ]
    case 'gets-too-hot':
      return [...each(asked, warms), ...each(asked.slice(0, 1), warms)]
    case 'warms-with-another':
      // Where the other does not warm either, that this stays cold says nothing.
      return circuit.installation.intent.demands
        .filter(({ id }) => id !== demand.id)
        .flatMap((other) => each(askingFor(circuit, other), [...warmthOf(circuit, other), ...warms]))
    case 'blows-the-fuse':
      return each(asked, [...fusesOf(circuit), ...warms])
    default:
      return each(asked, warms)
  }
}

/** Where it is felt that a service warms; without an emitter, that the boiler is called. */
function warmthOf(circuit: Circuit, { circuit: { emitters } }: Demand): WrittenLook[] {
  const [emitter] = emitters ?? []
  return emitter === undefined ? callAt(circuit) : [{ at: 'warmth', device: emitter }]
}

const callAt = ({ devices }: Circuit): WrittenLook[] =>
  devices.flatMap(({ device, type }) => (type.inputs.length > 0 ? [{ at: 'boiler', device: device.id }] : []))

/** The clocks that time a service. */
const clocksOf = ({ devices }: Circuit, { channel, thermostat }: Demand): WrittenLook[] =>
  devices.flatMap(({ device, type }) =>
    (device.id === channel?.device || device.id === thermostat?.device) && hasClock(type)
      ? [{ at: 'clock', device: device.id }]
      : [],
  )

/** Where all is well, does a clock show the time as the log has left things? */
const isLit = (circuit: Circuit, log: readonly HuntEntry[], see: WrittenLook): boolean =>
  wordOf(lookAt(wholeAfter(circuit, log), see as Look)) !== 'dark'

const fusesOf = ({ devices }: Circuit): WrittenLook[] =>
  devices.flatMap(({ device, type }) =>
    type.primitives.some((part) => part.kind === 'fuse') ? [{ at: 'fuse', device: device.id }] : [],
  )

const sameAsking = (one: ControlState, other: ControlState): boolean =>
  one.length === other.length && one.every((key) => other.includes(key))
