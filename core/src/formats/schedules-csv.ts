import Papa from 'papaparse'
import type { z } from 'zod'
import { typeDirectory } from '../catalogue'
import {
  cableSchema,
  coreSchema,
  linkSchema,
  mostProblems,
  provenanceSchema,
  referenceProblems,
  wiringCentreSchema,
  type Cable,
  type Change,
  type Command,
  type Core,
  type Installation,
  type Link,
  type WiringCentre,
} from '../installation'
import { edited, EditError } from '../installation'
import { endCode, readEnd } from './ends'

/** One thing wrong in a schedule: its line (the heading is line 1), the column, and why. */
export interface RowProblem {
  line: number
  column: string
  reason: string
}

export class ScheduleError extends Error {
  readonly problems: RowProblem[]
  constructor(problems: readonly RowProblem[]) {
    const first = problems.slice(0, mostProblems)
    super(first.map((p) => `line ${p.line}, ${p.column}: ${p.reason}`).join('; '))
    this.problems = first
    this.name = 'ScheduleError'
  }
}

const conductorColumns = [
  'cable',
  'label',
  'lead_of',
  'length_m',
  'pf_per_m',
  'rated_for_mains',
  'core',
  'colour',
  'sleeve',
  'area_mm2',
  'end_1',
  'end_1_known',
  'end_2',
  'end_2_known',
] as const
const terminalColumns = ['owner', 'name', 'place', 'terminal', 'legend', 'ways', 'links'] as const

type Row<C extends readonly string[]> = Record<C[number], string>
interface Line<C extends readonly string[]> {
  line: number
  row: Row<C>
}

/**
 * What a spreadsheet would take for a formula gets an apostrophe before it, which shows it as text; one that had apostrophes
 * before it already gets one more, so that {@link asMeant} brings back just what was there.
 */
const harmless = (cell: string): string => (/^'*[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell)
const asMeant = (cell: string): string => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell)

const written = (columns: readonly string[], rows: readonly Record<string, string>[]): string =>
  `${Papa.unparse({ fields: [...columns], data: rows.map((row) => columns.map((c) => harmless(row[c]))) }, { newline: '\n' })}\n`

/** Every conductor of an installation, one a line. */
export function conductorsCsv({ cables }: Installation): string {
  const rows = cables.flatMap((cable) =>
    cable.cores.map((core): Row<typeof conductorColumns> => ({
      cable: cable.id,
      label: cable.label,
      lead_of: cable.leadOf ?? '',
      length_m: String(cable.lengthM ?? ''),
      pf_per_m: String(cable.picofaradsPerM ?? ''),
      rated_for_mains: cable.ratedForMains ? 'yes' : 'no',
      core: core.id,
      colour: core.colour,
      sleeve: core.sleeve ?? '',
      area_mm2: String(core.areaMm2),
      end_1: endCode(core.ends[0]),
      end_1_known: core.ends[0].provenance ?? '',
      end_2: endCode(core.ends[1]),
      end_2_known: core.ends[1].provenance ?? '',
    })),
  )
  return written(conductorColumns, rows)
}

/** Every terminal of the wiring centres with its links, one a line; device terminals only where a link is on them. */
export function terminalsCsv({ wiringCentres, links }: Installation): string {
  const linksOf = (ref: string) =>
    links
      .filter((l) => l.between[0] === ref)
      .map((l) => [l.id, l.kind, l.between[1], l.provenance].filter(Boolean).join(' '))
      .join('; ')
  const own = new Set(wiringCentres.map((c) => c.id))
  const outside = [...new Set(links.map((l) => l.between[0]))].filter((ref) => !own.has(ref.split('.')[0]))
  const rows = [
    ...wiringCentres.flatMap((centre) =>
      centre.terminals.map((t) => ({
        owner: centre.id,
        name: centre.name,
        place: centre.place,
        terminal: t.id,
        legend: t.legend,
        ways: String(t.ways),
        links: linksOf(`${centre.id}.${t.id}`),
      })),
    ),
    ...outside.map((ref) => {
      const [owner, terminal] = ref.split('.')
      return { owner, name: '', place: '', terminal, legend: '', ways: '', links: linksOf(ref) }
    }),
  ]
  return written(terminalColumns, rows)
}

/** Lines of a schedule: 200 cables of 24 conductors, which is as many as an installation takes. */
const mostLines = 4800

