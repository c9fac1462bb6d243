import { Button, Form } from 'react-bootstrap'
import type { Writing } from './use-writing'

/** A terminal: what is printed beside it; and that there is none, where nothing sits in it. */
export function OneTerminal({ writing, id, onClose }: { writing: Writing; id: string; onClose: () => void }) {
  const { survey, terminal } = writing
  const own = survey.terminals.find((one) => one.id === id)
  if (!own) return null
  const isUsed =
    survey.links.some(({ between }) => between.includes(id)) ||
    survey.cables.some(({ cores }) => cores.some(({ at }) => 'terminal' in at && at.terminal === id))
  return (
    <section className="sheet one-core" aria-label="This terminal">
      <header>
        <h2>Terminal {id}</h2>
        <Button size="sm" variant="outline-dark" onClick={onClose}>
          Close
        </Button>
      </header>
      <Form.Label htmlFor="terminal-legend">What is printed beside it</Form.Label>
      <Form.Control
        id="terminal-legend"
        defaultValue={own.legend}
        maxLength={60}
        onBlur={(event) => {
          const legend = event.target.value.trim()
          if (legend !== own.legend) terminal(id, legend)
        }}
      />
      <div className="one-acts">
        <Button size="sm" variant="outline-dark" disabled={isUsed} onClick={() => (terminal(id, null), onClose())}>
          There is no such terminal
        </Button>
        {isUsed && <span className="quiet">Something sits in it or is linked to it.</span>}
      </div>
    </section>
  )
}
