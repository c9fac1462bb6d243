import {
  differencesOf,
  isGrave,
  linkText,
  partsList,
  same,
  terminalSchedule,
  verdictText,
  type Conflict,
  type Installation,
  type PlanBrief,
  type ScheduledConductor,
  type ScheduledTerminal,
} from '@nobbet/core'
import { Fragment, useMemo } from 'react'
import { Button } from 'react-bootstrap'
import { errorText } from '../api/client'
import { Conductor } from '../drawing/conductor'
import { useVerdict } from '../workers/use-verdict'
import type { Outcome } from './use-outcome'

interface OutcomePanelProps {
  outcome: Outcome
  /** The wiring of the job as it stands; left out for a new one. */
  now?: Installation
  onWay: (brief: PlanBrief) => void
}

/** What the answers come to, beside them: the box as it will be, parts, verdict; or what contradicts what, and the ways out. */
export function OutcomePanel({ outcome, now, onWay }: OutcomePanelProps) {
  const { plan, conflict, brief, error } = outcome
  return (
    <aside className="sheet outcome" aria-label="What it comes to">
      {plan ? (
        <Coming plan={plan} now={now} />
      ) : conflict ? (
        <Contradiction conflict={conflict} onWay={onWay} />
      ) : error ? (
        <p role="alert">It could not be found out why this cannot be laid out. {errorText(error)}</p>
      ) : brief ? (
        <p role="status">Looking for what stands in the way</p>
      ) : (
        <p role="status">The plan stands here as soon as every answer is one.</p>
      )}
    </aside>
  )
}

const counted = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`

function Coming({ plan, now }: { plan: Installation; now?: Installation }) {
  const list = useMemo(() => partsList(plan), [plan])
  const boxes = useMemo(
    () =>
      plan.wiringCentres.map((centre) => {
        const rows = terminalSchedule(plan, centre.id)
        return { centre, has: rows.length, used: rows.filter(({ conductors }) => conductors.length > 0) }
      }),
    [plan],
  )
  const sumOf = (count: (box: (typeof boxes)[number]) => number) => boxes.reduce((sum, box) => sum + count(box), 0)
  const [used, has] = [sumOf((box) => box.used.length), sumOf((box) => box.has)]
  const links = list.wiringCentres.reduce((sum, one) => sum + one.links, 0)
  const metres = list.cables.reduce((sum, { lengthM }) => sum + lengthM, 0)
  const cables = list.cables.reduce((sum, kind) => sum + kind.cables.length, 0)
  return (
    <>
      <Verdict plan={plan} />
      <p className="outcome-sums">
        <strong>{used === has ? used : `${used} of ${has}`}</strong> terminals
        {boxes.length > 1 && ` in ${boxes.length} boxes`}, {counted(links, 'link')} to fit, {counted(cables, 'cable')}{' '}
        of {Math.ceil(metres)} m
      </p>
      {now && <Against now={now} plan={plan} />}
      {boxes.map(({ centre, used: rows }) => (
        <Fragment key={centre.id}>
          {boxes.length > 1 && <h3 className="outcome-box-name">{centre.name}</h3>}
          <ol className="outcome-box" aria-label={centre.name}>
            {rows.map((row) => (
              <InTerminal key={row.ref} row={row} />
            ))}
          </ol>
        </Fragment>
      ))}
      <details>
        <summary>
          Parts:{' '}
          {counted(
            list.wired.reduce((sum, { count }) => sum + count, 0),
            'device',
          )}{' '}
          to wire
        </summary>
        <ul className="outcome-parts">
          {list.wired.map(({ name, count }) => (
            <li key={name}>
              <strong>{count}</strong> {name}
            </li>
          ))}
        </ul>
      </details>
    </>
  )
}

function InTerminal({ row: { number, legend, conductors, ...links } }: { row: ScheduledTerminal }) {
  return (
    <li>
      <span className="terminal-number">{number}</span>
      <span className="legend">{legend}</span>
      <span className="ways">
        {alike(conductors).map(({ colour, sleeve, count }) => (
          <span key={`${colour} ${sleeve}`}>
            {count > 1 && <strong>{count} × </strong>}
            <Conductor colour={colour} sleeve={sleeve} />
          </span>
        ))}
      </span>
      <span className="quiet">{linkText(links)}</span>
    </li>
  )
}

type Alike = Pick<ScheduledConductor, 'colour' | 'sleeve'> & { count: number }

/** Conductors of one terminal, those of one colour together. */
function alike(conductors: readonly ScheduledConductor[]): Alike[] {
  const kinds: Alike[] = []
  for (const { colour, sleeve } of conductors) {
    const known = kinds.find((one) => one.colour === colour && one.sleeve === sleeve)
    if (known) known.count++
    else kinds.push({ colour, sleeve, count: 1 })
  }
  return kinds
}

function Verdict({ plan }: { plan: Installation }) {
  const { findings, states, known, progress, error } = useVerdict(plan)
  if (error) return <p className="outcome-verdict">The check could not be run. {errorText(error)}</p>
  if (!findings || !states || !known)
    return (
      <p className="outcome-verdict">{progress ? `Checking: ${progress} states looked at` : 'Checking the plan'}</p>
    )
  return (
    <p className={`outcome-verdict ${findings.some(isGrave) ? 'bad' : 'good'}`}>
      {verdictText({ findings, states, known })}
    </p>
  )
}

/** What would change of the wiring that stands. */
function Against({ now, plan }: { now: Installation; plan: Installation }) {
  const { conductors, devices } = useMemo(() => differencesOf(now, plan), [now, plan])
  if (same(now.cables, plan.cables) || (conductors.length === 0 && devices.length === 0))
    return <p className="quiet m-0">Wired as it stands.</p>
  const of = (change: string) => conductors.filter((c) => c.change === change).length
  const moved = conductors.length - of('added') - of('removed')
  return (
    <p className="m-0">
      Against the wiring as it stands: {counted(of('added'), 'conductor')} come, {of('removed')} go, {moved} lie
      elsewhere.
    </p>
  )
}

function Contradiction({ conflict, onWay }: { conflict: Conflict; onWay: (brief: PlanBrief) => void }) {
  return (
    <div role="status" className="contradiction">
      <h2>{conflict.answers.length === 1 ? 'This cannot be' : 'These cannot be together'}</h2>
      <ul className="in-conflict">
        {conflict.answers.map(({ id, says }) => (
          <li key={id}>{says}</li>
        ))}
      </ul>
      <p>{conflict.reason[0].toUpperCase() + conflict.reason.slice(1)}.</p>
      <p className="fw-bold mb-1">
        {conflict.ways.length > 0 ? 'Ways out' : 'No single change helps: begin from another scheme.'}
      </p>
      <div className="ways-out">
        {conflict.ways.map(({ says, brief }) => (
          <Button key={says} variant="outline-primary" onClick={() => onWay(brief)}>
            {says}
          </Button>
        ))}
      </div>
    </div>
  )
}
