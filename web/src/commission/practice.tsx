import { compile, rowFoundText, runRowTexts, type Installation, type Practised } from '@nobbet/core'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Button } from 'react-bootstrap'
import { Failed, Loading } from '../shell/notes'
import { useSearchValue } from '../shell/use-search-value'
import { ask } from '../workers/compute'
import { placesOf } from './row-done'
import { RowLooks } from './row-looks'
import { optionsFor } from './use-run'

const options = { ...optionsFor('arrival'), helper: true }

/** The run on the simulation, with something wrong in it that is not told, or with nothing: nothing of it is recorded. */
export function Practice({ job, wiring }: { job: string; wiring: Installation }) {
  const [text, setSeed] = useSearchValue('practice')
  const seed = Number(text) || 1
  const { data, error, refetch } = useQuery({
    queryKey: ['practice', seed, wiring],
    queryFn: () => ask('brief', (api) => api.practice(wiring, options, seed)),
    staleTime: Infinity,
    networkMode: 'always',
    retry: false,
  })
  if (error) return <Failed error={error} retry={() => void refetch()} />
  if (!data) return <Loading what="the practice" />
  return (
    <Practising key={seed} job={job} wiring={wiring} practised={data} onAnother={() => setSeed(String(seed + 1))} />
  )
}

interface PractisingProps {
  job: string
  wiring: Installation
  practised: Practised
  onAnother: () => void
}

function Practising({ job, wiring, practised, onAnother }: PractisingProps) {
  const circuit = useMemo(() => compile(wiring), [wiring])
  // Only what can be seen is practised.
  const seen = useMemo(() => practised.rows.filter(({ looks }) => looks.length > 0), [practised])
  const texts = useMemo(() => {
    const all = runRowTexts(
      circuit,
      practised.rows.map(({ row }) => row),
    )
    return new Map(practised.rows.map(({ row }, i) => [row.id, all[i]]))
  }, [circuit, practised])
  const [said, setSaid] = useState<readonly boolean[]>([])
  const [told, tell] = useState(false)
  const now = seen[said.length]
  const isOver = told || !now
  if (isOver)
    return (
      <Told
        practised={practised}
        seen={seen}
        said={said}
        titleOf={(id) => texts.get(id)!.title}
        onAnother={onAnother}
      />
    )
  const { title, acts } = texts.get(now.row.id)!
  return (
    <section className="sheet run-step practice" aria-label="This step">
      <p className="quiet row-number">
        Practice on the simulation, nothing is recorded. Step {said.length + 1} of {seen.length}
      </p>
      <h2 className="row-title">{title}</h2>
      {acts.length > 0 && (
        <ul className="run-do" aria-label="Do">
          {acts.map((act, i) => (
            <li key={i}>{act}</li>
          ))}
        </ul>
      )}
      <RowLooks
        key={now.row.id}
        job={job}
        circuit={circuit}
        looks={now.row.looks}
        places={placesOf(circuit, now.row.looks)}
        found={new Map()}
        onFound={() => undefined}
        shows={now.looks.map((look) => rowFoundText(circuit, look, look.found))}
      />
      <div className="row-press">
        <Button size="lg" onClick={() => setSaid([...said, false])}>
          ✓ As expected
        </Button>
        <Button size="lg" variant="danger" onClick={() => setSaid([...said, true])}>
          ✕ Not as expected
        </Button>
      </div>
      <div className="row-else">
        <Button variant="outline-dark" onClick={() => tell(true)}>
          I know what it is
        </Button>
      </div>
    </section>
  )
}

interface ToldProps {
  practised: Practised
  seen: Practised['rows']
  said: readonly boolean[]
  titleOf: (row: string) => string
  onAnother: () => void
}

function Told({ practised, seen, said, titleOf, onAnother }: ToldProps) {
  const missed = said.flatMap((was, i) => (was === seen[i].isOtherwise ? [] : [seen[i]]))
  const shows = seen.filter(({ isOtherwise }) => isOtherwise)
  return (
    <section className="sheet run-step practice" role="status">
      <h2 className="row-title">{practised.fault ? practised.fault.label : 'Nothing was wrong'}</h2>
      <p>
        {said.length - missed.length} of {said.length} steps judged right.
      </p>
      {missed.length > 0 && (
        <>
          <h3>Judged wrongly</h3>
          <ul>
            {missed.map(({ row, isOtherwise }) => (
              <li key={row.id}>
                {titleOf(row.id)}: it was {isOtherwise ? 'not ' : ''}as expected
              </li>
            ))}
          </ul>
        </>
      )}
      {shows.length > 0 && (
        <>
          <h3>Where it shows</h3>
          <ul>
            {shows.map(({ row }) => (
              <li key={row.id}>{titleOf(row.id)}</li>
            ))}
          </ul>
        </>
      )}
      <div className="row-press">
        <Button size="lg" onClick={onAnother}>
          Another one
        </Button>
      </div>
    </section>
  )
}
