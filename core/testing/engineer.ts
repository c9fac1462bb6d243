import { compile, type Circuit } from '../src/circuit'
import { typeIn } from '../src/catalogue'
import type { Hunt } from '../src/hunt'
import {
  advice,
  Course,
  answerFor,
  minutesOfRemedy,
  Noticing,
  proofsLeft,
  remedyKey,
  servicesUntried,
  unlisted,
  unmendedMinutes,
  usualErrors,
  type Complained,
  type HuntEntry,
  type NextLook,
} from '../src/hunt'
import { begin, toTheEye, type Hypothesis } from '../src/hypotheses'
import { edited, type Installation } from '../src/installation'
import { sharedError } from '../src/inference'
import { isSetByHand } from '../src/inputs'
import { lookAt, wiringSeen, type Found, type LookResult, type WrittenLook } from '../src/looks'
import { Simulation } from '../src/simulation'
import { numbers } from './numbers'
import { complaintsOf } from './showing'

/** How one simulated call ended. */
export interface Ended {
  /** What was really wrong is right again, or was rightly explained, and he knows. */
  found: boolean
  /** Parts changed, and conductors, links and settings touched, for nothing. */
  wrongParts: number
  wrongElse: number
  /** He left with nothing more to mend, and knows that it is most likely something on no list. */
  admitted: boolean
  minutes: number
  looks: number
  /** Of each remedy gone for: how sure the hunt was that it cures, and whether it did. */
  claims: { share: number; cured: boolean }[]
  log: HuntEntry[]
}

export interface Call {
  /** What is really so. Undefined hypotheses of the hunt are all that he can think of. */
  truth: readonly Hypothesis[]
  seed: number
  /** Chooses among what can be looked at next, best first. */
  choose?: (next: readonly NextLook[], random: () => number) => NextLook | undefined
  /** He and the customer are never wrong. */
  exact?: boolean
}

/** So many looks and remedies, and he gives up. */
const patience = 40
/** What a part's own figures differ by from what is usual. */
const spread = 0.3

/**
 * A call as it would go: an installation like the hunt's but for what is really so, its parts not quite the usual ones; a customer
 * who is right three times in four; an engineer who does what the hunt says, misreads as often as people do, and goes for the
 * remedy it comes to. A remedy that does not cure is written down, and he goes on; what cured he proves, and tries the other services
 * once, as the hunt asks him to.
 */
export function called(hunt: Hunt, { truth, seed, choose = ([first]) => first, exact = false }: Call): Ended {
  const { circuit } = hunt
  const random = numbers(seed)
  const errs = (rate: number) => !exact && random() < rate
  const misreads = misreadingsBy(errs)
  const real = realised(circuit, truth, random, exact)
  const course = new Course(real.sim)
  let wrongNow = [...truth]
  const log: HuntEntry[] = [{ id: 'customer', says: said(circuit, real.sim, random, errs) }]
  const ended: Ended = {
    found: false,
    admitted: false,
    wrongParts: 0,
    wrongElse: 0,
    minutes: 0,
    looks: 0,
    claims: [],
    log,
  }
  const give = (entry: HuntEntry) => log.push(entry)
  const tried = new Set<string>()
  for (let turn = 0; turn < patience; turn++) {
    hunt.follow(log)
    const { next, decision } = advice(hunt, log, choose.length > 1 ? 1000 : 1)
    const look = decision.stop ? undefined : choose(next, random)
    const isDone = !look && decision.remedy?.done
    const proofs = isDone ? [...proofsLeft(circuit, log), ...untried(circuit, log)] : []
    // What shows otherwise is a finding, and not asked again before the next remedy.
    const proof = proofs.find((one) => !tried.has(keyOfProof(one)))
    if (proof) tried.add(keyOfProof(proof))
    const made = look ?? proof
    if (made) {
      for (const text of made.acts) {
        course.act(text)
        give({ id: `e${log.length}`, do: text })
      }
      ended.minutes += made.minutes
      ended.looks++
      const there = toTheEye(circuit.installation, wrongNow)
      give({
        id: `e${log.length}`,
        see: made.see,
        found: seen(course, made, { drawn: circuit.installation, there }, misreads, random),
      })
      continue
    }
    const { remedy } = decision
    if (!remedy || remedy.done) {
      ended.found = remedy !== undefined && wrongNow.length === 0
      ended.admitted = !remedy && shareOf(hunt, unlisted) > 0.5
      if (!ended.found) ended.minutes += unmendedMinutes
      return ended
    }
    const suspects = hunt.suspects.filter(({ id }) => remedy.suspects.includes(id))
    const cures = wrongNow.filter(
      (one) =>
        remedy.suspects.includes(one.id) ||
        (remedy.text !== '' && remedyKey(one) === remedyKey(suspects[0].hypothesis!)),
    )
    const cost = minutesOfRemedy(circuit, suspects[0].hypothesis!)
    ended.claims.push({ share: remedy.share, cured: cures.length > 0 })
    ended.minutes += cost.cost
    wrongNow = wrongNow.filter((one) => !cures.includes(one))
    if (cures.length === 0) {
      ended.minutes += cost.wrong
      if (suspects[0].hypothesis!.kind === 'part') ended.wrongParts++
      else ended.wrongElse++
    }
    // Where nothing is wrong, there is nothing to be put right: he has said how it works, and goes.
    if (remedy.text === '') {
      ended.found = cures.length > 0 && wrongNow.length === 0
      return ended
    }
    if (cures.length > 0) course.mended(real.without(wrongNow, course.sim))
    for (const id of remedy.suspects) give({ id: `e${log.length}`, mended: id })
    tried.clear()
  }
  ended.minutes += unmendedMinutes
  return ended
}

