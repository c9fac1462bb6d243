import { mergedAtOnce, type AtOnce, type AtOnceOptions } from '@nobbet/core'
import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { Button } from 'react-bootstrap'
import { useSearchParams } from 'react-router'
import { errorText } from '../api/client'
import { Running } from '../shell/progress'
import { longRun } from '../workers/compute'
import type { HuntScreen } from './hunt-screen'
import { percentText, Sureness } from './sureness'

/** So many threes are gone through, made of the best pairs. */
const threesLooked = 2000

/** Pairs that were not looked at have no more than this of the weight: no need to look. */
const hardlyMatters = 0.005
/** So many share the pairs between them: what a machine has to spare, and two at least. */
const sharedBy = Math.min(6, Math.max(2, navigator.hardwareConcurrency - 1))

/** In the address: they are open, beside the suspects. */
export const severalOpen = 'several'

/** Two causes at once, and three: nobody goes through them in their head. A run of its own, which never keeps the card waiting. */
export function SeveralAtOnce({ screen }: { screen: HuntScreen }) {
  const { circuit, entries, record } = screen
  const [told, setTold] = useState<{ of: string; at: AtOnce }>()
  const [running, setRunning] = useState(false)
  const [error, setError] = useState<Error>()
  const run = useRef<AbortController>(undefined)
  const now = JSON.stringify([entries, record.options])
  const [search] = useSearchParams()
  const isAsked = search.has(severalOpen)
  const there = useRef<HTMLDetailsElement>(null)
  useEffect(() => () => run.current?.abort(), [])
  useEffect(() => {
    if (!isAsked || !there.current) return
    there.current.open = true
    there.current.querySelector('summary')?.focus()
  }, [isAsked])
  const begin = async (threes: number) => {
    run.current?.abort()
    const mine = new AbortController()
    run.current = mine
    setError(undefined)
    setRunning(true)
    const parts: AtOnce[] = []
    const hear = (part: number) => (at: AtOnce) => {
      if (mine.signal.aborted) return
      parts[part] = at
      const merged = mergedAtOnce(parts.filter(Boolean))
      setTold({ of: now, at: merged })
      // Threes are made of the pairs of one run, which knows by itself when to go on.
      if (threes === 0 && merged.restAtMost <= hardlyMatters) mine.abort()
    }
    const begun = (part: number, wanted: AtOnceOptions) =>
      longRun(
        `at-once-${part}`,
        (api, number) =>
          api.atOnce(number, circuit.installation, [...entries], record.options, wanted, proxy(hear(part))),
        mine.signal,
      )
    try {
      await (threes > 0
        ? begun(0, { threes, enough: hardlyMatters })
        : Promise.all(Array.from({ length: sharedBy }, (_, at) => begun(at, { part: { at, of: sharedBy } }))))
    } catch (e) {
      // The other does not go on by itself behind what is said.
      mine.abort()
      setError(e as Error)
    }
    if (run.current === mine) setRunning(false)
  }
  const stop = () => {
    run.current?.abort()
    setRunning(false)
  }
  const { pairs, threes } = told?.at ?? {}
  const stage = threes ?? pairs
  return (
    <details className="at-once" ref={there}>
      <summary>More than one cause at once?</summary>
      {!running && (
        <p>
          <Button variant="outline-primary" onClick={() => void begin(0)}>
            {told ? 'Look at pairs again' : 'Look at pairs'}
          </Button>{' '}
          <Button variant="outline-primary" onClick={() => void begin(threesLooked)}>
            And threes
          </Button>
        </p>
      )}
      {running && (
        <Running label="Causes gone through" share={stage && stage.done / stage.of} onStop={stop}>
          {stage ? `${stage.done.toLocaleString('en')} of ${stage.of.toLocaleString('en')}` : 'begins'}
          {threes && ' threes'}
        </Running>
      )}
      {error && <p className="text-danger">It could not be run: {errorText(error)}</p>}
      {told && (
        <>
          {told.of !== now && <p className="quiet">Of the log as it was before its last change.</p>}
          <p className="quiet">
            All that were looked at: {percentText(told.at.share)} of the weight. Pairs not looked at:{' '}
            {told.at.restAtMost < 0.01 ? 'under 1 %' : `at most ${percentText(told.at.restAtMost)}`}.
          </p>
          <ol>
            {told.at.best.slice(0, 5).map(({ ids, labels, share }) => (
              <li key={ids.join()}>
                {labels.map((label, i) => (
                  <span key={ids[i]} className="one-of">
                    {label}
                  </span>
                ))}
                <Sureness share={share} />
              </li>
            ))}
          </ol>
        </>
      )}
    </details>
  )
}
