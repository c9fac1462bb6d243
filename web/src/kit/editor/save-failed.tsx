import { Alert } from 'react-bootstrap'
import { errorText } from '../../api/client'

/** A save that did not arrive: what was typed is still in the form. */
export function SaveFailed({ error }: { error: Error }) {
  return (
    <Alert variant="danger">
      <strong>Not saved.</strong> {errorText(error)} What you entered is still here.
    </Alert>
  )
}
