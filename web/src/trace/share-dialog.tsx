import { scenarioFileSchema, type KeptScenario, type ScenarioFile } from '@nobbet/contract'
import { useState } from 'react'
import { Button, Form, Modal } from 'react-bootstrap'
import { Link } from 'react-router'
import { v4 as newId } from 'uuid'
import { download, fileStem } from '../shell/download'
import { storeOf } from '../store/stores'
import type { SessionHandle } from './use-session'

interface ShareDialogProps {
  handle: SessionHandle
  /** The job that scenarios are kept with; none for an example. */
  job?: string
  scenarios: readonly KeptScenario[]
  onClose: () => void
}

/** Everything done so far, as a link, as a file, or kept with the job under a name. */
export function ShareDialog({ handle, job, scenarios, onClose }: ShareDialogProps) {
  const [problem, setProblem] = useState<string>()
  const acts = handle.whole.written
  const open = (texts: readonly string[]) => {
    handle.open(texts)
    onClose()
  }
  return (
    <Modal show onHide={onClose} scrollable aria-labelledby="share-title">
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="share-title">
          Share it, or keep it
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="share">
        <TheLink address={handle.address()} />
        {job && <Keep job={job} acts={acts} taken={scenarios.map((s) => s.name)} />}
        {job && scenarios.length > 0 && <Kept job={job} scenarios={scenarios} onOpen={open} />}
        <h3>As a file</h3>
        <div className="d-flex gap-2 flex-wrap align-items-center">
          <Button
            variant="outline-dark"
            disabled={acts.length === 0}
            onClick={() => saveFile({ name: handle.session.circuit.installation.name, acts })}
          >
            Save this
          </Button>
          <Form.Control
            type="file"
            accept="application/json,.json"
            aria-label="Open a file of a scenario"
            onChange={(event) => {
              const [file] = (event.currentTarget as HTMLInputElement).files ?? []
              void file?.text().then((text) => {
                const read = readFile(text)
                if (read.problem !== undefined) setProblem(read.problem)
                else open(read.acts)
              })
            }}
          />
        </div>
        {problem && (
          <p className="alarm mt-2" role="alert">
            {problem}
          </p>
        )}
      </Modal.Body>
    </Modal>
  )
}

/** Copying by button needs a secure context; the field works without. */
function TheLink({ address }: { address: string }) {
  const [copied, setCopied] = useState(false)
  return (
    <>
      <h3>As a link: the same job, the same actions</h3>
      <div className="d-flex gap-2">
        <Form.Control readOnly value={address} onFocus={(e) => e.target.select()} aria-label="Link" />
        {'clipboard' in navigator && (
          <Button onClick={() => void navigator.clipboard.writeText(address).then(() => setCopied(true))}>
            {copied ? 'Copied' : 'Copy'}
          </Button>
        )}
      </div>
    </>
  )
}

function Keep({ job, acts, taken }: { job: string; acts: readonly string[]; taken: readonly string[] }) {
  const [name, setName] = useState('')
  const written = name.trim()
  const there = taken.includes(written)
  return (
    <>
      <h3>Keep it with the job</h3>
      <Form
        className="d-flex gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (written === '' || there || acts.length === 0) return
          void storeOf(job).record({ do: 'scenario', id: newId(), scenario: { name: written, acts: [...acts] } })
          setName('')
        }}
      >
        <Form.Control
          value={name}
          maxLength={120}
          placeholder="Hot water alone, motor open"
          aria-label="Name of the scenario"
          isInvalid={there}
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="submit" disabled={written === '' || there || acts.length === 0}>
          Keep
        </Button>
      </Form>
      {there && <p className="quiet">There is one of that name.</p>}
      {acts.length === 0 && <p className="quiet">Nothing has been done yet: there is nothing to keep.</p>}
    </>
  )
}

interface KeptProps {
  job: string
  scenarios: readonly KeptScenario[]
  onOpen: (acts: readonly string[]) => void
}

function Kept({ job, scenarios, onOpen }: KeptProps) {
  const [gone, setGone] = useState<KeptScenario>()
  const record = (id: string, scenario: { name: string; acts: string[] } | null) =>
    void storeOf(job).record({ do: 'scenario', id, scenario })
  return (
    <>
      <h3>Kept with the job</h3>
      <ul className="kept-scenarios">
        {scenarios.map(({ id, name, acts }) => (
          <li key={id} data-scenario={name}>
            <strong>{name}</strong>
            <span className="kept-acts">
              <Button size="sm" onClick={() => onOpen(acts)}>
                Open
              </Button>
              <Link className="btn btn-sm btn-outline-dark" to={`/jobs/${job}/trace/compare?one=${id}`}>
                Compare
              </Link>
              <Button size="sm" variant="outline-dark" onClick={() => saveFile({ name, acts })}>
                File
              </Button>
              <Button
                size="sm"
                variant="link"
                onClick={() => {
                  setGone({ id, name, acts })
                  record(id, null)
                }}
              >
                Take off
              </Button>
            </span>
          </li>
        ))}
      </ul>
      {gone && !scenarios.some((s) => s.id === gone.id) && (
        <p role="status">
          “{gone.name}” is off the list.{' '}
          <Button
            size="sm"
            variant="link"
            onClick={() => {
              record(gone.id, { name: gone.name, acts: gone.acts })
              setGone(undefined)
            }}
          >
            Bring it back
          </Button>
        </p>
      )}
    </>
  )
}

function saveFile({ name, acts }: { name: string; acts: readonly string[] }): void {
  const file: ScenarioFile = { format: 'nobbet-scenario', version: 1, name, acts: [...acts] }
  download(`${fileStem(name)}.nobbet-scenario.json`, JSON.stringify(file, null, 2), 'application/json')
}

function readFile(text: string): { acts: string[]; problem?: undefined } | { problem: string } {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return { problem: 'This file cannot be read: it is no JSON.' }
  }
  const read = scenarioFileSchema.safeParse(json)
  if (read.success) return { acts: read.data.acts }
  const [issue] = read.error.issues
  return {
    problem: `This file cannot be opened: ${issue.path.join('.')}${issue.path.length > 0 ? ': ' : ''}${issue.message}`,
  }
}
