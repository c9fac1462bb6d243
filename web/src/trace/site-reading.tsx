import { answersTo, answerText, settle, type Found, type Simulation, type WrittenLook } from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { controlsToSet } from './site-state'
import { linesOf, weighed } from '@nobbet/contract'
import { HuntWriter } from '../hunt/hunt-log'
import { useJob } from '../store/use-job'

interface SiteReadingProps {
  job: string
  simulation: Simulation
  see: WrittenLook
}

/**
 * What the same leads show on site, written into the job's log with the state it was taken in: the controls as they stand here, at rest.
 */
export function SiteReading({ job, simulation, see }: SiteReadingProps) {
  const { state, store } = useJob(job)
  const [text, setText] = useState('')
  const [noted, setNoted] = useState<{ of: string; text: string }>()
  const { circuit } = simulation
  const { words, unit } = answersTo(circuit, see)
  const value = Number(text.replace(',', '.'))
  const readable = text.trim() !== '' && Number.isFinite(value) && value >= 0
  const of = JSON.stringify(see)
  if (!state) return null
  const note = async (found: Found) => {
    const lines = linesOf(circuit, state)
    const acts = controlsToSet(simulation, weighed(lines))
    await new HuntWriter(store, lines).add([
      ...acts.map((act) => ({ do: act })),
      ...(acts.length > 0 || lines.length === 0 ? [{ do: settle }] : []),
      { see, found },
    ])
    setNoted({ of, text: answerText(circuit, see, found) })
    setText('')
  }
  return (
    <div className="site-reading">
      <Form
        className="d-flex gap-2 align-items-center"
        onSubmit={(event) => {
          event.preventDefault()
          if (unit && readable) void note({ value, unit })
        }}
      >
        <Form.Label htmlFor="site-reading" className="m-0">
          On site
        </Form.Label>
        {unit && (
          <>
            <Form.Control
              id="site-reading"
              inputMode="decimal"
              value={text}
              onChange={(event) => setText(event.target.value.slice(0, 9))}
            />
            <span>{unit}</span>
            <Button type="submit" disabled={!readable}>
              Note it
            </Button>
          </>
        )}
        {words
          .filter((found) => 'word' in found)
          .map((found) => (
            <Button key={JSON.stringify(found)} variant="outline-dark" onClick={() => void note(found)}>
              {answerText(circuit, see, found)}
            </Button>
          ))}
      </Form>
      <p className="quiet mb-0">
        {noted?.of === of ? (
          <span role="status">
            Noted: {noted.text}, with the controls as they stand here.{' '}
            <Link to={`/jobs/${job}/hunt`}>See it in Hunt</Link>
          </span>
        ) : (
          'Goes into the job’s log with the controls as they stand here.'
        )}
      </p>
    </div>
  )
}
