import { exampleById } from '@nobbet/core'
import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import { ExampleHead } from '../kit/example-head'
import { LostPage } from '../shell/lost-page'
import { Week } from './week'

/** The week of a shipped example: nothing of it is kept. */
export function ExampleWeek() {
  const { example = '' } = useParams()
  const found = exampleById(example)
  const [mine, setMine] = useState<{ id: string; installation: NonNullable<typeof found>['installation'] }>()
  useEffect(() => {
    document.title = found ? `Week · ${found.name} · Nobbet` : 'Nobbet'
  }, [found])
  if (!found) return <LostPage />
  const installation = mine?.id === example ? mine.installation : found.installation
  return (
    <>
      <ExampleHead example={found} />
      <Week
        key={example}
        installation={installation}
        onChange={(wanted) => setMine({ id: example, installation: wanted })}
        keeping="Nothing here is kept"
      />
    </>
  )
}
