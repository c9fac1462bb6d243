import type { Installation } from '../installation'
import { planSystem, type PlanBrief } from '../planning'
import { costs, touchesOf } from './costs'
import { labelled } from './labelling'
import { rewired } from './rewired'
import { targetOf, type Target } from './target'
import { terminalsOf } from './terminals'
import { extraLowCables, workOf } from './work'

/** Why a change cannot be worked out, in words for the user. */
export class CannotChange extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'CannotChange'
  }
}

/** An installation made into another, and how near it is to the least that has to be touched. */
export interface Change {
  from: Installation
  to: Installation
  target: Target
  /** What it costs ({@link costs}), and what nothing can cost less than. */
  cost: number
  bound: number
  /** Cables of the new installation that carry extra-low voltage. */
  extraLow: ReadonlySet<string>
}

/**
 * What is found made into what is planned, with as few conductors touched as can be.
 *
 * @throws CannotChange where more than one wiring centre, or none, is found, or an end of a conductor that nobody has found
 */
export function changed(found: Installation, plan: Installation): Change {
  refuse(found)
  const target = targetOf(found, plan)
  const work = workOf(found, target)
  const terminals = terminalsOf(found)
  const by = labelled(work, terminals)
  const to = rewired(found, target, work, terminals, by)
  return { from: found, to, target, cost: by.cost, bound: by.bound, extraLow: extraLowCables(to) }
}

/**
 * What is found made into what a brief asks for. Which wiring centre the brief would have, what it has in the wall and what it keeps says
 * nothing here: what is there is. Where cables only as large as needed touch less, so it is laid out.
 *
 * @throws CannotChange
 */
export function changedTo(found: Installation, brief: PlanBrief): Change {
  const bare: PlanBrief = { ...brief, terminals: 'separate', inWall: undefined, kept: undefined }
  const of = (cable: PlanBrief['cable']) => changed(found, planSystem({ ...bare, cable }, found.id, found.name))
  const one = of(brief.cable)
  if (brief.cable === 'only-needed' || touchesOf(one.cost) * costs.end < costs.cable) return one
  const other = of('only-needed')
  return touchesOf(other.cost) < touchesOf(one.cost) ? other : one
}

function refuse(found: Installation): void {
  const boxes = found.wiringCentres.length
  if (boxes !== 1)
    throw new CannotChange(
      boxes === 0
        ? 'There is no wiring centre to begin with: put one in at the Bench, with what is in it'
        : `There are ${boxes} wiring centres, and moves are worked out within one: join them into one at the Bench first`,
    )
  const open = found.cables.flatMap(({ label, cores }) =>
    cores.some(({ ends }) => ends.some(({ at }) => at === 'unknown')) ? [label] : [],
  )
  if (open.length > 0)
    throw new CannotChange(`Not every end is known yet: find the ends of ${open.slice(0, 4).join(', ')} first`)
}
