import { deferredRows, huntOf, leftOpen, linesOf, openMeasures, runsOf, weighed, type JobState } from '@nobbet/contract'
import {
  cableSchedule,
  compile,
  differenceTexts,
  differencesOf,
  differingName,
  hypothesesOf,
  huntEntryText,
  linkDifferenceText,
  linkText,
  terminalSchedule,
  terminationOrder,
  type Circuit,
  type Installation,
} from '@nobbet/core'
import { planOf } from '../wiring/plan-of'
import { gravityWords, itemWords } from '../visit/words'
import { runTable } from './run-blocks'
import { deference, listed, ofKind, sentence, signedBlocks, under, type Block, type ReportOf } from './report'

/** For whoever comes next: wiring as left, readings, steps, settings, open points. */
export function engineerReport(
  { state, record, photos, dayOf }: ReportOf,
  /** What the check says of the wiring as left, and what that rests on; undefined while it is not through. */
  verdict: { text: string; basis: string } | undefined,
): Block[] {
  const { brief, wiring } = state.document
  const circuit = compile(wiring)
  const { finding } = huntOf(state)
  return [
    { is: 'title', text: 'For the next engineer', under: `${brief.site}, ${wiring.scheme || brief.fitted.scheme}` },
    {
      is: 'caution',
      title: 'Before any cover comes off',
      lines: [
        'Isolate every pole. Lock off, or take out the fuse or the plug.',
        'Prove the tester, prove dead, prove the tester again.',
        'Beware of a second supply: immersion heater, boiler output.',
        deference,
      ],
    },
    ...under('Open points', openPoints(state, record, dayOf)),
    ...under('Visits', visitTable(record, dayOf)),
    ...under('Reported', [
      ...(brief.symptom ? [{ is: 'text', text: brief.symptom } as const] : []),
      ...(brief.earlier ? [{ is: 'text', text: `Concluded earlier: ${brief.earlier}` } as const] : []),
    ]),
    ...under('Found and done', itemTable(record, wiring)),
    ...(finding
      ? under('The fault that was looked for', [
          {
            is: 'text',
            strong: true,
            text: `${finding.causes.map(({ label }) => label).join('; or ')} (${Math.round(finding.share * 100)} %)`,
          },
          { is: 'text', text: finding.remedy ? sentence(finding.remedy) : 'Nothing was changed.' },
          {
            is: 'text',
            text: finding.proved ? 'Asked for again afterwards, and met.' : 'Not proved by asking for it again.',
          },
        ])
      : []),
    ...under('What was done, seen and read', huntTable(circuit, state, dayOf)),
    ...under('Commissioning', runTable(record, dayOf)),
    ...under('The wiring as left', [
      {
        is: 'text',
        strong: true,
        text: verdict ? verdict.text : 'The check of this wiring was not through when this was made.',
      },
      ...(verdict ? [{ is: 'text', text: verdict.basis } as const] : []),
      ...wiring.wiringCentres.flatMap(({ id, name }) => centreTable(wiring, id, name)),
      ...cablesTable(wiring),
    ]),
    ...under('Otherwise than planned', departures(state)),
    ...under('Settings', settingsTable(circuit)),
    ...under('Steps of termination', stepsDone(state)),
    ...under('Photos', photos.length > 0 ? [{ is: 'photos', photos }] : []),
    ...signedBlocks(record.visits, dayOf),
  ]
}

function openPoints(state: JobState, record: ReportOf['record'], dayOf: ReportOf['dayOf']): Block[] {
  const measures = openMeasures(record).map(({ what, why, limits, risk, told, until }) =>
    [
      `Left until ${dayOf(until)}: ${what}`,
      why && `Why: ${why}`,
      `Limits: ${limits || 'none written'}`,
      risk && `May happen: ${risk}`,
      told && `Told: ${told}`,
    ]
      .flatMap((part) => (part ? [sentence(part)] : []))
      .join(' '),
  )
  return listed([
    ...leftOpen(state).map(({ text }) => `To put back: ${text}`),
    ...measures,
    ...record.followUps.filter(({ done }) => !done).map(({ what, on }) => `By ${dayOf(on)}: ${what}`),
    ...deferredRows(runsOf(record)).map(
      ({ title, reason, until = '' }) => `By ${dayOf(until)}: ${title}, deferred: ${sentence(reason)}`,
    ),
    ...record.parts.filter(({ use }) => use === 'bring').map(({ what, count }) => `To bring: ${count} × ${what}`),
    ...ofKind(record.items, 'advised').map(({ text }) => `Advised: ${text}`),
  ])
}

const visitTable = ({ visits, told }: ReportOf['record'], dayOf: ReportOf['dayOf']): Block[] =>
  visits.length === 0
    ? []
    : [
        {
          is: 'table',
          head: ['Begun', 'Who', 'Why', 'Isolation step', 'Ended'],
          widths: [90, 80, '*', 90, 90],
          rows: visits.map(({ at, who, why, isolated, ended }) => [
            dayOf(at),
            who,
            why,
            isolated ? dayOf(isolated) : 'not acknowledged',
            ended ? dayOf(ended) : 'open',
          ]),
        },
        ...listed(told.map(({ whom, what, at }) => `Told ${whom}, ${dayOf(at)}: ${what}`)),
      ]

