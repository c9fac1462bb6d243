import {
  addTerminal,
  changeTerminal,
  coreAt,
  cutLink,
  endText,
  fitLink,
  markEnd,
  moveEnd,
  ownerOfSide,
  park,
  paints,
  provenanceOf,
  provenanceSchema,
  recolour,
  removeTerminal,
  sleeve,
  terminalText,
  type Colour,
  type EndRef,
} from '@nobbet/core'
import { X } from 'lucide-react'
import { Button, Form } from 'react-bootstrap'
import { Conductor } from '../drawing/conductor'
import { useHand } from './hand'
import { PlaceField } from './place-field'

const colours = Object.keys(paints) as Colour[]
const provenanceWords = { assumed: 'Assumed', planned: 'Planned', seen: 'Seen', tested: 'Tested' } as const

/** What is picked up, what can be done with it, and all that is joined to it. */
export function PickedPanel() {
  const { picked, pick } = useHand()
  if (!picked) return null
  return (
    <section className="sheet picked-panel" aria-label="Picked">
      <button type="button" className="icon-press close-picked" aria-label="Put down" onClick={() => pick(undefined)}>
        <X size={18} aria-hidden />
      </button>
      {picked.kind === 'end' ? <PickedEnd end={picked.end} /> : <PickedTerminal terminal={picked.ref} />}
      <NetList />
    </section>
  )
}

function PickedEnd({ end }: { end: EndRef }) {
  const { doc, alter, pick } = useHand()
  const core = coreAt(doc, end)
  if (!core) return null
  const cable = doc.cables.find((c) => c.id === end.cable)!
  const here = core.ends[end.end]
  const other: EndRef = { ...end, end: end.end === 0 ? 1 : 0 }
  const known = provenanceOf(doc, end)
  return (
    <>
      <h2>
        <Conductor colour={core.colour} sleeve={core.sleeve} /> of {cable.label}
      </h2>
      <p className="picked-where">
        <strong>{endText(doc, here)}</strong>, the other end{' '}
        <Button size="sm" variant="link" onClick={() => pick({ kind: 'end', end: other })}>
          {endText(doc, core.ends[other.end])}
        </Button>
      </p>
      <p className="quiet mb-1">Tap a terminal’s number to move it there, drag it, or type where it goes.</p>
      <div className="picked-acts">
        <label className="move-to">
          Move to{' '}
          <PlaceField
            key={`${end.cable}.${end.core}.${end.end}`}
            label="Move to"
            owner={ownerOfSide(doc, end.cable, end.end) ?? doc.wiringCentres[0]?.id}
            onPlace={(to) => alter(moveEnd(end, to))}
          />
        </label>
        <Button size="sm" variant="outline-primary" onClick={() => alter(park(doc, end))}>
          Park
        </Button>
        <Button size="sm" variant="outline-primary" onClick={() => alter(moveEnd(end, { at: 'cut-back' }))}>
          Cut back
        </Button>
        <Button size="sm" variant="outline-primary" onClick={() => alter(moveEnd(end, { at: 'loose' }))}>
          Loose
        </Button>
        <Button size="sm" variant="outline-primary" onClick={() => alter(moveEnd(end, { at: 'unknown' }))}>
          Not found
        </Button>
      </div>
      <div className="picked-acts">
        <Form.Label className="small-choice">
          Colour
          <Form.Select
            size="sm"
            aria-label="Colour"
            value={core.colour}
            onChange={(e) => alter(recolour(end, e.target.value as Colour))}
          >
            {colours.map((c) => (
              <option key={c}>{c}</option>
            ))}
          </Form.Select>
        </Form.Label>
        <Form.Label className="small-choice">
          Sleeve
          <Form.Select
            size="sm"
            aria-label="Sleeve"
            value={core.sleeve ?? ''}
            onChange={(e) => alter(sleeve(end, (e.target.value || null) as Colour | null))}
          >
            <option value="">none</option>
            {colours.map((c) => (
              <option key={c}>{c}</option>
            ))}
          </Form.Select>
        </Form.Label>
        <div className="knob" role="group" aria-label="How this end is known">
          {provenanceSchema.options.map((p) => (
            <button
              key={p}
              type="button"
              className={p === known ? 'on' : ''}
              aria-pressed={p === known}
              onClick={() => alter(markEnd(doc, end, p))}
            >
              {provenanceWords[p]}
            </button>
          ))}
        </div>
      </div>
    </>
  )
}

