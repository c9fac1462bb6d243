import {
  answerText,
  inSentence,
  rowExpectText,
  rowFoundText,
  meets,
  type Circuit,
  type Found,
  type RowLook,
} from '@nobbet/core'
import { Fragment, useState } from 'react'
import { Answers } from '../hunt/answers'

interface RowLooksProps {
  job: string
  circuit: Circuit
  looks: readonly RowLook[]
  places: readonly string[]
  /** What was found, by the number of the look, where it was not just as expected. */
  found: ReadonlyMap<number, Found>
  onFound: (look: number, found: Found | undefined) => void
  /** Practising, what the simulation shows, once it is looked at. */
  shows?: readonly string[]
}

/** What is to be seen where: expected beside found. A press on a line says what it was instead. */
export function RowLooks({ job, circuit, looks, places, found, onFound, shows }: RowLooksProps) {
  const [asked, ask] = useState<number>()
  const [seen, setSeen] = useState<ReadonlySet<number>>(new Set())
  return (
    <table className="row-looks">
      <thead>
        <tr>
          <th scope="col">Look at</th>
          <th scope="col">Expected</th>
          <th scope="col">{shows ? 'It shows' : 'Found'}</th>
        </tr>
      </thead>
      <tbody>
        {looks.map((look, i) => {
          const was = found.get(i)
          const isWrong = was !== undefined && !meets(look, was)
          return (
            <Fragment key={JSON.stringify(look.see)}>
              <tr className={isWrong ? 'wrong' : ''}>
                <th scope="row">{places[i]}</th>
                <td>{rowExpectText(circuit, look)}</td>
                <td>
                  {shows ? (
                    seen.has(i) ? (
                      <strong>{shows[i]}</strong>
                    ) : (
                      <button type="button" className="found" onClick={() => setSeen(new Set([...seen, i]))}>
                        Look
                      </button>
                    )
                  ) : (
                    <button
                      type="button"
                      className="found"
                      aria-expanded={asked === i}
                      aria-label={`${places[i]}: ${was ? rowFoundText(circuit, look, was) : 'otherwise'}`}
                      onClick={() => ask(asked === i ? undefined : i)}
                    >
                      {was ? rowFoundText(circuit, look, was) : <span className="quiet">Otherwise</span>}
                    </button>
                  )}
                </td>
              </tr>
              {asked === i && (
                <tr className="row-answers">
                  <td colSpan={3}>
                    <div role="group" aria-label={`Found: ${places[i]}`}>
                      <Answers
                        screen={{ circuit, job }}
                        see={look.see}
                        onAnswer={(answer) => {
                          ask(undefined)
                          onFound(i, typeof answer === 'string' ? undefined : answer)
                        }}
                      />
                      {was && (
                        <button
                          type="button"
                          className="btn btn-link"
                          onClick={() => {
                            ask(undefined)
                            onFound(i, undefined)
                          }}
                        >
                          Not {inSentence(answerText(circuit, look.see, was))} after all
                        </button>
                      )}
                    </div>
                  </td>
                </tr>
              )}
            </Fragment>
          )
        })}
      </tbody>
    </table>
  )
}