const itemTable = ({ items, parts }: ReportOf['record'], wiring: Installation): Block[] => [
  ...(items.length > 0
    ? [
        {
          is: 'table',
          head: ['What', 'How grave', 'Part', 'In words'],
          widths: [60, 55, 90, '*'],
          rows: items.map(({ kind, severity, part, text, evidence }) => [
            itemWords[kind],
            gravityWords[severity],
            wiring.devices.find(({ id }) => id === part)?.name ?? part ?? '',
            [text, ...evidence.map((line) => `· ${line}`)].join('\n'),
          ]),
        } as const,
      ]
    : []),
  ...listed(parts.filter(({ use }) => use === 'used').map(({ what, count }) => `Fitted: ${count} × ${what}`)),
]

function huntTable(circuit: Circuit, state: JobState, dayOf: ReportOf['dayOf']): Block[] {
  const lines = linesOf(circuit, state).filter(({ gone }) => !gone)
  if (lines.length === 0) return []
  const entries = weighed(lines)
  // What was put right is called by its name, whatever became of it.
  const named = entries.some((entry) => 'mended' in entry) ? hypothesesOf(circuit) : []
  const causes = huntOf(state).finding?.causes ?? []
  const labels = new Map([...named, ...causes].map(({ id, label }) => [id, label]))
  const rows = lines.flatMap(({ at, note, entry }, i) => {
    try {
      return [[dayOf(at), huntEntryText(circuit, entry, entries.slice(0, i), (id) => labels.get(id) ?? id), note]]
    } catch {
      // It speaks of something that the wiring as left does not have: said so, not left out.
      return [[dayOf(at), 'Something that is no longer there', note]]
    }
  })
  return [{ is: 'table', head: ['When', 'What', 'Remark'], widths: [90, '*', 120], rows }]
}

function centreTable(wiring: Installation, centre: string, name: string): Block[] {
  const rows = terminalSchedule(wiring, centre).filter(
    ({ conductors, linkedTo }) => conductors.length + linkedTo.length > 0,
  )
  return [
    { is: 'text', text: name, strong: true },
    {
      is: 'table',
      head: ['No.', 'Legend', 'Conductors', 'Link'],
      widths: [28, 100, '*', 60],
      rows: rows.map(({ number, legend, conductors, ...links }) => [
        String(number),
        legend,
        conductors
          .map(
            ({ colour, sleeve, farText, parked }) =>
              `${colour}${sleeve ? ` sleeved ${sleeve}` : ''}: ${farText}${parked ? ' (parked)' : ''}`,
          )
          .join('\n'),
        linkText(links),
      ]),
    },
  ]
}

/** Cables that meet no wiring centre: the others are in its table already. */
function cablesTable(wiring: Installation): Block[] {
  const centres = new Set(wiring.wiringCentres.map(({ id }) => id))
  const apart = new Set(
    wiring.cables
      .filter(({ cores }) =>
        cores.every(({ ends }) =>
          ends.every((end) => !('terminal' in end) || !centres.has(end.terminal.split('.')[0] ?? '')),
        ),
      )
      .map(({ label }) => label),
  )
  const rows = cableSchedule(wiring)
    .filter(({ label }) => apart.has(label))
    .flatMap(({ label, cores }) =>
      cores.map(({ core, ends }) => [label, `${core.colour}${core.sleeve ? ` sleeved ${core.sleeve}` : ''}`, ...ends]),
    )
  return rows.length === 0
    ? []
    : [
        { is: 'text', text: 'Cables that meet no wiring centre', strong: true },
        { is: 'table', head: ['Cable', 'Conductor', 'From', 'To'], widths: [120, 80, '*', '*'], rows },
      ]
}

function departures(state: JobState): Block[] {
  const plan = planOf(state)
  if (!plan) return []
  const { wiring } = state.document
  const { conductors, links } = differencesOf(plan, wiring)
  const rows = conductors.map((one) => {
    const { before, after } = differenceTexts(one, plan, wiring)
    return [differingName(one), before ?? 'not there', after ?? 'not there']
  })
  return [
    ...(rows.length > 0
      ? [{ is: 'table', head: ['Conductor', 'Planned', 'As left'], widths: [150, '*', '*'], rows } as const]
      : []),
    ...listed(
      links.map((one) => `Link ${linkDifferenceText(one.change === 'removed' ? plan : wiring, one)}: ${one.change}`),
    ),
  ]
}

function settingsTable({ devices }: Circuit): Block[] {
  // What a part is like by itself is no setting: told is what somebody has set, or has to choose.
  const rows = devices.flatMap(({ device, type }) =>
    type.settings
      .filter(({ id, choices }) => choices || id in device.settings)
      .map(({ id, label, unit, choices, default: usual }) => {
        const value = device.settings[id] ?? usual
        return [
          device.name,
          label,
          choices?.find((choice) => choice.value === value)?.label ?? `${value} ${unit}`.trim(),
        ]
      }),
  )
  return rows.length === 0
    ? []
    : [{ is: 'table', head: ['Device', 'Setting', 'Stands at'], widths: ['*', '*', '*'], rows }]
}

function stepsDone({ document, ticks }: JobState): Block[] {
  if (ticks.length === 0) return []
  const all = terminationOrder(document.wiring).flatMap(({ steps }) => steps)
  const done = new Set(ticks)
  const rest = all.filter(({ id }) => !done.has(id)).length
  return [{ is: 'text', text: `${all.length - rest} of ${all.length} steps are ticked off.` }]
}
