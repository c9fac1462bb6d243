import { backText, moveText, moveVerbs, noteText, type Move } from '@nobbet/core'
import { Form } from 'react-bootstrap'
import { Conductor } from '../drawing/conductor'

interface MoveListProps {
  moves: readonly Move[]
  isDone: (move: Move) => boolean
  /** Id of the move that is shown large. */
  current?: string
  /** Read the other way round: the old wiring again. */
  back: boolean
  onTick: (move: Move, done: boolean) => void
  onPick: (move: Move) => void
}

/** A move told beside its conductor’s colour: by its cable alone. */
const beside = (move: Move): Move => {
  const at = move.what.indexOf(' of ')
  return move.colour === undefined || at < 0 ? move : { ...move, what: move.what.slice(at + 4) }
}

/** Moves that follow each other at one place. */
interface Stage {
  place: string
  moves: Move[]
}

const stagesOf = (moves: readonly Move[]): Stage[] =>
  moves.reduce<Stage[]>((stages, move) => {
    const last = stages[stages.length - 1]
    if (last?.place === move.place) last.moves.push(move)
    else stages.push({ place: move.place, moves: [move] })
    return stages
  }, [])

/** Every move in its order, place by place, with a box to tick; so it goes on paper as well. */
export function MoveList({ moves, isDone, current, back, onTick, onPick }: MoveListProps) {
  const stages = stagesOf(back ? [...moves].reverse() : moves)
  return (
    <div className="step-list move-list">
      {stages.map(({ place, moves: own }, i) => (
        <section key={`${i} ${place}`} className="sheet" aria-label={place}>
          <h2>
            {place}
            {!back && (
              <span className="quiet">
                {own.filter(isDone).length} of {own.length}
              </span>
            )}
          </h2>
          <ul>
            {own.map((move) => (
              <li key={move.id} className={move.id === current ? 'current' : ''} data-step={move.id}>
                {back ? (
                  <span className="ps-2 quiet">{moves.indexOf(move) + 1}</span>
                ) : (
                  <Form.Check
                    checked={isDone(move)}
                    aria-label={`${moveVerbs[move.do]} ${move.what}`}
                    onChange={(e) => onTick(move, e.target.checked)}
                  />
                )}
                <button type="button" onClick={() => onPick(move)} aria-current={move.id === current || undefined}>
                  <span className="what">{back ? 'Back' : moveVerbs[move.do]}</span>
                  <span>
                    {move.colour && <Conductor colour={move.colour} sleeve={back ? undefined : move.sleeve} />}
                  </span>
                  <span className="where">
                    {(back ? backText : moveText)(beside(move))}
                    {move.note && !back && <span className="move-note">{noteText(move.note)}</span>}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  )
}
