import { exampleById } from '@nobbet/core'
import { useEffect } from 'react'
import { Link, useParams } from 'react-router'
import { Trace } from '../trace/trace-page'

/** A shipped example under the hand, without a job: nothing of it is kept. */
export function ExamplePage() {
  const { example = '' } = useParams()
  const found = exampleById(example)
  useEffect(() => {
    document.title = found ? `${found.name} · Nobbet` : 'Nobbet'
  }, [found])
  if (!found)
    return (
      <main className="page">
        <h1>No example of that name</h1>
        <p>
          It may have been renamed. <Link to="/kit">Kit</Link> lists every system that ships.
        </p>
      </main>
    )
  return (
    <>
      <div className="example-head">
        <strong>{found.name}</strong> <span className="quiet">an example from Kit: nothing here is kept</span>
      </div>
      <Trace installation={found.installation} />
    </>
  )
}