const untried = (circuit: Circuit, log: readonly HuntEntry[]): NextLook[] =>
  servicesUntried(circuit, log).flatMap(({ look, refused }) => (refused ? [] : [look]))

const keyOfProof = ({ asking, see }: NextLook): string => JSON.stringify([asking, see])

const shareOf = (hunt: Hunt, suspect: string): number =>
  hunt.ranking().shares[hunt.suspects.findIndex(({ id }) => id === suspect)] ?? 0

/** The installation as it really is, and as it is with less wrong. */
function realised(circuit: Circuit, truth: readonly Hypothesis[], random: () => number, exact: boolean) {
  const own = new Map<string, number>()
  const drawn = (key: string) => {
    if (!own.has(key)) own.set(key, exact ? 0.5 : random())
    return own.get(key)!
  }
  const built = (wrong: readonly Hypothesis[]) => {
    const altered = wrong.reduce(
      (doc, { variant }) => (variant.change ? edited(doc, variant.change).doc : doc),
      circuit.installation,
    )
    const sim = new Simulation(compile(withOwnFigures(altered, drawn)))
    for (const { id, variant } of wrong) {
      if (variant.defects.length > 0) sim.putIn(id, variant.defects)
      sim.settle()
      for (const action of variant.start) begin(sim, action)
      sim.settle()
    }
    return sim
  }
  return {
    sim: built(truth),
    without: (wrong: readonly Hypothesis[], like: Simulation) => {
      const sim = built(wrong)
      for (const { device, id } of circuit.controls) {
        const { device: owner, type } = circuit.devices[device]
        const control = type.controls.find((c) => c.id === id)
        if (control?.kind === 'choice' && !isSetByHand(circuit, owner.id, id)) continue
        sim.set(owner.id, id, String(like.control(owner.id, id)))
      }
      sim.settle()
      sim.warmAs(like)
      return sim
    },
  }
}

/** Times, powers, where switches make, and what cables hold: of each part its own, within a third of what is usual. */
function withOwnFigures(doc: Installation, drawn: (key: string) => number): Installation {
  const vary = (key: string, usual: number) => usual * (1 - spread + 2 * spread * drawn(key))
  return {
    ...doc,
    devices: doc.devices.map((device) => ({
      ...device,
      settings: {
        ...device.settings,
        ...Object.fromEntries(
          typeIn(doc, device.type).settings.flatMap(({ id, unit, min, max, choices, ...setting }) => {
            if (choices || !['s', 'W', 'of travel', '% of its impedance'].includes(unit)) return []
            const value = vary(`${device.id}.${id}`, Number(device.settings[id] ?? setting.default))
            return [[id, Math.min(max, Math.max(min, value))]]
          }),
        ),
      },
    })),
    cables: doc.cables.map((cable) => ({
      ...cable,
      lengthM: vary(`${cable.id}.length`, cable.lengthM ?? 5),
      picofaradsPerM: vary(`${cable.id}.pF`, cable.picofaradsPerM ?? 100),
    })),
  }
}

/** What the customer says: something that is so where there is any, now and then something else. */
function said(circuit: Circuit, rest: Simulation, random: () => number, errs: (rate: number) => boolean): Complained {
  const noticing = new Noticing(rest.fork())
  const all = complaintsOf(circuit)
  const so = all.filter((one) => noticing.holds(one))
  const from = so.length > 0 && !errs(0.25) ? so : all
  return from[Math.floor(random() * from.length)]
}

/** Does he misread a look? What makes him misread one thing mostly makes him misread it every time. */
function misreadingsBy(errs: (rate: number) => boolean): (see: WrittenLook) => boolean {
  const always = new Map<string, boolean | undefined>()
  return (see) => {
    const key = JSON.stringify(see)
    const rate = usualErrors[see.at]
    if (!always.has(key)) always.set(key, errs(sharedError) ? errs(rate) : undefined)
    return always.get(key) ?? errs(rate)
  }
}

/** What he writes down. `drawn`: what he compares the wiring with; `there`: how it lies. */
function seen(
  { sim, touched }: Course,
  { see, outcomes }: NextLook,
  { drawn, there }: { drawn: Installation; there: Installation },
  misreads: (see: WrittenLook) => boolean,
  random: () => number,
): Found | 'cannot-tell' {
  const shown: LookResult =
    see.at === 'wiring'
      ? wiringSeen(drawn, there, see.thing)
      : lookAt(sim, see.at === 'clicks' ? { ...see, at: 'clicks', since: touched } : see)
  if ('unknown' in shown) return 'cannot-tell'
  const right = 'chances' in shown ? { word: oneOf(shown.chances, random) } : foundOf(shown)
  if (!misreads(see)) return right
  const answer = 'chances' in shown && 'word' in right ? right.word : answerFor(see, shown)
  const others = outcomes.filter((o) => o.answer !== answer)
  return others[Math.floor(random() * others.length)]?.found ?? right
}

const foundOf = (shown: Exclude<LookResult, { unknown: unknown } | { chances: unknown }>): Found =>
  'full' in shown ? { value: shown.value, unit: 'V' } : shown

/** One of several words, as probable as each is. */
function oneOf(chances: Readonly<Record<string, number>>, random: () => number): string {
  let left = random()
  const words = Object.keys(chances)
  return words.find((word) => (left -= chances[word]) < 0) ?? words[0]
}
