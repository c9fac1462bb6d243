import {
  cableSchedule,
  linkText,
  pagesOf,
  partsList,
  terminalSchedule,
  terminationOrder,
  type FirstDone,
  wiringCentreSvg,
  type Colour,
  type Installation,
  type ScheduledConductor,
} from '@nobbet/core'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import { purposeText, stepWords } from '../plan/step-words'
import { box, framed, table, textWidth } from './frame'
import type { PaperHeading } from './heading'

/** Conductors that are drawn large enough to be read on one page. */
const conductorsToADrawing = 34

/** What goes where, how it is terminated step by step, and what is needed for it. */
export function packPages(installation: Installation, heading: PaperHeading, first?: FirstDone): TDocumentDefinitions {
  return framed(heading, 'Wiring pack', [
    { text: installation.name, style: 'h1' },
    { text: [installation.scheme, `, ${installation.supply.volts} V ${installation.supply.frequency} Hz`] },
    { text: heading.verdict, bold: true, margin: [0, 6, 0, 0] },
    { text: heading.basis, style: 'quiet' },
    cautions(),
    ...installation.wiringCentres.flatMap(({ id }) => terminals(installation, id)),
    ...installation.wiringCentres.flatMap(({ id }) => drawings(installation, id)),
    ...cores(installation),
    ...steps(installation, first),
    ...parts(installation),
  ])
}

function cautions(): Content {
  return {
    margin: [0, 10, 0, 0],
    table: {
      widths: ['*'],
      body: [
        [
          {
            margin: [4, 3, 4, 3],
            stack: [
              { text: 'Before any conductor is moved', bold: true },
              'Isolate every pole. Lock off, or take out the fuse or the plug.',
              'Prove the tester, prove dead, prove the tester again.',
              'Beware of a second supply: immersion heater, boiler output.',
              'Rules of the place and the makers’ instructions come before this paper.',
            ],
          },
        ],
      ],
    },
  }
}

const colourText = (colour: Colour, sleeve?: Colour) => (sleeve ? `${colour} sleeved ${sleeve}` : colour)

/** Points; the gap is what the table leaves between two cells. */
const [colourWidth, cellGap] = [110, 8]
/** A conductor and its other end stand in one line, or begin in it, however long either is. */
const conductorLine = ({ colour, sleeve, farText, cableLabel, parked }: ScheduledConductor): Content => ({
  columns: [
    { width: colourWidth + cellGap, text: colourText(colour, sleeve), bold: true },
    { width: '*', text: `${farText} (${cableLabel}${parked ? ', parked' : ''})` },
  ],
})

function terminals(installation: Installation, centre: string): Content[] {
  const rows = terminalSchedule(installation, centre)
  const { name } = installation.wiringCentres.find(({ id }) => id === centre)!
  return [
    { text: `${name}: what goes where`, style: 'h2' },
    table(
      [26, 92, colourWidth, '*', 50],
      ['No.', 'Legend', 'Conductor', 'Other end', 'Link'],
      rows.map(({ number, legend, conductors, ...links }): TableCell[] => [
        { text: number, style: 'mark' },
        legend,
        { colSpan: 2, stack: conductors.map(conductorLine) },
        '',
        linkText(links),
      ]),
    ),
  ]
}

function drawings(installation: Installation, centre: string): Content[] {
  return pagesOf(installation, centre, conductorsToADrawing).map((range, _, all) => ({
    svg: wiringCentreSvg(installation, centre, all.length > 1 ? range : undefined),
    font: 'Paper',
    width: textWidth,
    pageBreak: 'before',
  }))
}

function cores(installation: Installation): Content[] {
  return [
    { text: 'Cables and cores', style: 'h2', pageBreak: 'before' },
    ...cableSchedule(installation).map(({ label, lengthM, lead, cores: own }): Content => ({
      margin: [0, 8, 0, 0],
      // A cable stays on one page, but for one that is longer than half of it.
      unbreakable: own.length <= 12,
      ...table(
        [130, '*', '*'],
        [`${label}${lengthM === undefined || lead ? '' : `, ${lengthM} m`}`, 'From', 'To'],
        own.map(({ core, ends }): TableCell[] => [
          { text: colourText(core.colour, core.sleeve), bold: true },
          ends[0],
          ends[1],
        ]),
      ),
    })),
  ]
}

function steps(installation: Installation, first?: FirstDone): Content[] {
  return [
    { text: 'Steps', style: 'h2', pageBreak: 'before' },
    ...terminationOrder(installation, first).flatMap(({ title, place, steps: own }): Content[] => [
      { text: [{ text: title, bold: true, fontSize: 11 }, place ? `   ${place}` : ''], margin: [0, 8, 0, 2] },
      table(
        [14, 50, 62, 150, '*'],
        ['', 'Do', 'Terminal', 'Conductor', ''],
        own.map((step): TableCell[] => [
          box(),
          stepWords[step.do],
          { text: step.terminal ?? '', bold: true },
          step.core ? colourText(step.core.colour, step.core.sleeve) : '',
          purposeText(step),
        ]),
      ),
    ]),
  ]
}

function parts(installation: Installation): Content[] {
  const list = partsList(installation)
  const rows = (own: typeof list.wired) =>
    own.map(({ name, count, called }): TableCell[] => [box(), `${count}`, name, called.join(', ')])
  const widths = [14, 30, 170, '*']
  return [
    { text: 'Parts', style: 'h2', pageBreak: 'before' },
    table(
      widths,
      ['', 'No.', 'Part', 'For'],
      [
        ...rows(list.wired),
        ...list.wiringCentres.map(({ name, terminals: n, links }): TableCell[] => [
          box(),
          '1',
          name,
          `${n} terminals, ${links === 1 ? '1 link' : `${links} links`} to be fitted`,
        ]),
        ...list.connectors.map(({ name, ways }): TableCell[] => [box(), '1', 'Connector', `${name}: ${ways} ways`]),
        ...list.sleeves.map(({ colour, count }): TableCell[] => [
          box(),
          `${count}`,
          `Sleeve, ${colour}`,
          'one to each end',
        ]),
      ],
    ),
    ...(list.unwired.length > 0
      ? [{ text: 'In the pipes only', style: 'h2' }, table(widths, ['', 'No.', 'Part', 'For'], rows(list.unwired))]
      : []),
    { text: 'Cable', style: 'h2' },
    table(
      [14, 40, 170, '*'],
      ['', 'Length', 'Cable', 'For'],
      list.cables.map(({ cores: n, areaMm2, colours, lengthM, cables }): TableCell[] => [
        box(),
        { text: `${Math.ceil(lengthM)} m`, bold: true },
        `${n}-core, ${areaMm2} mm²: ${colours.join(', ')}`,
        cables.map((c) => `${c.label} ${c.lengthM === undefined ? '(length not known)' : `${c.lengthM} m`}`).join(', '),
      ]),
    ),
    {
      text: 'Lengths are as they stand in the plan, without waste. Leads that come with their devices are not in the list.',
      style: 'quiet',
      margin: [0, 6, 0, 0],
    },
  ]
}
