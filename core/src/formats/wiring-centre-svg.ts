import { plainText, type Colour, type Installation } from '../installation'
import { terminalSchedule } from '../planning'

/** Conductor colours as they are in the world; green-yellow is drawn in two halves. */
export const paints: Record<Colour, string> = {
  brown: '#7a4a21',
  blue: '#1f6fc4',
  'green-yellow': '#2f9b3d',
  black: '#1a1a1a',
  grey: '#9aa0a3',
  red: '#c22026',
  yellow: '#f2d21f',
  green: '#2f9b3d',
  white: '#ffffff',
  orange: '#ef7d1a',
  bare: '#c98a52',
}

const row = 22
const head = 56
/** Columns from the left, px: links, number, legend, conductor, other end. */
const at = { number: 70, legend: 108, swatch: 300, colour: 330, far: 470, end: 900 }

const escaped = (text: string) =>
  plainText(text).replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)

/** Rows of a drawing, from one terminal up to but without another, counted from 0. */
export type RowRange = readonly [from: number, to: number]

/** A wiring centre as ranges of rows, each no longer than so many conductors, where it is drawn on pages. */
export function pagesOf(installation: Installation, centre: string, conductors: number): RowRange[] {
  const pages: [number, number][] = []
  let left = 0
  terminalSchedule(installation, centre).forEach((row, i) => {
    const takes = Math.max(1, row.conductors.length)
    const last = pages.at(-1)
    if (last && takes <= left) last[1] = i + 1
    else {
      pages.push([i, i + 1])
      left = conductors
    }
    left -= takes
  })
  return pages
}

/**
 * A wiring centre as a drawing (SVG): terminals in order, links beside them, what is in each and where it goes. A link out of the
 * range that is drawn runs to its edge.
 */
export function wiringCentreSvg(installation: Installation, centre: string, range?: RowRange): string {
  const { name } = installation.wiringCentres.find((c) => c.id === centre)!
  const all = terminalSchedule(installation, centre)
  const [start, end] = range ?? [0, all.length]
  const rows = all.slice(start, end)
  const tops: number[] = []
  let height = head
  for (const { conductors } of rows) {
    tops.push(height)
    height += row * Math.max(1, conductors.length)
  }
  const middle = (i: number) => (i < 0 ? head - 4 : i < tops.length ? tops[i] + row / 2 : height + 4)
  const text = (x: number, y: number, words: string, weight = 400, size = 13) =>
    `<text x="${x}" y="${y + 4.5}" font-weight="${weight}" font-size="${size}">${escaped(words)}</text>`
  const lines = rows.flatMap((r, i) => {
    const first = r.legend !== rows[i - 1]?.legend
    const y = tops[i]
    return [
      `<line x1="${at.number - 14}" x2="${at.end}" y1="${y}" y2="${y}" stroke="#10201d" stroke-width="${first ? 1.4 : 0.4}"/>`,
      `<rect x="${at.number - 14}" y="${y + 2.5}" width="34" height="${row - 5}" fill="#fff" stroke="#10201d"/>`,
      `<text x="${at.number + 3}" y="${middle(i) + 4.5}" text-anchor="middle" font-weight="700" font-size="13">${escaped(r.number)}</text>`,
      text(at.legend, middle(i), r.legend, first ? 700 : 400),
      ...r.conductors.flatMap((c, k) => {
        const cy = y + row * k + row / 2
        const half =
          c.colour === 'green-yellow' ? `<rect x="${at.swatch}" y="${cy}" width="22" height="5" fill="#f5dd2b"/>` : ''
        const sleeve = c.sleeve
          ? `<rect x="${at.swatch + 14}" y="${cy - 7}" width="8" height="14" fill="${paints[c.sleeve]}" stroke="#10201d" stroke-width="0.6"/>`
          : ''
        return [
          `<rect x="${at.swatch}" y="${cy - 5}" width="22" height="10" fill="${paints[c.colour]}" stroke="#10201d" stroke-width="0.6"/>${half}${sleeve}`,
          text(at.colour, cy, c.sleeve ? `${c.colour} sleeved ${c.sleeve}` : c.colour),
          text(at.far, cy, `${c.farText} (${c.cableLabel}${c.parked ? ', parked here' : ''})`),
        ]
      }),
    ]
  })
  const links = linkLanes(
    installation,
    centre,
    all.map((r) => r.ref),
  )
    .filter(({ from, to }) => from < end && to >= start)
    .map(({ from, to, lane, kind }) => {
      const x = at.number - 22 - lane * 9
      const dash = kind === 'cut' ? ' stroke-dasharray="3 3"' : ''
      const [begin, over] = [from < start ? `M${x}` : `M${at.number - 14} ${middle(from - start)}H${x}`, to < end]
      const path = `${from < start ? `${begin} ${middle(-1)}` : begin}V${middle(to - start)}${over ? `H${at.number - 14}` : ''}`
      return `<path d="${path}" fill="none" stroke="#10201d" stroke-width="2"${dash}/>`
    })
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${at.end + 16} ${height + 16}" width="${at.end + 16}" height="${height + 16}" font-family="sans-serif" fill="#10201d">`,
    `<rect width="100%" height="100%" fill="#fff"/>`,
    `<title>${escaped(`${installation.name}: ${name}`)}</title>`,
    text(16, 20, installation.name, 700, 16),
    text(
      16,
      40,
      `${name}, ${range ? `terminals ${rows[0].number} to ${rows.at(-1)!.number} of ` : ''}${all.length}${range ? '' : ' terminals'}`,
    ),
    ...lines,
    ...links,
    `<line x1="${at.number - 14}" x2="${at.end}" y1="${height}" y2="${height}" stroke="#10201d" stroke-width="1.4"/>`,
    '</svg>',
    '',
  ].join('\n')
}

interface Lane {
  from: number
  to: number
  lane: number
  kind: string
}

/** Links between terminals of one strip, each in the first lane beside it that is free. */
export function linkLanes(installation: Installation, centre: string, refs: readonly string[]): Lane[] {
  const lanes: number[] = []
  return installation.links
    .filter((l) => l.between.every((t) => t.startsWith(`${centre}.`)))
    .map((l) => ({ kind: l.kind, ends: l.between.map((t) => refs.indexOf(t)).sort((x, y) => x - y) }))
    .sort((x, y) => x.ends[0] - y.ends[0] || x.ends[1] - y.ends[1])
    .map(({ kind, ends: [from, to] }) => {
      let lane = lanes.findIndex((until) => until < from)
      if (lane < 0) lane = lanes.length
      // Links that meet in one terminal may share a lane.
      const shared = lanes.findIndex((until) => until === from)
      if (shared >= 0 && shared <= lane) lane = shared
      lanes[lane] = to
      return { from, to, lane, kind }
    })
}
