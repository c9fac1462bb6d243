import type { HuntFindingRecord } from '@nobbet/contract'
import { Button } from 'react-bootstrap'
import { momentText } from '../drawing/dates'
import { storeOf } from '../store/stores'
import type { HuntScreen } from './hunt-screen'
import { Sureness } from './sureness'

/** A hunt at its end: what it was, what speaks for it, what was done, whether it was seen to be cured. */
export function FindingSheet({
  screen,
  finding,
  site,
}: {
  screen: HuntScreen
  finding: HuntFindingRecord
  site: string
}) {
  const { record, job } = screen
  const { causes, remedy, evidence, proved, share, at } = finding
  return (
    <section className="sheet next-card conclusion finding-sheet" aria-label="Finding">
      <p className="step">
        <span className="d-none d-print-inline">{site}: </span>
        Finding of {momentText(at)} <Sureness share={share} />
      </p>
      {causes.map(({ id, label }) => (
        <h2 className="question" key={id}>
          {label}
        </h2>
      ))}
      <dl>
        {remedy && (
          <>
            <dt>Remedy</dt>
            <dd>{remedy}</dd>
          </>
        )}
        <dt>Proof</dt>
        <dd>
          {proved
            ? 'After it was put right the same demand was asked for again, and met.'
            : 'Nothing was changed; it was explained.'}
        </dd>
        {evidence.length > 0 && (
          <>
            <dt>What speaks for it</dt>
            <dd>
              <ul>
                {evidence.map((text) => (
                  <li key={text}>{text}</li>
                ))}
              </ul>
            </dd>
          </>
        )}
        {record.measures.length > 0 && (
          <>
            <dt>Left for now</dt>
            <dd>
              <ul>
                {record.measures.map(({ id, what, until }) => (
                  <li key={id}>
                    {what}, until {until}
                  </li>
                ))}
              </ul>
            </dd>
          </>
        )}
      </dl>
      <div className="ends no-print">
        <Button onClick={() => window.print()}>Print</Button>
        <Button variant="outline-primary" onClick={() => void storeOf(job).record({ do: 'conclude' })}>
          Go on after all
        </Button>
      </div>
    </section>
  )
}
