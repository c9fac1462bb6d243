import type { KeptRow } from '@nobbet/contract'
import type { RowText, RunRow } from '@nobbet/core'
import { useEffect, useRef } from 'react'
import { isStale } from './use-run'
import { outcomeMarks, outcomeText, outcomeWords } from './words'

interface RowListProps {
  rows: readonly RunRow[]
  texts: readonly RowText[]
  came: ReadonlyMap<string, KeptRow>
  current?: string
  /** Left out where there is nothing to go to yet. */
  onPick?: (row: string) => void
}

/** Every step, expected beside found. */
export function RowList({ rows, texts, came, current, onPick }: RowListProps) {
  const list = useRef<HTMLElement>(null)
  // The list goes along with the step that is shown large, and moves nothing else.
  useEffect(() => {
    const at = list.current?.querySelector<HTMLElement>('.current')
    if (list.current && at) list.current.scrollTop = at.offsetTop - list.current.clientHeight / 3
  }, [current])
  const gone = [...came.values()].filter(({ row }) => !rows.some(({ id }) => id === row))
  return (
    <section ref={list} className="sheet run-list" aria-label="Steps">
      <ol>
        {rows.map((row, i) => {
          const done = came.get(row.id)
          const stale = done !== undefined && isStale(done, row)
          const how = done && !stale ? done.how : 'open'
          const { title, expects, byHand } = texts[i]
          return (
            <li key={row.id} data-row={row.id} data-how={how} className={row.id === current ? 'current' : ''}>
              <button
                type="button"
                aria-current={row.id === current || undefined}
                disabled={!onPick}
                onClick={() => onPick?.(row.id)}
              >
                <span className="outcome-mark" aria-hidden>
                  {outcomeMarks[how]}
                </span>
                <span className="number">{i + 1}</span>
                <span className="what">{title}</span>
                <span className="expected">{expectedInShort(expects, byHand)}</span>
                <span className={`came ${how}`}>
                  {done ? (stale ? 'Altered since: again' : outcomeText(done)) : outcomeWords.open}
                </span>
              </button>
            </li>
          )
        })}
      </ol>
      {gone.length > 0 && (
        <>
          <h3>No longer asked: the wiring is another one</h3>
          <ul className="gone">
            {gone.map((row) => (
              <li key={row.id}>
                <span aria-hidden>{outcomeMarks[row.how]}</span> {row.title}: {outcomeText(row)}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

/** "House valve Open · Boiler Called": the place without its question. */
function expectedInShort(expects: RowText['expects'], byHand: readonly string[]): string {
  const looks = expects.map(({ at, is }) => `${at.split(':')[0]}: ${is}`)
  return [...looks, ...(byHand.length > 0 ? [`${byHand.length} to see to`] : [])].join(' · ')
}
