import { linkText, terminalSchedule, type Installation, type ScheduledTerminal } from '@nobbet/core'
import { useMemo } from 'react'
import { Conductor } from '../drawing/conductor'

interface SideBySideProps {
  found: Installation
  to: Installation
}

interface Row {
  number: string
  was?: ScheduledTerminal
  is?: ScheduledTerminal
  changed: boolean
}

const text = (t: ScheduledTerminal | undefined) =>
  JSON.stringify(
    t && [
      t.legend,
      t.conductors.map(({ cable, core, parked, farText }) => [cable, core, parked, farText]),
      t.linkedTo,
      t.cutFrom,
    ],
  )

function rowsOf(found: Installation, to: Installation): Row[] {
  const [centre] = found.wiringCentres
  if (!centre) return []
  const [before, after] = [terminalSchedule(found, centre.id), terminalSchedule(to, centre.id)]
  return after.map((is) => {
    const was = before.find(({ ref }) => ref === is.ref)
    return { number: is.number, was, is, changed: text(was) !== text(is) }
  })
}

/** The wiring centre as it is and as it will be, terminal by terminal; what differs is marked. */
export function SideBySide({ found, to }: SideBySideProps) {
  const rows = useMemo(() => rowsOf(found, to), [found, to])
  const changed = rows.filter((row) => row.changed)
  if (rows.length === 0) return null
  return (
    <section className="sheet side-by-side" aria-label="Wiring centre, as found and to be">
      <h2>
        {found.wiringCentres[0].name}{' '}
        <span className="quiet">
          {changed.length} of {rows.length} terminals differ
        </span>
      </h2>
      <div className="scrolled">
        <table>
          <thead>
            <tr>
              <th scope="col">No.</th>
              <th scope="col">As found</th>
              <th scope="col">To be</th>
            </tr>
          </thead>
          <tbody>
            {changed.map((row) => (
              <tr key={row.number}>
                <th scope="row">
                  <span className="terminal-number">{row.number}</span>
                </th>
                <td>{row.was ? <Terminal terminal={row.was} /> : <span className="quiet">not there</span>}</td>
                <td>{row.is && <Terminal terminal={row.is} />}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}

function Terminal({ terminal: { legend, conductors, ...links } }: { terminal: ScheduledTerminal }) {
  return (
    <>
      <div className="legend-text">{legend}</div>
      {conductors.map((c) => (
        <div key={`${c.cable} ${c.core}`} className="in-terminal">
          <Conductor colour={c.colour} sleeve={c.sleeve} />{' '}
          <span className="quiet">
            {c.parked && 'parked, '}
            {c.farText}
          </span>
        </div>
      ))}
      {conductors.length === 0 && <div className="quiet">empty</div>}
      {linkText(links) && <div className="quiet">links: {linkText(links)}</div>}
    </>
  )
}
