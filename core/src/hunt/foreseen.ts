import type { Circuit } from '../circuit'
import { advice } from './next'
import { standingOf, type HuntAnswer, type HuntStanding } from './answer'
import type { HuntEntry, HuntOptions } from './case'
import { Hunt } from './hunt'
import type { Misfit } from './misfits'

/** What there is to say so far: how far the suspects have been taken along the log, of 1; then how they stand. */
export type SoFar = { along: number } | { standing: HuntStanding }

interface Kept {
  hunt: Hunt
  answer: HuntAnswer
}

/**
 * A hunt that is asked again and again: what it says of a log is kept, and what it would say after each answer of the look it
 * proposes can be worked out while somebody goes and looks.
 *
 * @example
 * const hunt = new ForeseenHunt(circuit, options)
 * let turn = hunt.answering(log)
 */
export class ForeseenHunt {
  private kept: Kept[] = []
  private begun?: Hunt

  constructor(
    private readonly circuit: Circuit,
    private readonly options: HuntOptions,
  ) {}

  /** Entries that do not fit the installation; the others can be asked about. */
  misfits(log: readonly HuntEntry[]): Misfit[] {
    return this.base.misfits(log)
  }

  /** Says how it stands as soon as that is known, and at last everything. Throws {@link HuntError} where the log does not fit. */
  *answering(log: readonly HuntEntry[]): Generator<SoFar, HuntAnswer> {
    const known = this.find(log)
    if (known) return known.answer
    const hunt = this.from(log)
    for (const along of hunt.following(log)) yield { along }
    const standing = standingOf(hunt, log)
    yield { standing }
    const answer = { ...standing, ...advice(hunt, log) }
    this.kept = [{ hunt, answer }]
    return answer
  }

  /** Works out what it would say after each answer of the look it proposes first, the likeliest first; gives which it is at. */
  *foreseeing(log: readonly HuntEntry[]): Generator<SoFar, void> {
    const base = this.find(log)
    const [look] = base?.answer.next ?? []
    if (!base || !look) return
    const outcomes = [...look.outcomes].sort((x, y) => y.probability - x.probability)
    const foreseen: Kept[] = []
    for (const [i, { found }] of outcomes.entries()) {
      const ahead: HuntEntry[] = [
        ...log,
        ...look.acts.map((act, at): HuntEntry => ({ id: `ahead-${at}`, do: act })),
        { id: 'ahead', see: look.see, found },
      ]
      const hunt = base.hunt.fork()
      const run = hunt.following(ahead)
      while (!run.next().done) yield { along: i / outcomes.length }
      const standing = standingOf(hunt, ahead)
      yield { along: (i + 0.5) / outcomes.length }
      foreseen.push({ hunt, answer: { ...standing, ...advice(hunt, ahead) } })
      this.kept = [base, ...foreseen]
      yield { along: (i + 1) / outcomes.length }
    }
  }

  /** What was kept of this very log, whatever its entries are called. */
  private find(log: readonly HuntEntry[]): Kept | undefined {
    const known = this.kept.find(({ hunt }) => hunt.followed.length === log.length && hunt.isOnTheWayTo(log))
    return known && { ...known, answer: calledAs(known, log) }
  }

  /** A hunt from which the log is followed the shortest way. */
  private from(log: readonly HuntEntry[]): Hunt {
    const [before] = this.kept
      .filter(({ hunt }) => hunt.isOnTheWayTo(log))
      .sort((x, y) => y.hunt.followed.length - x.hunt.followed.length)
    if (before) return before.hunt.fork()
    return this.base.again()
  }

  /** Never followed: every suspect as somebody would find it. */
  private get base(): Hunt {
    return (this.begun ??= new Hunt(this.circuit, this.options))
  }
}

/** An answer that was worked out ahead, its findings called as they are called now. */
function calledAs({ hunt, answer }: Kept, log: readonly HuntEntry[]): HuntAnswer {
  const names = new Map(hunt.followed.map(({ id }, i) => [id, log[i]?.id ?? id]))
  if ([...names].every(([from, to]) => from === to)) return answer
  const name = (id: string) => names.get(id) ?? id
  const named = (one: HuntAnswer['suspects'][number]) => ({
    ...one,
    against: one.against.map((a) => ({ ...a, finding: name(a.finding) })),
    supported: one.supported.map(name),
  })
  return {
    ...answer,
    suspects: answer.suspects.map(named),
    ruledOut: answer.ruledOut.map(named),
    contradictions: answer.contradictions.map((one) => ({ ...one, id: name(one.id), against: one.against.map(name) })),
  }
}
