import type { Differences } from '@nobbet/core'

/** Two states of the wiring, conductor by conductor. */
export function DifferenceTable({
  differences: { conductors, links, devices, same },
  left,
  right,
}: {
  differences: Differences
  left: string
  right: string
}) {
  const none = conductors.length + links.length + devices.length === 0
  return (
    <>
      <p className="compare-sum">
        {none
          ? 'No conductor, link or device differs.'
          : `${conductors.length} conductors differ, ${same} are the same.`}
      </p>
      {conductors.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              <th scope="col">Conductor</th>
              <th scope="col">{left}</th>
              <th scope="col">{right}</th>
            </tr>
          </thead>
          <tbody>
            {conductors.map((c) => (
              <tr key={`${c.cable}.${c.core}`} data-change={c.change}>
                <td>{c.name}</td>
                <td>{c.before?.join(' to ') ?? 'not there'}</td>
                <td>{c.after?.join(' to ') ?? 'not there'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {links.length > 0 && (
        <ul>
          {links.map((l) => (
            <li key={`${l.name} ${l.change}`}>
              Link {l.name}: {l.change}
            </li>
          ))}
        </ul>
      )}
      {devices.length > 0 && (
        <ul>
          {devices.map((d) => (
            <li key={d.id}>
              {d.name}: {d.change}
            </li>
          ))}
        </ul>
      )}
    </>
  )
}
