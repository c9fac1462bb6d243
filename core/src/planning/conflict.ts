import { answersOf, type Answer } from './answers'
import type { PlanBrief } from './brief'
import { whyNotLaid } from './plan-brief'
import { refusalsOf } from './refusals'
import { circuitKinds } from './schemes'

/** Answers that cannot all hold, and what could be answered instead. */
export interface Conflict {
  /** Why, in words. */
  reason: string
  /** A smallest set of answers that no plan fulfils, whatever the others were; without any one of them there is a plan. */
  answers: { id: string; says: string }[]
  /** Briefs that can be laid out, one answer otherwise where one is enough: the least changes first. */
  ways: { says: string; brief: PlanBrief }[]
}

/** So many ways out are told to an answer; more are no help. */
const waysToAnAnswer = 3
const mostOfASet = 4
/** So many are laid out in search of a way out that takes two answers. */
const mostLaidOut = 80

/**
 * Why a brief cannot be laid out, as the fewest answers that stand in each other's way; undefined where it can. Looks through sets
 * of answers by size, and lays out whatever they leave open: that takes seconds for a large brief in a small wiring centre.
 */
export function conflictOf(asked: PlanBrief): Conflict | undefined {
  const brief = differentNames(asked)
  const reason = whyNot(brief)
  if (reason === undefined) return undefined
  const answers = answersOf(brief)
  const planOf = remembered(brief, answers)
  const set = smallest(answers, (kept) => planOf(kept) === undefined)
  const ways = waysOut(brief, set, answers)
  const own = refusalsOf(brief).find(({ path }) => set.some(({ id }) => isOf(id, String(path[0]))))
  return {
    reason: own?.message ?? reason,
    answers: set.map(({ id, says }) => ({ id, says })),
    ways: ways.length > 0 ? ways : [givenUp(brief, answers, planOf)],
  }
}

/** Whether an answer is to what a refusal is about. */
const isOf = (answer: string, field: string): boolean =>
  answer.startsWith(field) || (field === 'circuits' && (answer in circuitKinds || answer.startsWith('alongside')))

const whyNot = (brief: PlanBrief): string | undefined => {
  if (brief.circuits.length === 0) return 'a system needs at least one circuit'
  return (refusalsOf(brief)[0] ?? whyNotLaid(brief))?.message
}

/** Names do not decide what can be laid out; two circuits that are called the same while somebody types are told apart. */
const differentNames = (brief: PlanBrief): PlanBrief => ({
  ...brief,
  circuits: brief.circuits.map((circuit, i, all) => {
    const name = circuit.name.trim() || `Circuit ${i + 1}`
    const twice = all.findIndex((c) => c.name.trim().toLowerCase() === name.toLowerCase()) < i
    return { ...circuit, name: twice ? `${name.slice(0, 34)} (${i + 1})` : name }
  }),
})

/**
 * The first set of the fewest answers that is bad. Of more than {@link mostOfASet} one that is bad no more without any of them: all
 * answers together are bad.
 */
function smallest(answers: readonly Answer[], isBad: (kept: readonly Answer[]) => boolean): readonly Answer[] {
  for (let size = 1; size <= mostOfASet; size++) for (const set of subsets(answers, size)) if (isBad(set)) return set
  return answers.reduce((kept, answer) => {
    const without = kept.filter((one) => one !== answer)
    return isBad(without) ? without : kept
  }, answers)
}

function* subsets<T>(list: readonly T[], size: number): Generator<T[]> {
  if (size === 0) yield []
  else
    for (let i = 0; i + size <= list.length; i++)
      for (const rest of subsets(list.slice(i + 1), size - 1)) yield [list[i], ...rest]
}

type PlanKeeping = (kept: readonly Answer[]) => PlanBrief | undefined

/** A brief that can be laid out and keeps some answers, the others being open; undefined where there is none. */
function remembered(brief: PlanBrief, answers: readonly Answer[]): PlanKeeping {
  const laid = new Map<string, boolean>()
  const isLaid = (one: PlanBrief) => {
    if (one.circuits.length === 0 || refusalsOf(one).length > 0) return false
    const key = JSON.stringify(one)
    const known = laid.get(key) ?? whyNotLaid(one) === undefined
    laid.set(key, known)
    return known
  }
  const search = (one: PlanBrief, open: readonly Answer[]): PlanBrief | undefined => {
    const [next, ...rest] = open
    if (!next) return isLaid(one) ? one : undefined
    for (const value of next.open(one)) {
      const found = search(value, rest)
      if (found) return found
    }
    return undefined
  }
  return (kept) =>
    search(
      brief,
      answers.filter((answer) => !kept.includes(answer)),
    )
}

/** Where one or two other answers are not enough: as many answers as go together, in the order they are asked, the others open. */
function givenUp(brief: PlanBrief, answers: readonly Answer[], planOf: PlanKeeping): Conflict['ways'][number] {
  const kept: Answer[] = []
  let plan = planOf([]) ?? brief
  for (const answer of answers) {
    const found = planOf([...kept, answer])
    if (!found) continue
    kept.push(answer)
    plan = found
  }
  const gone = answers.filter((answer) => !kept.includes(answer)).map(({ says }) => says)
  return { says: `Give up ${gone.join('; ')}`, brief: plan }
}

/** For each of the answers what else it could be; where that is never enough, with one other answer otherwise too. */
function waysOut(brief: PlanBrief, set: readonly Answer[], answers: readonly Answer[]): Conflict['ways'] {
  const serves = (way: { brief: PlanBrief }) => whyNot(way.brief) === undefined
  return set.flatMap((answer) => {
    const alone = first(waysToAnAnswer, answer.instead(brief), serves)
    if (alone.length > 0) return alone
    const both = answer
      .instead(brief)
      .flatMap((one) =>
        answers
          .filter((other) => !set.includes(other))
          .flatMap((other) =>
            other.instead(one.brief).map((two) => ({ says: `${one.says}. ${two.says}`, brief: two.brief })),
          ),
      )
    // What contradicts itself is known at once; laying out takes its time.
    const sensible = both.filter((way) => refusalsOf(way.brief).length === 0)
    return first(1, sensible.slice(0, mostLaidOut), serves)
  })
}

function first<T>(most: number, list: readonly T[], fits: (one: T) => boolean): T[] {
  const found: T[] = []
  for (const one of list) {
    if (found.length === most) break
    if (fits(one)) found.push(one)
  }
  return found
}
