import { useDraggable } from '@dnd-kit/core'
import { provenanceOf, type EndRef, type Installation } from '@nobbet/core'
import { Conductor } from '../drawing/conductor'
import { endKey, isPicked, useHand } from './hand'

interface ChipProps {
  end: EndRef
  /** Where its other end is, or what else is worth saying. */
  says: string
}

/** A conductor in a terminal: picked by a tap, carried by a drag. */
export function Chip({ end, says }: ChipProps) {
  const { doc, picked, pick, net } = useHand()
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: endKey(end) })
  const core = doc.cables.find((c) => c.id === end.cable)?.cores.find((k) => k.id === end.core)
  if (!core) return null
  const here = isPicked(picked, end)
  const inNet = net?.conductors.includes(`${end.cable}.${end.core}`)
  const parked = core.ends[end.end].at === 'parked'
  return (
    <button
      ref={setNodeRef}
      {...listeners}
      type="button"
      className={[
        'chip',
        here ? 'here' : '',
        inNet ? 'in-net' : '',
        isDragging ? 'carried' : '',
        parked ? 'parked' : '',
      ].join(' ')}
      aria-pressed={here}
      data-chip={endKey(end)}
      onClick={() => pick(here ? undefined : { kind: 'end', end })}
    >
      <Conductor colour={core.colour} sleeve={core.sleeve} />{' '}
      <span className="chip-says">
        {parked && 'parked, '}
        {says}
      </span>
      <ProvenanceMark known={provenanceOf(doc, end)} />
    </button>
  )
}

const marks = { assumed: '?', planned: '', seen: '◉', tested: '✓' } as const
const words = { assumed: 'assumed', planned: 'planned', seen: 'seen', tested: 'tested' } as const

/** How an end is known: by sign and word. */
export function ProvenanceMark({ known }: { known: Installation['provenance'] }) {
  if (!marks[known]) return null
  return (
    <span className={`known ${known}`} title={words[known]}>
      <span aria-hidden>{marks[known]}</span>
      <span className="visually-hidden">{words[known]}</span>
    </span>
  )
}
