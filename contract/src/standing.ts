import { z } from 'zod'
import { stamp } from './basics'
import type { HuntRecord } from './hunt-record'
import { dueSchema, duesOf, openMeasures, openVisit, unsettled, type Due, type SiteRecord } from './site-record'

/** How far a job is, as far as a list tells it. */
export const standingSchema = z.object({
  /** Looks that a hunt has. */
  findings: z.number().int().min(0).default(0),
  /** What the hunt came to. */
  found: z.string().optional(),
  /** Steps of the order of termination that are done. */
  ticks: z.number().int().min(0).default(0),
  visits: z.number().int().min(0).default(0),
  /** The visit that is open. */
  visit: z.object({ at: stamp, who: z.string() }).optional(),
  /** Things disturbed and not settled. */
  left: z.number().int().min(0).default(0),
  measures: z.number().int().min(0).default(0),
  /** What has to be done first of all that has a day. */
  due: dueSchema.omit({ id: true }).optional(),
})
export type JobStanding = z.infer<typeof standingSchema>

/** How many looks a hunt has, with the findings that were made before hunts had lines. */
export const looksIn = (findings: number, { lines }: HuntRecord): number =>
  findings + lines.filter(({ entry }) => 'see' in entry).length

/** How far a job is, of everything recorded of it. */
export function standingOf(findings: number, hunt: HuntRecord, record: SiteRecord, ticks: number): JobStanding {
  const visit = openVisit(record)
  const [due] = duesOf(record)
  return {
    findings: looksIn(findings, hunt),
    ...(hunt.finding && { found: hunt.finding.causes[0]?.label }),
    ticks,
    visits: record.visits.length,
    ...(visit && { visit: { at: visit.at, who: visit.who } }),
    left: unsettled(record).length,
    measures: openMeasures(record).length,
    ...(due && { due: { kind: due.kind, what: due.what, on: due.on } }),
  }
}

/** What falls due within so many days is told first. */
export const daysAhead = 3

/** The last day, as year-month-day, of what is told first on a day. */
export const soonFrom = (today: Date): string =>
  new Date(today.getTime() + daysAhead * 86_400_000).toISOString().slice(0, 10)

export const isSoon = (due: Pick<Due, 'on'> | undefined, today: Date): boolean =>
  due !== undefined && due.on <= soonFrom(today)
