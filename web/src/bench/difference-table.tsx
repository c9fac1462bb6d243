import { differenceTexts, differingName, linkDifferenceText, type Differences, type Installation } from '@nobbet/core'

/** Two states of the wiring, conductor by conductor. */
export function DifferenceTable({
  differences: { conductors, links, devices, same },
  before,
  after,
  left,
  right,
}: {
  differences: Differences
  before: Installation
  after: Installation
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
            {conductors.map((c) => {
              const texts = differenceTexts(c, before, after)
              return (
                <tr key={`${c.cable.id}.${(c.is ?? c.was)!.id}`} data-change={c.change}>
                  <td>{differingName(c)}</td>
                  <td>{texts.before ?? 'not there'}</td>
                  <td>{texts.after ?? 'not there'}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
      {links.length > 0 && (
        <ul>
          {links.map((l) => {
            const name = linkDifferenceText(l.change === 'removed' ? before : after, l)
            return (
              <li key={`${name} ${l.change}`}>
                Link {name}: {l.change}
              </li>
            )
          })}
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
