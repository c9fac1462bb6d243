import type { Colour, Installation } from '@nobbet/core'
import { Conductor } from '../drawing/conductor'

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
  /** How long they are, m, where somebody has said so. */
  lengths: Partial<Record<string, number>>
  onLengths: (lengths: Partial<Record<string, number>> | undefined) => void
}

/** Cables: those that are in the wall and are to be used, cores and colours as they are; and how long each is. The plan follows. */
export function InWall({ plan, cables, onChange, lengths, onLengths }: InWallProps) {
  const own = Object.keys(cables)
  const runs = (plan?.cables ?? []).filter(
    ({ leadOf, cores }) =>
      leadOf === undefined &&
      cores.some(({ ends }) => ends.some((e) => 'terminal' in e && e.terminal.startsWith('wc.'))),
  )
  // What was said stays in sight, whether there is a plan or none.
  const rows = [
    ...runs.map(({ id, label, lengthM }) => ({ id, label, lengthM })),
    ...own.filter((id) => !runs.some((run) => run.id === id)).map((id) => ({ id, label: id, lengthM: undefined })),
  ]
  const put = (id: string, colours: Colour[] | undefined) => {
    const others = Object.entries(cables).filter(([other]) => other !== id)
    const next = colours ? [...others, [id, colours] as const] : others
    onChange(next.length > 0 ? Object.fromEntries(next) : undefined)
  }
  const measure = (id: string, metres: number | undefined) => {
    const others = Object.entries(lengths).filter(([other]) => other !== id)
    const next = metres === undefined ? others : [...others, [id, metres] as const]
    onLengths(next.length > 0 ? Object.fromEntries(next) : undefined)
  }
  const isMeasured = Object.keys(lengths).length > 0
  return (
    <details className="mt-3 in-wall" open={own.length > 0 || isMeasured}>
      <summary className="fw-bold">
        Cables in the wall already, and how long{own.length > 0 ? `: ${own.length} in the wall` : ''}
      </summary>
      <div className="in-wall-rows">
        {rows.map(({ id, label, lengthM }) => (
          <CableHere
            key={id}
            id={id}
            label={label}
            is={cables[id]}
            lengthM={lengthM}
            isMeasured={lengths[id] !== undefined}
            onPick={(colours) => put(id, colours)}
            onLength={(metres) => measure(id, metres)}
          />
        ))}
      </div>
    </details>
  )
}

interface CableHereProps {
  id: string
  label: string
  /** Its cores; undefined where it is to be laid. */
  is?: Colour[]
  lengthM?: number
  /** Somebody has said how long it is. */
  isMeasured: boolean
  onPick: (colours: Colour[] | undefined) => void
  onLength: (metres: number | undefined) => void
}

/** One cable: to be laid, or one of those that are found, by its cores. */
function CableHere({ id, label, is, lengthM, isMeasured, onPick, onLength }: CableHereProps) {
  const now = is?.join(', ')
  const isUsual = found.some((colours) => colours.join(', ') === now)
  const offered = [...(is && !isUsual ? [is] : []), ...found]
  return (
    <details className="cable-here" data-cable={id}>
      <summary>
        {label}: {is ? <Cores colours={is} /> : 'to be laid'}
        {lengthM !== undefined && `, ${isMeasured ? '' : 'about '}${lengthM} m`}
      </summary>
      <label className="cable-length">
        Its length
        <input
          type="number"
          inputMode="decimal"
          min={0.2}
          max={200}
          step="any"
          aria-label={`${label}: length, m`}
          placeholder={lengthM === undefined ? '' : String(lengthM)}
          defaultValue={isMeasured ? lengthM : ''}
          onChange={({ target }) => {
            const metres = Number(target.value)
            if (target.value === '') onLength(undefined)
            else if (metres >= 0.2 && metres <= 200) onLength(metres)
          }}
        />
        m
      </label>
      <div className="cables-found" role="radiogroup" aria-label={label}>
        <label className="choice-tile">
          <input
            type="radio"
            className="visually-hidden"
            name={`in-wall-${id}`}
            checked={!is}
            onChange={() => onPick(undefined)}
          />
          <strong>To be laid</strong>
        </label>
        {offered.map((colours) => (
          <label key={colours.join()} className="choice-tile">
            <input
              type="radio"
              className="visually-hidden"
              name={`in-wall-${id}`}
              value={colours.join(', ')}
              checked={colours.join(', ') === now}
              onChange={() => onPick([...colours])}
            />
            <strong>{colours.length}-core</strong>
            <Cores colours={colours} />
          </label>
        ))}
      </div>
    </details>
  )
}

const Cores = ({ colours }: { colours: readonly Colour[] }) => (
  <span className="cores">
    {colours.map((colour, i) => (
      <Conductor key={i} colour={colour} />
    ))}
  </span>
)
