import { cableSchedule, terminalSchedule, type Installation, type WiringCentre } from '@nobbet/core'
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
            return (
              <tr key={row.ref} className={`${first ? 'group' : ''} ${row.legend === 'Spare' ? 'spare' : ''}`}>
                <td>
                  <span className="terminal-number">{row.number}</span>
                </td>
                <td className={first ? 'fw-bold' : 'quiet'}>{row.legend}</td>
                <td>
                  {row.conductors.map((c) => (
                    <div key={`${c.cable} ${c.core}`}>
                      <Conductor colour={c.colour} sleeve={c.sleeve} />{' '}
                    </div>
                  ))}
                </td>
                <td>
                  {row.conductors.map((c) => (
                    <div key={`${c.cable} ${c.core}`}>
                      {c.farText}
                      {c.parked && ` (${c.cableLabel}, parked here)`}
                      {!c.parked && c.far.at !== 'terminal' && ` (${c.cableLabel})`}
                    </div>
                  ))}
                </td>
                <td className="link-bar">{row.linkedTo.length > 0 && `to ${row.linkedTo.join(', ')}`}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </section>
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
                  {cable.lead ? 'the valve’s own, ' : ''}
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
