import { Alert } from 'react-bootstrap'
import { ApiError } from '../api/client'

/** A save that did not arrive: what was typed is still in the form. */
export function SaveFailed({ error }: { error: Error }) {
  return (
    <Alert variant="danger">
      <strong>Not saved.</strong>{' '}
      {error instanceof ApiError
        ? error.message
        : 'The server cannot be reached. What you entered is still here: try again.'}
    </Alert>
  )
}