/** Lines of a schedule with just these columns, in any order. Throws {@link ScheduleError}. */
function linesOf<C extends readonly string[]>(text: string, columns: C): Line<C>[] {
  const { data: all, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' })
  const [has = [], ...data] = all
  const missing = columns.filter((c) => !has.includes(c))
  if (missing.length > 0)
    throw new ScheduleError(missing.map((column) => ({ line: 1, column, reason: 'this column is missing' })))
  const twice = columns.filter((c) => has.indexOf(c) !== has.lastIndexOf(c))
  if (twice.length > 0)
    throw new ScheduleError(twice.map((column) => ({ line: 1, column, reason: 'this column is there twice' })))
  const broken = errors.filter((e) => e.type !== 'Delimiter')
  if (broken.length > 0)
    throw new ScheduleError(broken.map((e) => ({ line: (e.row ?? 0) + 1, column: '', reason: e.message })))
  const uneven = data.findIndex((row) => row.length !== has.length)
  if (uneven >= 0)
    throw new ScheduleError([
      { line: uneven + 2, column: '', reason: `has ${data[uneven].length} cells, and there are ${has.length} columns` },
    ])
  if (data.length > mostLines)
    throw new ScheduleError([{ line: mostLines + 2, column: '', reason: `a schedule has at most ${mostLines} lines` }])
  return data.map((row, i) => ({
    line: i + 2,
    row: Object.fromEntries(columns.map((c: C[number]) => [c, asMeant(row[has.indexOf(c)])])) as Row<C>,
  }))
}

/** Problems of a Zod error at one line, its paths told as columns. */
const told = (line: number, error: z.ZodError, columns: Record<string, string>): RowProblem[] =>
  error.issues.map((issue) => {
    const field = String(issue.path[0] ?? '')
    return { line, column: columns[field] ?? field, reason: issue.message }
  })

const number = (text: string): number | undefined => (text.trim() === '' ? undefined : Number(text))

/**
 * The command that puts in the cables of a conductor schedule in the place of all there are. Throws {@link ScheduleError} with
 * every line and column that is wrong; nothing has then been changed.
 */
export function conductorsFromCsv(installation: Installation, text: string): Command {
  const problems: RowProblem[] = []
  const cables = new Map<string, { cable: Omit<Cable, 'cores'>; cores: Core[] }>()
  const lineOf = new Map<string, number>()
  for (const { line, row } of linesOf(text, conductorColumns)) {
    const say = (column: string, reason: string) => problems.push({ line, column, reason })
    const ends = (['end_1', 'end_2'] as const).map((column) => {
      const end = readEnd(row[column], row[`${column}_known`].trim())
      if (typeof end === 'string') say(column, end)
      return end
    })
    if (!['yes', 'no'].includes(row.rated_for_mains)) say('rated_for_mains', 'write yes or no')
    if (ends.some((e) => typeof e === 'string')) continue
    const core = coreSchema.safeParse({
      id: row.core,
      colour: row.colour,
      ...(row.sleeve && { sleeve: row.sleeve }),
      areaMm2: number(row.area_mm2),
      ends,
    })
    if (!core.success) problems.push(...told(line, core.error, { id: 'core', areaMm2: 'area_mm2' }))
    const cable = cableSchema.omit({ cores: true }).safeParse({
      id: row.cable,
      label: row.label,
      ...(row.lead_of && { leadOf: row.lead_of }),
      ...(row.length_m && { lengthM: number(row.length_m) }),
      ...(row.pf_per_m && { picofaradsPerM: number(row.pf_per_m) }),
      ratedForMains: row.rated_for_mains === 'yes',
    })
    const columns = { id: 'cable', leadOf: 'lead_of', lengthM: 'length_m', picofaradsPerM: 'pf_per_m' }
    if (!cable.success) problems.push(...told(line, cable.error, columns))
    if (!core.success || !cable.success) continue
    const known = cables.get(row.cable)
    if (!known) cables.set(row.cable, { cable: cable.data, cores: [core.data] })
    else if (JSON.stringify(known.cable) !== JSON.stringify(cable.data))
      say('label', `this line says something else of cable "${row.cable}" than the first one does`)
    else known.cores.push(core.data)
    lineOf.set(`${row.cable}.${row.core}`, line)
  }
  if (problems.length > 0) throw new ScheduleError(problems)
  const changes: Change[] = [
    ...installation.cables.map((c): Change => ({ do: 'drop', in: 'cables', id: c.id })),
    ...[...cables.values()].map(({ cable, cores }): Change => ({
      do: 'put',
      in: 'cables',
      value: { ...cable, cores },
    })),
  ]
  const all = [...cables.values()]
  return fitting(installation, { label: 'Conductors from a schedule', changes }, (field) => {
    const [, c, , k, what, e] = field.split('.')
    const of = all[Number(c)]
    if (!of) return undefined
    const core = of.cores[Number(k)]
    const line = core ? lineOf.get(`${of.cable.id}.${core.id}`) : lineOf.get(`${of.cable.id}.${of.cores[0].id}`)
    const column =
      what === 'ends' ? `end_${Number(e) + 1}` : core ? 'core' : field.endsWith('leadOf') ? 'lead_of' : 'cable'
    return line === undefined ? undefined : { line, column }
  })
}

/** The command that puts in the terminals and links of a schedule in the place of all there are. As {@link conductorsFromCsv}. */
export function terminalsFromCsv(installation: Installation, text: string): Command {
  const problems: RowProblem[] = []
  const centres = new Map<string, WiringCentre>()
  const links: { link: Link; line: number }[] = []
  const devices = new Set(installation.devices.map((d) => d.id))
  for (const { line, row } of linesOf(text, terminalColumns)) {
    const say = (column: string, reason: string) => problems.push({ line, column, reason })
    for (const part of row.links
      .split(';')
      .map((p) => p.trim())
      .filter(Boolean)) {
      const [id, kind, to, known] = part.split(/\s+/)
      const provenance = provenanceSchema.safeParse(known)
      const link = linkSchema.safeParse({
        id,
        kind,
        between: [`${row.owner}.${row.terminal}`, to],
        ...(known && { provenance: provenance.data ?? known }),
      })
      if (link.success) links.push({ link: link.data, line })
      else say('links', `"${part}" is no link: write its id, fitted, factory or cut, and the other terminal`)
    }
    if (devices.has(row.owner)) continue
    const centre = wiringCentreSchema.safeParse({
      id: row.owner,
      name: row.name,
      place: row.place,
      terminals: [{ id: row.terminal, legend: row.legend, ways: number(row.ways) }],
    })
    if (!centre.success) {
      for (const issue of centre.error.issues)
        say(
          issue.path[0] === 'terminals'
            ? ({ id: 'terminal' }[String(issue.path[2])] ?? String(issue.path[2]))
            : issue.path[0] === 'id'
              ? 'owner'
              : String(issue.path[0]),
          issue.message,
        )
      continue
    }
    const known = centres.get(row.owner)
    if (!known) centres.set(row.owner, centre.data)
    else if (known.name !== row.name || known.place !== row.place)
      say('name', `this line says something else of "${row.owner}" than the first one does`)
    else known.terminals.push(...centre.data.terminals)
  }
  if (problems.length > 0) throw new ScheduleError(problems)
  const changes: Change[] = [
    ...installation.links.map((l): Change => ({ do: 'drop', in: 'links', id: l.id })),
    ...installation.wiringCentres.map((c): Change => ({ do: 'drop', in: 'wiringCentres', id: c.id })),
    ...[...centres.values()].map((value): Change => ({ do: 'put', in: 'wiringCentres', value })),
    ...links.map(({ link }): Change => ({ do: 'put', in: 'links', value: link })),
  ]
  return fitting(installation, { label: 'Terminals and links from a schedule', changes }, (field) => {
    const [list, i] = field.split('.')
    if (list === 'links') return { line: links[Number(i)]?.line ?? 1, column: 'links' }
    return list === 'wiringCentres' ? { line: 1, column: 'place' } : undefined
  })
}

/** A command whose outcome makes sense as a whole; else what does not, at the line it came from. */
function fitting(
  installation: Installation,
  command: Command,
  place: (field: string) => { line: number; column: string } | undefined,
): Command {
  let after: Installation
  try {
    after = edited(installation, command).doc
  } catch (error) {
    if (error instanceof EditError) throw new ScheduleError([{ line: 1, column: '', reason: error.message }])
    throw error
  }
  const problems = referenceProblems(after, typeDirectory)
  if (problems.length > 0)
    throw new ScheduleError(
      problems.map(({ field, reason }) => ({ ...(place(field) ?? { line: 1, column: '' }), reason })),
    )
  return command
}
