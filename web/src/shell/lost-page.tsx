import { Button } from 'react-bootstrap'
import { Link, useRouteError } from 'react-router'

export function LostPage() {
  return (
    <div className="page panel-note">
      <h2>There is nothing at this address</h2>
      <Link className="btn btn-primary" to="/">
        All jobs
      </Link>
    </div>
  )
}

/** A view that broke: what was stored is not touched by that. */
export function RouteFailed() {
  const error = useRouteError()
  return (
    <div className="page panel-note" role="alert">
      <h2>This view broke</h2>
      <p>Nothing that was stored is lost. {error instanceof Error ? error.message : ''}</p>
      <Button onClick={() => location.reload()}>Load it again</Button>{' '}
      <Link className="btn btn-outline-primary" to="/" reloadDocument>
        All jobs
      </Link>
    </div>
  )
}
