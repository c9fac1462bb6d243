import type { Installation } from '@nobbet/core'
import { useEffect, useRef, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Conductor } from '../drawing/conductor'
import { leadTypes, readLine, readNearEnd, usualCables, colourHelp } from './typed'
import type { Writing } from './use-writing'

interface WriteDownProps {
  doc: Installation
  writing: Writing
  linking: boolean
  onLinking: (on: boolean) => void
}

/** Writing down what is seen: by keyboard one line after the other, by thumb a press for each thing. */
export function WriteDown({ doc, writing, linking, onLinking }: WriteDownProps) {
  const { survey, waits, wait, add, sits, link } = writing
  const [text, setText] = useState('')
  const [problem, setProblem] = useState<string>()
  const field = useRef<HTMLInputElement>(null)
  const cable = waits && survey.cables.find(({ id }) => id === waits.cable)
  const core = cable?.cores.find(({ id }) => id === waits?.core)
  useEffect(() => {
    // At the desk the hands stay on the keyboard; on a phone nothing opens by itself.
    if (waits && window.matchMedia('(pointer: fine)').matches) field.current?.focus()
  }, [waits])
  const enter = () => {
    setProblem(undefined)
    if (core) {
      const at = readNearEnd(text)
      if (typeof at === 'string') return setProblem(at)
      if (at.at === 'unseen') {
        const i = cable!.cores.indexOf(core)
        const next = cable!.cores.slice(i + 1).find((one) => one.at.at === 'unseen')
        wait(next && { cable: cable!.id, core: next.id })
      } else sits(at)
      return setText('')
    }
    if (text.trim() === '') return
    const read = readLine(text)
    if (typeof read === 'string') return setProblem(read)
    if ('links' in read) link(read.links)
    else add(read.colours)
    setText('')
  }
  return (
    <section className="sheet write-down no-print" aria-label="Write down">
      {writing.dropped && (
        <p className="dropped" role="status">
          {writing.dropped.label} is taken out.{' '}
          <Button size="sm" variant="outline-primary" onClick={writing.bringBack}>
            Bring it back
          </Button>
        </p>
      )}
      <form
        onSubmit={(event) => {
          event.preventDefault()
          enter()
        }}
      >
        <Form.Label htmlFor="survey-line" className="write-ask">
          {core ? (
            <>
              <Conductor colour={core.colour} sleeve={core.sleeve} /> of {cable!.label}: sits in
            </>
          ) : (
            'A cable, or a link'
          )}
        </Form.Label>
        <div className="write-line">
          <Form.Control
            id="survey-line"
            ref={field}
            value={text}
            autoComplete="off"
            placeholder={core ? 'terminal, x cut back, - loose' : '5, or br bl gy, or 3-4'}
            maxLength={60}
            isInvalid={problem !== undefined}
            aria-describedby={problem === undefined ? undefined : 'survey-line-problem'}
            onChange={(event) => setText(event.target.value)}
          />
          <Button type="submit">{core ? 'Sits there' : 'Write down'}</Button>
        </div>
        {problem !== undefined && (
          <p id="survey-line-problem" role="alert" className="text-danger mb-0">
            {problem}
          </p>
        )}
      </form>
      {core && (
        <div className="terminal-pad" role="group" aria-label="Terminals">
          {survey.terminals.map(({ id }) => (
            <button key={id} type="button" onClick={() => sits({ at: 'terminal', terminal: id })}>
              {id}
            </button>
          ))}
        </div>
      )}
      {core ? (
        <div className="write-acts">
          <Button variant="outline-primary" onClick={() => sits({ at: 'cut-back' })}>
            Cut back
          </Button>
          <Button variant="outline-primary" onClick={() => sits({ at: 'loose' })}>
            Loose
          </Button>
          <Button variant="outline-dark" onClick={() => wait(undefined)}>
            Later
          </Button>
        </div>
      ) : (
        <>
          <div className="write-acts" role="group" aria-label="A cable comes in">
            {Object.entries(usualCables).map(([cores, colours]) => (
              <Button key={cores} variant="outline-primary" onClick={() => add(colours)}>
                {cores} cores
              </Button>
            ))}
            <Button variant="outline-primary" aria-pressed={linking} onClick={() => onLinking(!linking)}>
              {linking ? 'Links done' : 'Links'}
            </Button>
          </div>
          <div className="write-acts" role="group" aria-label="A lead comes in">
            {leadTypes(doc).map(({ type, name, colours }) => (
              <Button key={type} size="sm" variant="outline-dark" onClick={() => add(colours, type)}>
                Lead: {name}
              </Button>
            ))}
          </div>
          {survey.cables.length > 0 && (
            <Form.Check
              id="survey-complete"
              className="all-written"
              label="Every cable that comes in is written down"
              checked={survey.complete}
              onChange={(event) => writing.complete(event.target.checked)}
            />
          )}
          <details>
            <summary>Short words for colours</summary>
            <p className="quiet mb-0">{colourHelp}</p>
          </details>
        </>
      )}
    </section>
  )
}
