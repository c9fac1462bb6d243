import { useDroppable } from '@dnd-kit/core'
import {
  endText,
  linkLanes,
  type Cable,
  type Core,
  type EndRef,
  type Installation,
  type WiringCentre,
} from '@nobbet/core'
import { Chip } from './chip'
import { useHand } from './hand'

/** Where the other end is; of one that is nowhere, which cable it belongs to. */
function farText(doc: Installation, cable: Cable, core: Core, end: 0 | 1): string {
  const far = core.ends[1 - end]
  return 'terminal' in far ? endText(doc, far) : `${endText(doc, far)} (${cable.label})`
}

interface TerminalRowProps {
  terminal: string
  number: string
  legend: string
  /** A new function begins here. */
  first?: boolean
  ways?: number
}

/** A terminal with what is in it: a place to drop on, and to tap. */
export function TerminalRow({ terminal, number, legend, first, ways }: TerminalRowProps) {
  const { doc, picked, net, tap, linking } = useHand()
  const { setNodeRef, isOver } = useDroppable({ id: terminal })
  const landed = doc.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      core.ends.flatMap((end, i): { end: EndRef; says: string }[] =>
        'terminal' in end && end.terminal === terminal
          ? [
              {
                end: { cable: cable.id, core: core.id, end: i as 0 | 1 },
                says: farText(doc, cable, core, i as 0 | 1),
              },
            ]
          : [],
      ),
    ),
  )
  const here = picked?.kind === 'terminal' && picked.ref === terminal
  const target = picked?.kind === 'end' || linking
  return (
    <div
      ref={setNodeRef}
      className={[
        't-row',
        first ? 'first' : '',
        isOver ? 'over' : '',
        here ? 'here' : '',
        net?.terminals.includes(terminal) ? 'in-net' : '',
      ].join(' ')}
      data-terminal={terminal}
    >
      <button
        type="button"
        className={target ? 't-number target' : 't-number'}
        aria-label={target ? `To terminal ${number}` : `Terminal ${number}, ${legend}`}
        aria-pressed={here}
        onClick={() => tap(terminal)}
      >
        {number}
      </button>
      <span className={first ? 't-legend' : 't-legend again'}>{legend || 'no legend'}</span>
      <span className="t-chips">
        {landed.map(({ end, says }) => (
          <Chip key={`${end.cable}.${end.core}.${end.end}`} end={end} says={says} />
        ))}
        {ways !== undefined && landed.length > ways && (
          <strong className="too-many">
            {landed.length} in {ways}
          </strong>
        )}
      </span>
    </div>
  )
}

/** How far apart links lie that run beside each other, and what room all of them have where they are many, px. */
const [widestPitch, narrowestPitch, mostForLinks] = [9, 5, 90]

/** A wiring centre: its terminals in their real order, links beside them. */
export function Strip({ centre }: { centre: WiringCentre }) {
  const { doc, picked, net, pick } = useHand()
  const refs = centre.terminals.map((t) => `${centre.id}.${t.id}`)
  const lanes = linkLanes(doc, centre.id, refs)
  const beside = Math.max(1, ...lanes.map((l) => l.lane + 1))
  // Where many links lie beside each other they stand closer: the terminals are what is read.
  const pitch = Math.min(widestPitch, Math.max(narrowestPitch, mostForLinks / beside))
  return (
    <section
      className="sheet strip"
      aria-label={centre.name}
      style={{ '--lanes': `${14 + pitch * beside}px`, '--pitch': `${pitch}px` } as React.CSSProperties}
    >
      <header>
        <h2>{centre.name}</h2>
        <span className="quiet">{centre.terminals.length} terminals</span>
      </header>
      <div className="t-rows">
        {lanes.map(({ from, to, lane, kind }) => {
          const lit = net?.terminals.includes(refs[from]) && kind !== 'cut'
          return (
            <button
              key={`${from} ${to} ${lane}`}
              type="button"
              tabIndex={-1}
              className={['lane', kind, lit ? 'in-net' : ''].join(' ')}
              aria-label={`Link from ${centre.terminals[from].id} to ${centre.terminals[to].id}`}
              style={{ gridRow: `${from + 1} / ${to + 2}`, right: `calc(100% - var(--lanes) + ${2 + lane * pitch}px)` }}
              onClick={() =>
                pick(
                  picked?.kind === 'terminal' && picked.ref === refs[from]
                    ? undefined
                    : { kind: 'terminal', ref: refs[from] },
                )
              }
            />
          )
        })}
        {centre.terminals.map((t, i) => (
          <div key={t.id} className="t-slot" style={{ gridRow: i + 1 }}>
            <TerminalRow
              terminal={refs[i]}
              number={t.id}
              legend={t.legend}
              ways={t.ways}
              first={t.legend !== centre.terminals[i - 1]?.legend}
            />
          </div>
        ))}
      </div>
    </section>
  )
}
