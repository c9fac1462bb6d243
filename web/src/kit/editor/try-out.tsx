import {
  phaseText,
  Simulation,
  travelText,
  tryFeeds,
  tryOut,
  usualFeeds,
  type DeviceType,
  type TryFeed,
} from '@nobbet/core'
import { useMemo, useState } from 'react'
import { Form } from 'react-bootstrap'

/** The device on a table: what its terminals are joined to, how its knobs stand, and what its contacts then do. */
export function TryOut({ type }: { type: DeviceType }) {
  const [chosen, setChosen] = useState<Record<string, TryFeed | ''>>({})
  const [knobs, setKnobs] = useState<Record<string, string>>({})
  const feeds = useMemo(() => {
    const all: Record<string, TryFeed> = usualFeeds(type)
    for (const [terminal, feed] of Object.entries(chosen)) {
      if (!type.terminals.some((t) => t.id === terminal)) continue
      if (feed === '') delete all[terminal]
      else all[terminal] = feed
    }
    return all
  }, [type, chosen])
  const tried = useMemo(() => {
    try {
      const sim = new Simulation(tryOut(type, feeds))
      for (const [control, value] of Object.entries(knobs)) {
        if (!type.controls.some((c) => c.id === control)) continue
        sim.set('it', control, value)
      }
      const verdict = sim.settle()
      return { sim, verdict }
    } catch (error) {
      return { error: (error as Error).message }
    }
  }, [type, feeds, knobs])
  if ('error' in tried) return <p className="alarm m-0">It cannot be tried out: {tried.error}</p>
  const { sim, verdict } = tried
  const { circuit } = sim
  const it = circuit.deviceIndex.get('it')!
  const throwWords = { made: '', no: ', over', nc: ', at rest' } as const
  return (
    <div className="try-out">
      <table>
        <thead>
          <tr>
            <th>Terminal</th>
            <th>Joined to</th>
            <th>Reads</th>
          </tr>
        </thead>
        <tbody>
          {type.terminals
            .filter((t) => !t.internal)
            .map((t) => {
              const { state, volts } = sim.potentialAt(`it.${t.id}`)
              return (
                <tr key={t.id} data-try={t.id}>
                  <th scope="row" className="mono">
                    {t.id}
                  </th>
                  <td>
                    <Form.Select
                      size="sm"
                      aria-label={`${t.id} joined to`}
                      value={feeds[t.id] ?? ''}
                      onChange={(e) => setChosen({ ...chosen, [t.id]: e.target.value as TryFeed | '' })}
                    >
                      <option value="">nothing</option>
                      {Object.entries(tryFeeds).map(([id, name]) => (
                        <option key={id} value={id}>
                          {name}
                        </option>
                      ))}
                    </Form.Select>
                  </td>
                  <td>
                    <b>{state}</b> {volts === null ? '' : `${Math.round(volts)} V`}
                  </td>
                </tr>
              )
            })}
        </tbody>
      </table>
      {type.controls.map((c) => (
        <Form.Group key={c.id} controlId={`try-${c.id}`} className="try-knob">
          <Form.Label>
            {c.label}
            {c.kind === 'number' ? `, ${c.unit}` : ''}
          </Form.Label>
          {c.kind === 'choice' ? (
            <Form.Select
              size="sm"
              value={String(sim.control('it', c.id))}
              onChange={(e) => setKnobs({ ...knobs, [c.id]: e.target.value })}
            >
              {c.values.map((v) => (
                <option key={v.id} value={v.id}>
                  {v.label}
                </option>
              ))}
            </Form.Select>
          ) : (
            <Form.Range
              min={c.min}
              max={c.max}
              step={c.step}
              value={Number(sim.control('it', c.id))}
              onChange={(e) => setKnobs({ ...knobs, [c.id]: e.target.value })}
            />
          )}
        </Form.Group>
      ))}
      <ul className="try-says" aria-label="What it does">
        {verdict === 'hunting' && <li className="alarm">It hunts: the same states come round again and again.</li>}
        {circuit.contacts.map((contact, i) =>
          contact.device === it ? (
            <li key={i} data-contact={`${contact.part.id}${contact.throw === 'made' ? '' : `.${contact.throw}`}`}>
              {contact.part.label}
              {throwWords[contact.throw]} <b>{sim.contactClosed(i) ? 'made' : 'open'}</b>
            </li>
          ) : null,
        )}
        {circuit.actuators.map((a, i) =>
          a.device === it ? (
            <li key={`a${i}`}>
              {a.part.label} <b>{travelText(circuit, i, sim.actuatorPosition(i))}</b>
            </li>
          ) : null,
        )}
        {circuit.loads.map((l, i) =>
          l.device === it ? (
            <li key={`l${i}`}>
              {l.part.label} <b>{sim.loadEnergised(i) ? 'works' : 'has no supply'}</b>
            </li>
          ) : null,
        )}
        {circuit.behaviours.map((b, i) =>
          b.device === it ? (
            <li key={`b${i}`}>
              {b.part.label} <b>{phaseText(circuit, i, sim.phase(i).phase)}</b>
            </li>
          ) : null,
        )}
      </ul>
    </div>
  )
}
