import {
  besideEachOther,
  isCarriedOut,
  lastRun,
  outcomes,
  runsOf,
  type KeptRun,
  type RowBeside,
  type SiteRecord,
} from '@nobbet/contract'
import { outcomeText, outcomeWords, purposeWords } from '../commission/words'
import { listed, type Block, type ReportOf } from './report'

/** Both runs beside each other, and what they were: whoever comes next sees what was wrong on arrival and right on leaving. */
export function runTable(record: SiteRecord, dayOf: ReportOf['dayOf']): Block[] {
  const runs = runsOf(record)
  const [arrival, leaving] = [lastRun(runs, 'arrival'), lastRun(runs, 'leaving')]
  const rows = besideEachOther(arrival, leaving)
  if (rows.length === 0) return []
  const held = [arrival, leaving].filter((run) => run !== undefined)
  const cell = (row: RowBeside['arrival']) => (row ? outcomeText(row) : outcomeWords.open)
  return [
    ...listed(held.map((run) => runText(run, dayOf))),
    {
      is: 'table',
      head: ['Step', ...held.map(({ purpose }) => purposeWords[purpose])],
      widths: [140, ...held.map(() => '*' as const)],
      rows: rows.map((row) => [row.title, ...held.map(({ purpose }) => cell(row[purpose]))]),
    },
    ...listed(againTexts(leaving, dayOf)),
  ]
}

/** "On leaving, 28 Nov 2026: short run, covers on". */
function runText({ purpose, at, options, ended }: KeptRun, dayOf: ReportOf['dayOf']): string {
  const how = [options.short && 'short run', options.coversOn && 'covers on', !ended && 'not ended'].filter(Boolean)
  return `${purposeWords[purpose]}, ${dayOf(at)}${how.length > 0 ? `: ${how.join(', ')}` : ''}`
}

/** Steps of a run that were not as expected at first, and done again. */
function againTexts(run: KeptRun | undefined, dayOf: ReportOf['dayOf']): string[] {
  const last = outcomes(run)
  return (run?.done ?? []).flatMap((row) => {
    const now = last.get(row.row)
    return row.how !== 'otherwise' || !now || now.id === row.id
      ? []
      : [`${row.title}, at ${dayOf(row.at)} ${outcomeText(row)}; at ${dayOf(now.at)} ${outcomeText(now)}`]
  })
}

/** What was tested on leaving, on one visit or on any, for who lives there. */
export function testedBlocks(record: SiteRecord, dayOf: ReportOf['dayOf'], visit: string | undefined): Block[] {
  const runs = runsOf(record).filter(
    (one) => visit === undefined || one.visit === visit || one.done.some((row) => row.visit === visit),
  )
  const run = lastRun(runs, 'leaving')
  const rows = [...outcomes(run).values()]
  if (rows.length === 0) return []
  const right = rows.filter(({ how }) => how === 'as-expected').length
  const done = rows.filter(isCarriedOut).length
  const open = run?.ended?.open.length ?? 0
  return [
    { is: 'text', text: `${right} of ${rows.length + open} steps of the run were done and as expected.` },
    ...listed(
      rows.flatMap((row) =>
        row.how === 'deferred' && row.until !== undefined
          ? [`By ${dayOf(row.until)}: ${row.title} (${row.reason})`]
          : row.how === 'as-expected'
            ? []
            : [`${row.title}: ${outcomeWords[row.how].toLowerCase()}${row.reason ? `, ${row.reason}` : ''}`],
      ),
    ),
    ...(done < rows.length + open ? [{ is: 'text', text: 'What was not done was not tested.' } as const] : []),
  ]
}
