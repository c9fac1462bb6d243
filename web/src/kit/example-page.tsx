import { exampleById } from '@nobbet/core'
import { useEffect } from 'react'
import { Link, useParams } from 'react-router'
import { Trace } from '../trace/trace-page'
import { ExampleHead } from './example-head'

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
      <ExampleHead example={found} />
      <Trace installation={found.installation} />
    </>
  )
}
