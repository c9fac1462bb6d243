import { surveyDepartureText, surveyFactText, type Installation, type Survey, type Surveyed } from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { PhotoRow } from '../shell/photo-row'
import { usePhotosOf } from '../shell/use-photos-of'
import { SureMark } from './sure-mark'

interface DeparturesProps {
  job: string
  doc: Installation
  survey: Survey
  result: Surveyed
  /** The wiring as found, where it was made: photos are pinned to it. */
  revision?: string
}

/** How the wiring departs from any drawing, with a photo of each. */
export function Departures({ job, doc, survey, result, revision }: DeparturesProps) {
  const { photos, add, takeDown } = usePhotosOf(job)
  const [problem, setProblem] = useState<string>()
  if (result.departures.length === 0) return null
  const pin = async (file: File, caption: string) => {
    try {
      setProblem(undefined)
      await add(file, { ...(revision !== undefined && { revision }), caption: caption.slice(0, 200) })
    } catch {
      setProblem(`"${file.name}" is no picture that this browser can read.`)
    }
  }
  return (
    <section className="sheet departures" aria-label="Otherwise than a drawing would have it">
      <h2>Otherwise than a drawing would have it</h2>
      <ul>
        {result.departures.map((departure) => {
          const { title, means, severity } = surveyDepartureText(doc, survey, departure)
          const mine = photos.filter(({ caption }) => caption === title.slice(0, 200))
          return (
            <li key={departure.id} className={severity}>
              <strong>{title}</strong>
              <SureMark sure={departure.sure} share={0} />
              <p>{means}</p>
              <PhotoRow photos={mine} onTakeDown={takeDown} />
              <Form.Control
                className="no-print"
                type="file"
                size="sm"
                accept="image/*"
                capture="environment"
                aria-label={`Pin a photo of: ${title}`}
                onChange={(event) => {
                  const input = event.target as HTMLInputElement
                  const [file] = input.files ?? []
                  if (file) void pin(file, title)
                  input.value = ''
                }}
              />
            </li>
          )
        })}
      </ul>
      {problem !== undefined && (
        <p role="alert" className="text-danger">
          Not pinned: {problem}
        </p>
      )}
    </section>
  )
}

interface FactsProps {
  doc: Installation
  survey: Survey
  result: Surveyed
  onTake: (fact: string) => void
}

/** What was found out, the last first; what excludes another, or is made improbable by the rest, says so. */
export function Facts({ doc, survey, result, onTake }: FactsProps) {
  if (survey.facts.length === 0) return null
  const disputed = new Set(result.disputes.flat())
  const doubtful = new Map(result.doubtful.map((one) => [one.id, one.probability]))
  return (
    <section className="sheet facts" aria-label="Found out so far">
      <h2>Found out so far</h2>
      {disputed.size > 0 && (
        <p role="alert" className="text-danger">
          Some of this cannot all be so. Nothing is taken as certain by it: look again, and take back what was wrong.
        </p>
      )}
      <ul>
        {[...survey.facts].reverse().map((fact) => (
          <li key={fact.id}>
            <span>
              {surveyFactText(doc, survey, fact)}
              {fact.by && <span className="quiet"> · {fact.by}</span>}
              {disputed.has(fact.id) && <strong className="text-danger"> · excludes another</strong>}
              {doubtful.has(fact.id) && (
                <strong className="doubtful"> · perhaps mistaken, {Math.round(doubtful.get(fact.id)! * 100)} %</strong>
              )}
            </span>
            <Button size="sm" variant="outline-dark" className="no-print" onClick={() => onTake(fact.id)}>
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
