import { duesOf, leftOpen, openVisit, recordOf, type JobState } from '@nobbet/contract'
import { useEffect, useState } from 'react'
import { Button, Modal } from 'react-bootstrap'
import { Link } from 'react-router'
import { dayText } from '../drawing/dates'
import { storeOf } from '../store/stores'

interface CloseDialogProps {
  job: { id: string; site: string }
  onClosed: () => void
  onLeave: () => void
}

/** Closing asks, and says what is still open; what has to be put back keeps a job from being closed. */
export function CloseDialog({ job, onClosed, onLeave }: CloseDialogProps) {
  const [state, setState] = useState<JobState>()
  const [problem, setProblem] = useState<string>()
  useEffect(() => {
    const store = storeOf(job.id)
    void store.load().then(() => {
      const { state: read, error } = store.current()
      if (read) setState(read)
      else setProblem(error?.message ?? 'The job could not be read.')
    })
  }, [job.id])
  const left = state ? leftOpen(state) : []
  const dues = state ? duesOf(recordOf(state)) : []
  const visit = state && openVisit(recordOf(state))
  const close = async () => {
    const store = storeOf(job.id)
    if (visit) await store.record({ do: 'visit-ends', visit: visit.id })
    await store.edit('Job closed', (document) => ({ ...document, status: 'closed' }))
    onClosed()
  }
  return (
    <Modal show onHide={onLeave} centered aria-labelledby="close-job">
      <Modal.Header closeButton>
        <Modal.Title id="close-job">Close “{job.site}”?</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {problem && <p role="alert">{problem}</p>}
        {!state && !problem && <p role="status">Looking what is still open</p>}
        {left.length > 0 && (
          <div className="refused" role="alert">
            <strong>It is not closed: there is something to put back.</strong>
            <ul>
              {left.map(({ id, text }) => (
                <li key={id}>{text}</li>
              ))}
            </ul>
            <Link to={`/jobs/${job.id}/visit`}>Put it back, or leave it until a day, under Visit</Link>
          </div>
        )}
        {dues.length > 0 && (
          <>
            <p>These have a day, and are not told any more once the job is closed:</p>
            <ul>
              {dues.map(({ id, what, on }) => (
                <li key={id}>
                  {what} <span className="quiet">until {dayText(new Date(on))}</span>
                </li>
              ))}
            </ul>
          </>
        )}
        {visit && left.length === 0 && <p>The visit that is open ends with it.</p>}
        {state && left.length + dues.length === 0 && !visit && <p>Nothing is open in it. It can be opened again.</p>}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="link" onClick={onLeave}>
          Leave it open
        </Button>
        <Button disabled={!state || left.length > 0} onClick={() => void close()}>
          Close it
        </Button>
      </Modal.Footer>
    </Modal>
  )
}
