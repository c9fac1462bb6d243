import { planBriefSchema } from '@nobbet/core'
import { z } from 'zod'
import { clientIdSchema, line, lineIfAny, lines, stamp, textLine } from './basics'
import { deferredRows, isRunDeed, keptRunSchema, runDeeds, runsAfter, runTexts, type KeptRun } from './run-record'
import { isSurveyDeed, noSurvey, surveyAfter, surveyDeeds, surveyRecordSchema, surveyTexts } from './survey-record'

/** Somebody's coming to a job, from when they begin until they leave. */
export const visitSchema = z.strictObject({
  id: clientIdSchema,
  who: textLine(120),
  why: textLine(300),
  at: stamp,
})
export type VisitWrite = z.infer<typeof visitSchema>

/** What has become of a visit since it began. */
export const keptVisitSchema = visitSchema.extend({
  /** The isolation step was acknowledged then. */
  isolated: stamp.optional(),
  ended: stamp.optional(),
  /** Signed by the customer on the screen: their name, and their strokes, each as x and y by turns, of 1000 across. */
  signed: z
    .strictObject({
      name: line('who signs'),
      strokes: z
        .array(z.array(z.number().min(-2000).max(4000)).max(4000))
        .min(1, 'nothing is signed yet')
        .max(100),
      at: stamp,
    })
    .optional(),
})
export type Visit = z.infer<typeof keptVisitSchema>
export const signatureSchema = keptVisitSchema.shape.signed.unwrap()

/** Something that a test or an alteration has disturbed, and that has to go back. */
export const disturbedSchema = z.strictObject({ id: z.string().min(1).max(200), what: line('what was disturbed', 300) })
export const keptDisturbedSchema = disturbedSchema.extend({
  at: stamp,
  visit: z.string().max(64),
  /** By hand; or by what was done to the wiring, and then gone by itself once that is undone. */
  by: z.enum(['hand', 'wiring']),
  /** Of what was done to the wiring: the terminal a conductor was on, or both of a link. */
  was: z.array(z.string()).max(2).optional(),
  /** Put back, or meant to stay so. */
  settled: z.strictObject({ how: z.enum(['back', 'stays']), at: stamp }).optional(),
})
export type Disturbed = z.infer<typeof keptDisturbedSchema>

/** Something left otherwise than it should stay: what it may not do, and the day on which it ends. */
export const measureSchema = z.strictObject({
  id: z.string().min(6).max(40),
  what: line('what was left', 300),
  why: lineIfAny(300),
  limits: textLine(300),
  /** What may happen meanwhile. */
  risk: lineIfAny(300),
  /** Who was told of it. */
  told: lineIfAny(200),
  /** The last day of it. */
  until: z.iso.date('a date is written year-month-day'),
  /** What it leaves: the act of a hunt that would put it back, or the id of what was disturbed. */
  puts: z.string().min(1).max(200).optional(),
  /** The wiring as left, where it is another one: a revision of the job. */
  revision: clientIdSchema.optional(),
  at: stamp,
})
export type MeasureWrite = z.infer<typeof measureSchema>
export const keptMeasureSchema = measureSchema.extend({ ended: stamp.optional() })
export type Measure = z.infer<typeof keptMeasureSchema>

/** What an engineer writes down of a job, by what it is. */
export const itemKinds = ['found', 'done', 'advised', 'made-safe', 'not-ours'] as const
export const severities = ['danger', 'fault', 'minor', 'remark'] as const

/** A finding or a piece of work, with what speaks for it. */
export const itemSchema = z.strictObject({
  kind: z.enum(itemKinds, { error: 'choose found, done, advised, made safe or not ours' }),
  severity: z.enum(severities, { error: 'choose how grave it is' }),
  text: lines('what is written', 1000),
  /** The part it concerns: a device, cable or terminal by reference. */
  part: z.string().max(200).optional(),
  /** Readings and looks that speak for it, in words. */
  evidence: z.array(line('what speaks for it', 300)).max(60),
  at: stamp,
  visit: z.string().max(64),
})
export type Item = z.infer<typeof itemSchema>

/** A part that was used, or has to be brought. */
export const partSchema = z.strictObject({
  what: line('the part', 200),
  count: z.number({ error: 'how many is a number' }).int().min(1, 'at least one').max(999),
  use: z.enum(['used', 'bring']),
  at: stamp,
  visit: z.string().max(64),
})
export type Part = z.infer<typeof partSchema>

/** Who was told what. */
export const toldSchema = z.strictObject({
  whom: line('who was told'),
  what: lines('what they were told', 1000),
  at: stamp,
  visit: z.string().max(64),
})
export type Told = z.infer<typeof toldSchema>

