import { huntOf, openMeasures } from '@nobbet/contract'
import { testedBlocks } from './run-blocks'
import { deference, listed, ofKind, sentence, signedBlocks, under, type Block, type ReportOf } from './report'

/** For who lives there: plain words, half a page and the photos. */
export function customerReport({ state, record, photos, dayOf }: ReportOf, visitId: string | undefined): Block[] {
  const { brief } = state.document
  const visits = visitId === undefined ? record.visits : record.visits.filter(({ id }) => id === visitId)
  const ids = new Set(visits.map(({ id }) => id))
  const mine = <T extends { visit: string }>(list: readonly T[]) =>
    visitId === undefined ? [...list] : list.filter(({ visit }) => ids.has(visit))
  const items = mine(record.items)
  const days = [...new Set(visits.map(({ at }) => dayOf(at)))]
  const who = [...new Set(visits.map(({ who: name }) => name).filter(Boolean))]
  const measures = openMeasures(record)
  const texts = (...kinds: Parameters<typeof ofKind>[1][]) => ofKind(items, ...kinds).map(({ text }) => text)
  const danger = items.some(({ severity }) => severity === 'danger') || measures.some(({ risk }) => risk)
  const { finding } = huntOf(state)
  const found = texts('found')
  return [
    {
      is: 'title',
      text: 'What was done',
      under: [brief.site, days.join(', '), who.length > 0 ? `by ${who.join(', ')}` : ''].filter(Boolean).join(', '),
    },
    ...(brief.symptom ? under('What you told us', [{ is: 'text', text: brief.symptom }]) : []),
    ...under(
      'What we found',
      listed(found.length > 0 || !finding ? found : finding.causes.slice(0, 1).map(({ label }) => label)),
    ),
    ...under(
      'What we did',
      listed([...changed(record, visits), ...texts('done', 'made-safe'), ...used(mine(record.parts))]),
    ),
    ...under('Tested before leaving', testedBlocks(record, dayOf, visitId)),
    ...under(
      'Left for now',
      measures.flatMap(({ what, limits, risk, until }): Block[] => [
        { is: 'text', text: `${sentence(what)} This ends on ${dayOf(until)}.`, strong: true },
        ...listed([limits, risk ?? ''].filter(Boolean)),
      ]),
    ),
    ...under('What we advise', listed(texts('advised'))),
    ...under('Not part of this work', listed(texts('not-ours'))),
    ...under(
      'What comes next',
      listed(record.followUps.filter(({ done }) => !done).map(({ what, on }) => `By ${dayOf(on)}: ${what}`)),
    ),
    ...under('Photos', photos.length > 0 ? [{ is: 'photos', photos }] : []),
    {
      is: 'caution',
      title: danger ? 'Please take care' : 'For your safety',
      lines: [
        'Covers stay on: behind them is mains voltage, and a second supply may feed parts that look switched off.',
        'Smell of burning, a breaker that trips again, water on controls: switch off at the fused spur, leave it off, and call.',
        deference,
      ],
    },
    ...signedBlocks(visits, dayOf),
  ]
}

/** Controls that were changed on one of these visits; with none, whenever it was. */
function changed({ change }: ReportOf['record'], visits: ReportOf['record']['visits']): string[] {
  if (!change?.done) return []
  const { at } = change.done
  const isOne = visits.length === 0 || visits.some((visit) => visit.at <= at && (!visit.ended || at <= visit.ended))
  return isOne ? [`Controls changed: ${change.name}`] : []
}

const used = (parts: ReportOf['record']['parts']): string[] =>
  parts.filter(({ use }) => use === 'used').map(({ what, count }) => `Fitted: ${count} × ${what}`)
