import { openMeasures, type HuntFindingRecord } from '@nobbet/contract'
import { Button } from 'react-bootstrap'
import { momentText } from '../drawing/dates'
import { storeOf } from '../store/stores'
import { cameTo } from './conclude'
import type { HuntScreen } from './hunt-screen'
import { IntoRecord } from '../visit/into-record'
import { useRecord } from '../visit/use-record'
import { Sureness } from './sureness'

/** A hunt at its end: what it was, what speaks for it, what was done, whether it was seen to be cured. */
export function FindingSheet({
  screen,
  finding,
  site: name,
}: {
  screen: HuntScreen
  finding: HuntFindingRecord
  site: string
}) {
  const { job } = screen
  const { causes, remedy, evidence, proved, share, at } = finding
  const { left: open, record: site } = useRecord(job)
  const left = open.length
  const measures = site ? openMeasures(site) : []
  return (
    <section className="sheet next-card conclusion finding-sheet" aria-label="Finding">
      <p className="step">
        <span className="d-none d-print-inline">{name}: </span>
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
        {measures.length > 0 && (
          <>
            <dt>Left for now</dt>
            <dd>
              <ul>
                {measures.map(({ id, what, until }) => (
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
        <IntoRecord job={job} kind="found" severity="fault" text={cameTo(finding)} evidence={evidence} />
        <Button variant="outline-primary" onClick={() => void storeOf(job).record({ do: 'conclude' })}>
          Go on after all
        </Button>
      </div>
    </section>
  )
}
