import { moveVerbs, noteText, type Move } from '@nobbet/core'
import { Conductor } from '../drawing/conductor'
import { StepActs, type StepActsProps } from '../plan/step-acts'
import { OfConductor } from './of-conductor'

interface MoveCardProps extends StepActsProps {
  move: Move
  number: number
  of: number
}

/** One move, to be read at arm's length: what, from where, to where. */
export function MoveCard({ move, number, of, ...acts }: MoveCardProps) {
  return (
    <section className="sheet step-card move-card no-print" aria-label="This move">
      <p className="step-where">{move.place}</p>
      <p className="step-do">{moveVerbs[move.do]}</p>
      {move.colour && (
        <p className="step-core">
          <Conductor colour={move.colour} sleeve={move.sleeve} />
        </p>
      )}
      <p className="move-what">{move.colour ? <OfConductor what={move.what} /> : move.what}</p>
      {(move.from !== undefined || move.to !== undefined) && (
        <dl className="from-to">
          {move.from !== undefined && (
            <>
              <dt>from</dt>
              <dd>{move.from}</dd>
            </>
          )}
          {move.to !== undefined && (
            <>
              <dt>to</dt>
              <dd className="to">{move.to}</dd>
            </>
          )}
        </dl>
      )}
      {move.note && <p className="move-note">{noteText(move.note)}</p>}
      <StepActs {...acts} />
      <p className="quiet mb-0">
        Move {number} of {of}
      </p>
    </section>
  )
}
