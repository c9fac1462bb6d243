import { Button, Modal } from 'react-bootstrap'
import { IsolationStep } from '../shell/isolation-step'

interface IsolationGateProps {
  job: string
  show: boolean
  onAcknowledged: () => void
  onLeave: () => void
}

/** Asked once for the visit, before the first conductor is moved: then the step is done that was asked for. */
export function IsolationGate({ job, show, onAcknowledged, onLeave }: IsolationGateProps) {
  return (
    <Modal show={show} onHide={onLeave} centered aria-label="Isolation step">
      <Modal.Body>
        <IsolationStep job={job} before="wiring is altered" onAcknowledged={onAcknowledged} />
        <Button variant="link" className="mt-2" onClick={onLeave}>
          Leave the wiring as it is
        </Button>
      </Modal.Body>
    </Modal>
  )
}
