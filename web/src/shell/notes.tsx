import { Button, Spinner } from 'react-bootstrap'
import { Link } from 'react-router'
import { ApiError, errorText } from '../api/client'

/** Loading, failed and empty, designed once. */
export function Loading({ what }: { what: string }) {
  return (
    <div className="page panel-note" role="status">
      <Spinner size="sm" animation="border" /> Loading {what}
    </div>
  )
}

export function Failed({ error, retry }: { error: Error; retry: () => void }) {
  const gone = error instanceof ApiError && [404, 410].includes(error.status)
  return (
    <div className="page panel-note" role="alert">
      <h2>{gone ? 'This is not here' : 'That did not work'}</h2>
      <p>{errorText(error)}</p>
      {gone ? (
        <Link className="btn btn-primary" to="/">
          All jobs
        </Link>
      ) : (
        <Button onClick={retry}>Try again</Button>
      )}
    </div>
  )
}
