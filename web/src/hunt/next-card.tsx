import {
  hazardOf,
  lookText,
  methodText,
  passes,
  questionText,
  thingLookedAt,
  toolText,
  type NextLook,
  type WrittenLook,
} from '@nobbet/core'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { IsolationStep, severalSupplies, useIsolation } from '../shell/isolation-step'
import { Answers } from './answers'
import { CannotDo } from './cannot-do'
import { placeName, placeOf, sameLook, type Answer, type Chosen, type HuntScreen } from './hunt-screen'
import { SetFirst } from './set-first'

interface NextCardProps {
  screen: HuntScreen
  next: readonly NextLook[]
  onNoticed: () => void
  /** What kind of look it is, at the head. */
  children?: React.ReactNode
}

/** What to do next, where, with what, and what each answer would leave. */
export function NextCard({ screen, next, onNoticed, children }: NextCardProps) {
  const [choice, setChoice] = useState<Chosen>()
  /** An answer was pressed and is being written down: a second press is none. */
  const [writing, setWriting] = useState(false)
  const [first] = next
  const proposed = choice ? next.find((look) => sameLook(look, choice)) : first
  const chosen: Chosen = proposed ?? choice ?? first
  const beside = first.alongside.map(({ see }) => ({ acts: first.acts, see }))
  const write = (answer: Answer, done = chosen.acts) => {
    if (writing) return
    setWriting(true)
    const after = chosen.acts.filter((act) => !done.includes(act))
    const finding = { see: chosen.see, found: answer, ...(after.length > 0 && { after }) }
    void screen.writer.add([...done.map((act) => ({ do: act })), finding]).finally(() => {
      setWriting(false)
      setChoice(undefined)
    })
  }
  return (
    <section
      className="sheet next-card"
      aria-label="Next look"
      aria-busy={writing}
      data-look={JSON.stringify({ acts: chosen.acts, see: chosen.see })}
    >
      {children}
      <Look
        key={JSON.stringify([chosen.acts, chosen.see])}
        screen={screen}
        chosen={chosen}
        proposed={proposed}
        meanwhile={
          beside.length > 0 && <Meanwhile screen={screen} looks={beside} chosen={chosen} onChoose={setChoice} />
        }
        onAnswer={write}
      />
      <div className="others">
        <Others screen={screen} next={next} beside={beside} chosen={chosen} onChoose={setChoice} />
        <Button variant="outline-primary" className="noticed-button" onClick={onNoticed}>
          Something else noticed
        </Button>
      </div>
    </section>
  )
}

interface LookProps {
  screen: HuntScreen
  chosen: Chosen
  proposed?: NextLook
  meanwhile: React.ReactNode
  /** `done`: the acts that were done for it, where not all of them were. */
  onAnswer: (answer: Answer, done?: readonly string[]) => void
}

const hazardWords = { live: 'On live parts', dead: 'Isolated', 'covers-on': 'No cover comes off' } as const

function Look({ screen, chosen, proposed, meanwhile, onAnswer }: LookProps) {
  const { circuit, job } = screen
  const { acts, see } = chosen
  const [isolated] = useIsolation(job)
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const hazard = hazardOf(see, proposed?.live ?? (see.at === 'points' && isOnLive(see)))
  const place = placeName(circuit, placeOf(circuit, thingLookedAt(see)))
  const way = (proposed?.places ?? []).map((id) => placeName(circuit, id))
  const several = severalSupplies(circuit.installation)
  const opens = hazard === 'dead' || proposed?.isolateFirst !== undefined
  return (
    <>
      <header className="look-where">
        <span className="place">{place}</span>
        {way.length > 1 && <span className="way">by way of {way.slice(0, -1).join(', ')}</span>}
        <span className={`hazard ${hazard}`}>{hazardWords[hazard]}</span>
      </header>
      <SetFirst
        screen={screen}
        acts={acts}
        ticked={ticked}
        onTick={setTicked}
        restsAfter={proposed?.restsAfter}
        meanwhile={meanwhile}
      />
      <h2 className="question">{questionText(circuit, see)}</h2>
      <p className="method">
        <strong>{toolText(see)}.</strong> {methodText(see)}
      </p>
      {opens && !isolated && <IsolationStep job={job} before="the cover comes off" />}
      {opens && isolated && several && <p className="caution">{several}</p>}
      {hazard === 'live' && (
        <p className="caution">
          Live reading: only if you are competent to work live.{' '}
          {opens && 'Isolate, open it, restore the supply, then read.'}
        </p>
      )}
      <Answers screen={screen} see={see} outcomes={proposed?.outcomes} keys onAnswer={(answer) => onAnswer(answer)} />
      <CannotDo
        screen={screen}
        chosen={chosen}
        live={hazard === 'live'}
        way={proposed?.places ?? []}
        done={acts.filter((act) => ticked.has(act))}
        onAnswer={onAnswer}
      />
    </>
  )
}

const isOnLive = (see: Extract<WrittenLook, { at: 'points' }>): boolean => see.with === 'tester' || see.with === 'meter'

interface OthersProps {
  screen: HuntScreen
  next: readonly NextLook[]
  beside: readonly Chosen[]
  chosen: Chosen
  onChoose: (look: Chosen) => void
}

/** What else would tell: in the same state, so that one way serves for several; and in others. */
function Others({ screen, next, beside, chosen, onChoose }: OthersProps) {
  const others = next.filter((look) => !sameLook(look, chosen))
  const proposed = next.some((look) => sameLook(look, chosen)) ? undefined : next[0]
  if (others.length + beside.length === 0) return null
  return (
    <details>
      <summary>Other looks that would tell</summary>
      <ul>
        {proposed && (
          <li>
            <button className="btn btn-link" onClick={() => onChoose(proposed)}>
              Back to the one proposed
            </button>
          </li>
        )}
        {beside
          .filter((look) => !sameLook(look, chosen))
          .map((look) => (
            <OtherLook key={JSON.stringify(look)} screen={screen} look={look} onChoose={onChoose}>
              with the controls as for this one
            </OtherLook>
          ))}
        {others.map((look) => (
          <OtherLook key={JSON.stringify([look.acts, look.see])} screen={screen} look={look} onChoose={onChoose}>
            {look.acts.filter((act) => !passes(act)).length} to set, {Math.round(look.minutes)} min
            {look.live && ', on live parts'}
          </OtherLook>
        ))}
      </ul>
    </details>
  )
}

interface OtherLookProps {
  screen: HuntScreen
  look: Chosen
  onChoose: (look: Chosen) => void
  children: React.ReactNode
}

function OtherLook({ screen, look, onChoose, children }: OtherLookProps) {
  return (
    <li>
      <button className="btn btn-link" onClick={() => onChoose({ acts: look.acts, see: look.see })}>
        {lookText(screen.circuit, look.see)}
      </button>
      <span className="quiet">{children}</span>
    </li>
  )
}

interface MeanwhileProps {
  screen: HuntScreen
  looks: readonly Chosen[]
  chosen: Chosen
  onChoose: (look: Chosen) => void
}

/** While something travels or cools: what is worth a look beside it. */
function Meanwhile({ screen, looks, chosen, onChoose }: MeanwhileProps) {
  return (
    <span className="meanwhile">
      Meanwhile:{' '}
      {looks
        .filter((look) => !sameLook(look, chosen))
        .slice(0, 2)
        .map((look) => (
          <button key={JSON.stringify(look.see)} className="btn btn-link" onClick={() => onChoose(look)}>
            {lookText(screen.circuit, look.see)}
          </button>
        ))}
    </span>
  )
}
