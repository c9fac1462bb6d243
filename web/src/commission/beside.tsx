import { besideEachOther, lastRun, runsOf, type KeptRow, type KeptRun, type SiteRecord } from '@nobbet/contract'
import { Link } from 'react-router'
import { momentText } from '../drawing/dates'
import { outcomeMarks, outcomeText, outcomeWords, purposeWords } from './words'

/** What was wrong on arrival and right on leaving: the baseline beside the final run. */
export function Beside({ record }: { record: SiteRecord }) {
  const runs = runsOf(record)
  const [arrival, leaving] = [lastRun(runs, 'arrival'), lastRun(runs, 'leaving')]
  const rows = besideEachOther(arrival, leaving)
  if (rows.length === 0)
    return (
      <section className="sheet panel-note">
        <h2>No run yet</h2>
        <p>
          Both runs stand here side by side once there are any. <Link to="?run=arrival">Begin the one on arrival</Link>
        </p>
      </section>
    )
  const mended = rows.filter((row) => row.arrival?.how === 'otherwise' && row.leaving?.how === 'as-expected').length
  const wrong = rows.filter(({ leaving: now }) => now?.how === 'otherwise').length
  return (
    <section className="sheet run-beside" aria-label="Both runs">
      <p className="run-tally" role="status">
        <span data-how="as-expected">
          <strong>{mended}</strong> wrong on arrival, right on leaving
        </span>
        <span data-how={wrong > 0 ? 'otherwise' : 'as-expected'}>
          <strong>{wrong}</strong> not as expected on leaving
        </span>
      </p>
      <table>
        <thead>
          <tr>
            <th scope="col">Step</th>
            <Head run={arrival} purpose="arrival" />
            <Head run={leaving} purpose="leaving" />
          </tr>
        </thead>
        <tbody>
          {rows.map(({ row, title, arrival: before, leaving: after }) => (
            <tr key={row} data-row={row} className={differs(before, after) ? 'differs' : ''}>
              <th scope="row">{title}</th>
              <Came row={before} run={arrival} />
              <Came row={after} run={leaving} />
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

const differs = (before: KeptRow | undefined, after: KeptRow | undefined): boolean =>
  before !== undefined && after !== undefined && before.how !== after.how

function Head({ run, purpose }: { run: KeptRun | undefined; purpose: KeptRun['purpose'] }) {
  return (
    <th scope="col">
      {purposeWords[purpose]} <span className="quiet">{run ? momentText(run.at) : 'no run'}</span>
    </th>
  )
}

function Came({ row, run }: { row: KeptRow | undefined; run: KeptRun | undefined }) {
  const how = row?.how ?? 'open'
  return (
    <td data-how={how}>
      {row ? (
        <>
          <span aria-hidden>{outcomeMarks[how]}</span> {outcomeText(row)}
        </>
      ) : (
        <span className="quiet">{run ? outcomeWords.open : ''}</span>
      )}
    </td>
  )
}