/** Something that has to be done by a day. */
export const followUpSchema = z.strictObject({
  what: line('what is to be done', 300),
  on: z.iso.date('a date is written year-month-day'),
  at: stamp,
  done: stamp.optional(),
})
export type FollowUp = z.infer<typeof followUpSchema>

/** A change of controls that is planned: what there is to be, and, once its moves are done, the wiring as it was. */
export const controlsChangeSchema = z.strictObject({
  name: line('what it is to be', 300),
  to: planBriefSchema,
  at: stamp,
  /** It is the job's wiring now; what it was is that revision. */
  done: z.strictObject({ revision: clientIdSchema, at: stamp }).optional(),
})
export type PlannedChange = z.infer<typeof controlsChangeSchema>

const named = { id: clientIdSchema }

/** Everything recorded of a job's visits. */
export const siteRecordSchema = z.object({
  visits: z.array(keptVisitSchema).default([]),
  disturbed: z.array(keptDisturbedSchema).default([]),
  measures: z.array(keptMeasureSchema).default([]),
  items: z.array(itemSchema.extend(named)).default([]),
  parts: z.array(partSchema.extend(named)).default([]),
  told: z.array(toldSchema.extend(named)).default([]),
  followUps: z.array(followUpSchema.extend(named)).default([]),
  change: controlsChangeSchema.optional(),
  survey: surveyRecordSchema.optional(),
  /** Commissioning runs, the one begun last behind the others; left out where there was none. */
  runs: z.array(keptRunSchema).optional(),
})
export type SiteRecord = z.infer<typeof siteRecordSchema>
export type Kept<T> = T & { id: string }
export const noRecord: SiteRecord = siteRecordSchema.parse({})

/** At most so many of each kind. */
export const mostKept = 500

const id = clientIdSchema
/** What can be recorded of visits. Of what has an id, a later entry stands in the place of an earlier one; null takes it away. */
export const siteDeeds = [
  z.strictObject({ do: z.literal('visit'), visit: visitSchema }),
  z.strictObject({ do: z.literal('isolated'), visit: id }),
  z.strictObject({ do: z.literal('visit-ends'), visit: id }),
  /** A visit that was ended too early goes on. */
  z.strictObject({ do: z.literal('visit-goes-on'), visit: id }),
  z.strictObject({ do: z.literal('sign'), visit: id, signed: signatureSchema.omit({ at: true }).nullable() }),
  z.strictObject({ do: z.literal('disturb'), disturbed: disturbedSchema }),
  z.strictObject({
    do: z.literal('settle'),
    disturbed: z.string().min(1).max(200),
    how: z.enum(['back', 'stays']).nullable(),
  }),
  z.strictObject({ do: z.literal('measure'), measure: measureSchema }),
  z.strictObject({ do: z.literal('measure-ends'), measure: z.string().min(6).max(40) }),
  z.strictObject({ do: z.literal('item'), id, item: itemSchema.nullable() }),
  z.strictObject({ do: z.literal('part'), id, part: partSchema.nullable() }),
  z.strictObject({ do: z.literal('told'), id, told: toldSchema.nullable() }),
  z.strictObject({ do: z.literal('follow-up'), id, followUp: followUpSchema.nullable() }),
  /** Other controls are to be fitted, these in the place of those meant before; or none after all. */
  z.strictObject({ do: z.literal('change-to'), change: controlsChangeSchema.nullable() }),
  ...surveyDeeds,
  ...runDeeds,
] as const
export type SiteDeed = z.infer<(typeof siteDeeds)[number]>

const deeds: ReadonlySet<string> = new Set(siteDeeds.map((deed) => deed.shape.do.value))
export const isSiteDeed = (entry: { do: string }): entry is SiteDeed => deeds.has(entry.do)

