import type { Installation, WeekResult } from '@nobbet/core'

const kWh = (n: number) => `${n.toFixed(1)} kWh`

/** Where the week's heat came from and where it went. */
export function Energy({ installation, result: { energy } }: { installation: Installation; result: WeekResult }) {
  const name = (id: string) => installation.devices.find((d) => d.id === id)?.name ?? 'Boiler'
  const place = (id: string) => installation.places.find((p) => p.id === id)?.name ?? id
  const came = [
    ...energy.brought.map((b) => [name(b.device), b.kWh] as const),
    ['People and appliances', energy.gains] as const,
  ]
  const went = [
    ...energy.lost.map((l) => [`${place(l.place)}, to outdoors`, l.kWh] as const),
    ...(energy.cylinders !== 0 ? [['Cylinder, to its cupboard', energy.cylinders] as const] : []),
    ...(energy.drawn !== 0 ? [['Hot water drawn', energy.drawn] as const] : []),
    ['Held more than at the start', energy.stored] as const,
  ]
  return (
    <div className="energy">
      {(
        [
          ['Heat brought', came],
          ['Heat gone', went],
        ] as const
      ).map(([title, rows]) => (
        <table key={title} className="energy-table">
          <caption>{title}</caption>
          <tbody>
            {rows.map(([what, n]) => (
              <tr key={what}>
                <th scope="row">{what}</th>
                <td>{kWh(n)}</td>
              </tr>
            ))}
            <tr className="sum">
              <th scope="row">In all</th>
              <td>{kWh(rows.reduce((sum, [, n]) => sum + n, 0))}</td>
            </tr>
          </tbody>
        </table>
      ))}
    </div>
  )
}