function PickedTerminal({ terminal }: { terminal: string }) {
  const { doc, alter, pick, linking, setLinking } = useHand()
  const [owner, id] = terminal.split('.')
  const centre = doc.wiringCentres.find((c) => c.id === owner)
  const own = centre?.terminals.find((t) => t.id === id)
  const links = doc.links.filter((l) => l.between.includes(terminal))
  return (
    <>
      <h2>{terminalText(doc, terminal)}</h2>
      {centre && own && (
        <div className="picked-acts">
          <Form.Label className="small-choice grow">
            Legend
            <Form.Control
              key={terminal}
              size="sm"
              defaultValue={own.legend}
              maxLength={60}
              onBlur={(e) =>
                e.target.value !== own.legend && alter(changeTerminal(centre, id, { legend: e.target.value }))
              }
            />
          </Form.Label>
          <Form.Label className="small-choice">
            Ways
            <Form.Select
              size="sm"
              aria-label="Ways"
              value={own.ways}
              onChange={(e) => alter(changeTerminal(centre, id, { ways: Number(e.target.value) }))}
            >
              {[1, 2, 3, 4, 5, 6, 7, 8].map((n) => (
                <option key={n}>{n}</option>
              ))}
            </Form.Select>
          </Form.Label>
        </div>
      )}
      <div className="picked-acts">
        <Button
          size="sm"
          variant={linking ? 'primary' : 'outline-primary'}
          aria-pressed={linking}
          onClick={() => setLinking(!linking)}
        >
          {linking ? 'Tap the terminal to link to' : 'Link to'}
        </Button>
        <label className="move-to">
          or type{' '}
          <PlaceField
            key={terminal}
            label="Link to terminal"
            owner={owner}
            onPlace={(to) =>
              to.at === 'terminal' && to.terminal !== terminal && alter(fitLink(doc, terminal, to.terminal))
            }
          />
        </label>
        {centre && (
          <>
            <Button
              size="sm"
              variant="outline-primary"
              onClick={() => alter(addTerminal(centre, own?.legend ?? '', id))}
            >
              Terminal after it
            </Button>
            <Button
              size="sm"
              variant="outline-dark"
              disabled={centre.terminals.length < 2}
              onClick={() => {
                alter(removeTerminal(doc, centre, id))
                pick(undefined)
              }}
            >
              Take it out
            </Button>
          </>
        )}
      </div>
      {links.length > 0 && (
        <ul className="link-list" aria-label="Links">
          {links.map((link) => {
            const to = link.between[0] === terminal ? link.between[1] : link.between[0]
            const act = { fitted: 'Take out', factory: 'Cut', cut: 'Make whole' }[link.kind]
            return (
              <li key={link.id}>
                {link.kind === 'fitted' ? 'Link' : link.kind === 'factory' ? 'Factory link' : 'Factory link, cut,'} to{' '}
                {terminalText(doc, to)}{' '}
                <Button size="sm" variant="outline-dark" onClick={() => alter(cutLink(link))}>
                  {act}
                </Button>
              </li>
            )
          })}
        </ul>
      )}
    </>
  )
}

/** Every terminal that is joined to what is picked, by wiring alone. */
function NetList() {
  const { doc, net, pick, picked } = useHand()
  if (!net) return null
  const others = net.terminals.filter((t) => picked?.kind !== 'terminal' || t !== picked.ref)
  return (
    <details className="net-list" open={others.length <= 8}>
      <summary>
        Joined by wiring alone: {net.terminals.length} terminals, {net.conductors.length} conductors
      </summary>
      <div>
        {others.map((t) => (
          <button key={t} type="button" onClick={() => pick({ kind: 'terminal', ref: t })}>
            {terminalText(doc, t)}
          </button>
        ))}
      </div>
    </details>
  )
}