/** The record after a deed more, done at `at` in `visit`. */
export function recordAfter(before: SiteRecord, deed: SiteDeed, at: string, visit: string): SiteRecord {
  const ofVisit = (change: (visit: Visit) => Visit) => ({
    ...before,
    visits: before.visits.map((one) => (one.id === visitOf(deed) ? change(one) : one)),
  })
  if (isSurveyDeed(deed)) return { ...before, survey: surveyAfter(before.survey ?? noSurvey, deed, at) }
  if (isRunDeed(deed)) return { ...before, runs: runsAfter(runsOf(before), deed, at) }
  switch (deed.do) {
    case 'visit': {
      const known = before.visits.find((one) => one.id === deed.visit.id)
      return known
        ? ofVisit((one) => ({ ...one, ...deed.visit }))
        : { ...before, visits: [...before.visits, deed.visit] }
    }
    case 'isolated':
      return ofVisit((one) => ({ ...one, isolated: one.isolated ?? at }))
    case 'change-to':
      return { ...bare(before, 'change'), ...(deed.change && { change: deed.change }) }
    case 'visit-ends':
      return ofVisit((one) => ({ ...one, ended: one.ended ?? at }))
    case 'visit-goes-on':
      return ofVisit((one) => bare(one, 'ended'))
    case 'sign':
      return ofVisit((one) => (deed.signed ? { ...one, signed: { ...deed.signed, at } } : bare(one, 'signed')))
    case 'disturb':
      return {
        ...before,
        disturbed: [...without(before.disturbed, deed.disturbed.id), { ...deed.disturbed, at, visit, by: 'hand' }],
      }
    case 'settle':
      return {
        ...before,
        disturbed: before.disturbed.map(({ settled, ...one }) =>
          one.id !== deed.disturbed
            ? { ...one, ...(settled && { settled }) }
            : { ...one, ...(deed.how && { settled: { how: deed.how, at } }) },
        ),
      }
    case 'measure':
      return { ...before, measures: [...without(before.measures, deed.measure.id), deed.measure] }
    case 'measure-ends':
      return {
        ...before,
        measures: before.measures.map((one) => (one.id === deed.measure ? { ...one, ended: one.ended ?? at } : one)),
      }
    case 'item':
      return { ...before, items: replaced(before.items, deed.id, deed.item) }
    case 'part':
      return { ...before, parts: replaced(before.parts, deed.id, deed.part) }
    case 'told':
      return { ...before, told: replaced(before.told, deed.id, deed.told) }
    case 'follow-up':
      return { ...before, followUps: replaced(before.followUps, deed.id, deed.followUp) }
  }
}

/** A visit without what is no longer the case. */
function bare<T extends object, K extends keyof T>(whole: T, key: K): Omit<T, K> {
  const rest = { ...whole }
  delete rest[key]
  return rest
}

const visitOf = (deed: SiteDeed): string | undefined =>
  'visit' in deed ? (typeof deed.visit === 'string' ? deed.visit : deed.visit.id) : undefined

const without = <T extends { id: string }>(list: readonly T[], of: string): T[] => list.filter((one) => one.id !== of)

/** With what is said anew in the place of what was said before. */
function replaced<T>(list: readonly Kept<T>[], of: string, said: T | null): Kept<T>[] {
  if (!said) return without(list, of)
  const now = { ...said, id: of }
  return list.some((one) => one.id === of) ? list.map((one) => (one.id === of ? now : one)) : [...list, now]
}

export const runsOf = ({ runs }: SiteRecord): KeptRun[] => runs ?? []

/** The visit that is open; of several, the one that began last. */
export const openVisit = ({ visits }: SiteRecord): Visit | undefined => visits.findLast(({ ended }) => !ended)

/** Measures that have not ended. */
export const openMeasures = ({ measures }: SiteRecord): Measure[] => measures.filter(({ ended }) => !ended)

/** What has been disturbed and is neither settled nor left until a day. */
export function unsettled(record: SiteRecord): Disturbed[] {
  const left = new Set(openMeasures(record).flatMap(({ puts }) => puts ?? []))
  return record.disturbed.filter(({ id: of, settled }) => !settled && !left.has(of))
}

/** What there is to be done by a day: the last one, as year-month-day. */
export const dueSchema = z.object({
  id: z.string(),
  kind: z.enum(['measure', 'follow-up', 'step']),
  what: z.string(),
  on: z.iso.date(),
})
export type Due = z.infer<typeof dueSchema>

/** Everything with a day, the nearest first. */
export const duesOf = (record: SiteRecord): Due[] =>
  [
    ...openMeasures(record).map(({ id: of, what, until }): Due => ({ id: of, kind: 'measure', what, on: until })),
    ...record.followUps.flatMap(({ id: of, what, on, done }): Due[] =>
      done ? [] : [{ id: of, kind: 'follow-up', what, on }],
    ),
    ...deferredRows(runsOf(record)).map(({ id: of, title, until = '' }): Due => ({
      id: of,
      kind: 'step',
      what: title,
      on: until,
    })),
  ].sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0))

/** Text that may have to be looked for. */
export const recordTexts = ({
  visits,
  disturbed,
  measures,
  items,
  parts,
  told,
  followUps,
  change,
  survey,
  runs = [],
}: SiteRecord): string[] => [
  ...visits.flatMap(({ who, why }) => [who, why]),
  ...disturbed.map(({ what }) => what),
  ...measures.flatMap(({ what, why, limits, risk, told }) => [what, why ?? '', limits, risk ?? '', told ?? '']),
  ...items.flatMap(({ text: said, evidence }) => [said, ...evidence]),
  ...parts.map(({ what }) => what),
  ...told.flatMap(({ whom, what }) => [whom, what]),
  ...followUps.map(({ what }) => what),
  change?.name ?? '',
  ...(survey ? surveyTexts(survey) : []),
  ...runTexts(runs),
]
