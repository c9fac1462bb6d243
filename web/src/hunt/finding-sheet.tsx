import type { HuntFindingRecord } from '@nobbet/contract'
import { Button } from 'react-bootstrap'
import { momentText } from '../drawing/dates'
import { storeOf } from '../store/stores'
import type { HuntScreen } from './hunt-screen'
import { leftToPutBack } from './left-behind'
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
  const left = leftToPutBack(screen.circuit, screen.entries, record).length
  return (
    <section className="sheet next-card conclusion finding-sheet" aria-label="Finding">
      <p className="step">
        <span className="d-none d-print-inline">{site}: </span>
        Finding of {momentText(at)} <Sureness share={share} />
      </p>
      <p className={left > 0 ? 'still-open' : 'closed'} role="status">
        {left > 0
          ? `Not closed yet: ${left === 1 ? 'one thing is' : `${left} things are`} to be put back.`
          : 'Closed: nothing is left to put back.'}
      </p>
      <h2 className="question">{causes[0].label}</h2>
      {causes.length > 1 && (
        <p className="method">
          Or, put right by the same:{' '}
          {causes
            .slice(1)
            .map(({ label }) => label)
            .join('; ')}
          .
        </p>
      )}
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
