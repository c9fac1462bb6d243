import { Modal } from 'react-bootstrap'

const keys = [
  ['Space', 'Run or pause'],
  ['N', 'To the next event'],
  ['U', 'Undo what was done last'],
  ['Shift R', 'Begin anew'],
  ['M', 'Meter in the hand, or away'],
  ['W', 'Water or wiring centre'],
  ['Esc', 'Lay down the lead, close what is looked at'],
  ['Tab, Enter', 'From control to control; press it'],
  ['/', 'Find a terminal, device or conductor, or do something by name'],
  ['?', 'These keys'],
] as const

/** The keys of Trace, for the desk. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  return (
    <Modal show onHide={onClose} aria-labelledby="keys-title">
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="keys-title">
          Keys of Trace
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <dl className="keys">
          {keys.map(([key, does]) => (
            <div key={key}>
              <dt>
                <kbd>{key}</kbd>
              </dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
      </Modal.Body>
    </Modal>
  )
}
