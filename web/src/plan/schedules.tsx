import { Fragment } from 'react'
import {
  cableSchedule,
  linkText,
  terminalSchedule,
  type Installation,
  type ScheduledConductor,
  type WiringCentre,
} from '@nobbet/core'
import { Conductor } from '../drawing/conductor'

/** Terminal under terminal in their real order: what goes in, and where its other end is. */
export function TerminalSchedule({ installation, centre }: { installation: Installation; centre: WiringCentre }) {
  const rows = terminalSchedule(installation, centre.id)
  return (
    <section className="sheet">
      <table className="schedule">
        <caption>{centre.name}: terminals</caption>
        <thead>
          <tr>
            <th scope="col">No.</th>
            <th scope="col">Legend</th>
            <th scope="col">Conductor</th>
            <th scope="col">Other end</th>
            <th scope="col">Link</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => {
            const first = row.legend !== rows[i - 1]?.legend
            const name = `${first ? 'group' : ''} ${row.legend === 'Spare' ? 'spare' : ''}`
            const [own, ...more] = row.conductors
            const rowSpan = Math.max(1, row.conductors.length)
            return (
              <Fragment key={row.ref}>
                <tr className={name}>
                  <td rowSpan={rowSpan}>
                    <span className="terminal-number">{row.number}</span>
                  </td>
                  <td rowSpan={rowSpan} className={first ? 'fw-bold' : 'quiet'}>
                    {row.legend}
                  </td>
                  <ConductorCells conductor={own} />
                  <td rowSpan={rowSpan} className="link-bar">
                    {linkText(row)}
                  </td>
                </tr>
                {more.map((conductor) => (
                  <tr key={`${conductor.cable} ${conductor.core}`} className="same-terminal">
                    <ConductorCells conductor={conductor} />
                  </tr>
                ))}
              </Fragment>
            )
          })}
        </tbody>
      </table>
    </section>
  )
}

/** A conductor and its other end stand in one row, however long either is. */
function ConductorCells({ conductor }: { conductor?: ScheduledConductor }) {
  if (!conductor)
    return (
      <>
        <td />
        <td />
      </>
    )
  const { colour, sleeve, farText, parked, far, cableLabel } = conductor
  return (
    <>
      <td>
        <Conductor colour={colour} sleeve={sleeve} />
      </td>
      <td>
        {farText}
        {parked && ` (${cableLabel}, parked here)`}
        {!parked && far.at !== 'terminal' && ` (${cableLabel})`}
      </td>
    </>
  )
}

/** Cable under cable: what each core joins. */
export function CableSchedule({ installation }: { installation: Installation }) {
  return (
    <section className="sheet">
      <table className="schedule">
        <caption>Cables and cores</caption>
        <thead>
          <tr>
            <th scope="col">Core</th>
            <th scope="col">From</th>
            <th scope="col">To</th>
          </tr>
        </thead>
        {cableSchedule(installation).map((cable) => (
          <tbody key={cable.id}>
            <tr className="group cable-name">
              <th scope="rowgroup" colSpan={3}>
                {cable.label}
                <span className="quiet fw-normal">
                  {' '}
                  {cable.lead ? 'its device’s own, ' : ''}
                  {cable.cores.length}-core
                  {cable.lengthM !== undefined && `, ${cable.lengthM} m`}
                </span>
              </th>
            </tr>
            {cable.cores.map(({ core, ends, spare }) => (
              <tr key={core.id} className={spare ? 'spare' : ''}>
                <td>
                  <Conductor colour={core.colour} sleeve={core.sleeve} />
                </td>
                <td>{ends[0]}</td>
                <td>{ends[1]}</td>
              </tr>
            ))}
          </tbody>
        ))}
      </table>
    </section>
  )
}
