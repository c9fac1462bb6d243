import type { Colour, Installation } from '@nobbet/core'
import { Form } from 'react-bootstrap'

/** Cables as they are found, by their cores. */
const found: readonly (readonly Colour[])[] = [
  ['brown', 'blue'],
  ['brown', 'blue', 'green-yellow'],
  ['brown', 'black', 'grey', 'green-yellow'],
  ['brown', 'blue', 'black', 'grey', 'green-yellow'],
  ['red', 'black'],
  ['red', 'black', 'green-yellow'],
  ['red', 'yellow', 'blue', 'green-yellow'],
  ['black', 'white', 'bare'],
  ['black', 'white', 'red', 'bare'],
]

interface InWallProps {
  /** The plan whose cables they might be. */
  plan: Installation | undefined
  cables: Partial<Record<string, Colour[]>>
  onChange: (cables: Partial<Record<string, Colour[]>> | undefined) => void
}

/** Cables that are in the wall and are to be used: cores and colours as they are, the plan follows. */
export function InWall({ plan, cables, onChange }: InWallProps) {
  const own = Object.keys(cables)
  const runs = (plan?.cables ?? []).filter(
    ({ leadOf, cores }) =>
      leadOf === undefined &&
      cores.some(({ ends }) => ends.some((e) => 'terminal' in e && e.terminal.startsWith('wc.'))),
  )
  // What was said stays in sight, whether there is a plan or none.
  const rows = [
    ...runs.map(({ id, label }) => ({ id, label })),
    ...own.filter((id) => !runs.some((run) => run.id === id)).map((id) => ({ id, label: id })),
  ]
  const put = (id: string, colours: Colour[] | undefined) => {
    const others = Object.entries(cables).filter(([other]) => other !== id)
    const next = colours ? [...others, [id, colours] as const] : others
    onChange(next.length > 0 ? Object.fromEntries(next) : undefined)
  }
  return (
    <details className="mt-3 in-wall" open={own.length > 0}>
      <summary className="fw-bold">Cables in the wall already{own.length > 0 ? `: ${own.length}` : ''}</summary>
      <div className="in-wall-rows">
        {rows.map(({ id, label }) => {
          const now = cables[id]?.join(', ')
          const isUsual = found.some((colours) => colours.join(', ') === now)
          return (
            <label key={id} className="in-wall-row">
              <span>{label}</span>
              <Form.Select
                size="sm"
                value={now ?? ''}
                onChange={({ target }) => put(id, target.value ? (target.value.split(', ') as Colour[]) : undefined)}
              >
                <option value="">to be laid</option>
                {[...(now && !isUsual ? [now] : []), ...found.map((colours) => colours.join(', '))].map((text) => (
                  <option key={text} value={text}>
                    {text.split(', ').length}-core: {text}
                  </option>
                ))}
              </Form.Select>
            </label>
          )
        })}
      </div>
    </details>
  )
}
