import { z } from 'zod'
import { printable } from './printable'
import {
  cableSchema,
  colourSchema,
  connectorSchema,
  coreSchema,
  demandSchema,
  deviceSchema,
  endSchema,
  idSchema,
  installationSchema,
  linkSchema,
  pipeSchema,
  placeSchema,
  teeSchema,
  waiverSchema,
  wiringCentreSchema,
  type Core,
  type Installation,
} from './schema'

/** The lists of a document whose entries are put in and taken out whole, by their id. */
const lists = {
  devices: deviceSchema,
  wiringCentres: wiringCentreSchema,
  connectors: connectorSchema,
  cables: cableSchema,
  links: linkSchema,
  places: placeSchema,
  pipes: pipeSchema,
  tees: teeSchema,
  types: installationSchema.shape.types.element,
  demands: demandSchema,
  waivers: waiverSchema,
} as const
export type ListName = keyof typeof lists
type Entry<L extends ListName> = z.infer<(typeof lists)[L]>

const at = z.number().int().min(0).max(400).optional()
const put = <L extends ListName>(list: L) =>
  z.object({ do: z.literal('put'), in: z.literal(list), value: lists[list], at })

/** One change of a document. Small, so that changes by two people meet as seldom as can be. */
export const changeSchema = z.union([
  /** One end of a conductor is elsewhere. */
  z.object({
    do: z.literal('end'),
    cable: idSchema,
    core: idSchema,
    end: z.union([z.literal(0), z.literal(1)]),
    to: endSchema,
  }),
  /** What a conductor looks like: colour, sleeve (null takes it off), cross-section. */
  z.object({
    do: z.literal('core'),
    cable: idSchema,
    core: idSchema,
    set: z.object({
      colour: colourSchema.optional(),
      sleeve: colourSchema.nullable().optional(),
      areaMm2: coreSchema.shape.areaMm2.unwrap().optional(),
    }),
  }),
  /** An entry is put in, or in the place of the one with its id; `at` says where a new one stands. */
  put('devices'),
  put('wiringCentres'),
  put('connectors'),
  put('cables'),
  put('links'),
  put('places'),
  put('pipes'),
  put('tees'),
  put('types'),
  put('demands'),
  put('waivers'),
  z.object({
    do: z.literal('drop'),
    in: z.enum(Object.keys(lists) as [ListName, ...ListName[]]),
    id: z.string().max(300),
  }),
  /** What stands over the whole document. */
  z.object({
    do: z.literal('head'),
    set: installationSchema.pick({ name: true, scheme: true, supply: true, provenance: true }).partial(),
  }),
])
export type Change = z.infer<typeof changeSchema>

/** One step of work, done and undone as a whole: what it is called, and its changes in order. */
export const commandSchema = z.object({
  label: printable(z.string().min(1).max(200)),
  changes: z.array(changeSchema).min(1).max(2000),
})
export type Command = z.infer<typeof commandSchema>

/** A change that cannot be made, since what it is about is not there; the message is one line for the user. */
export class EditError extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'EditError'
  }
}

/** Changes that are made together, whatever they are called. */
type Changes = Pick<Command, 'changes'>

/** The document after some changes, and those that take them back exactly, under the same name. Throws {@link EditError}; nothing has then changed. */
export function edited<C extends Changes>(doc: Installation, step: C): { doc: Installation; inverse: C } {
  let now = doc
  const back: Change[] = []
  for (const change of step.changes) {
    const { doc: next, inverse } = changed(now, change)
    now = next
    back.unshift(inverse)
  }
  return { doc: now, inverse: { ...step, changes: back } }
}

/** The document after several steps in order. Throws {@link EditError}. */
export const editedBy = (doc: Installation, steps: readonly Changes[]): Installation =>
  steps.reduce((at, step) => edited(at, step).doc, doc)

function changed(doc: Installation, change: Change): { doc: Installation; inverse: Change } {
  switch (change.do) {
    case 'end': {
      const { cable, core, end } = change
      const { ends } = coreOf(doc, cable, core)
      const to: Core['ends'] = end === 0 ? [change.to, ends[1]] : [ends[0], change.to]
      return { doc: withCore(doc, cable, core, (k) => ({ ...k, ends: to })), inverse: { ...change, to: ends[end] } }
    }
    case 'core': {
      const { cable, core, set } = change
      const before = coreOf(doc, cable, core)
      const { sleeve, ...rest } = set
      const next = withCore(doc, cable, core, (k) => {
        const { sleeve: worn, ...bare } = { ...k, ...rest }
        const keeps = sleeve === undefined ? worn : (sleeve ?? undefined)
        return keeps === undefined ? bare : { ...bare, sleeve: keeps }
      })
      const back: typeof set = {}
      if (set.colour !== undefined) back.colour = before.colour
      if (set.areaMm2 !== undefined) back.areaMm2 = before.areaMm2
      if (set.sleeve !== undefined) back.sleeve = before.sleeve ?? null
      return { doc: next, inverse: { ...change, set: back } }
    }
    case 'put': {
      const list = listOf(doc, change.in)
      const i = list.findIndex((entry) => entry.id === change.value.id)
      const next = [...list]
      if (i >= 0) next[i] = change.value
      else next.splice(change.at ?? next.length, 0, change.value)
      const inverse =
        i >= 0
          ? ({ do: 'put', in: change.in, value: list[i] } as Change)
          : ({ do: 'drop', in: change.in, id: change.value.id } as Change)
      return { doc: withList(doc, change.in, next), inverse }
    }
    case 'drop': {
      const list = listOf(doc, change.in)
      const i = list.findIndex((entry) => entry.id === change.id)
      if (i < 0) throw new EditError(`"${change.id}" is not among the ${listWords[change.in]} any more`)
      const inverse = { do: 'put', in: change.in, value: list[i], at: i } as Change
      return {
        doc: withList(
          doc,
          change.in,
          list.filter((_, k) => k !== i),
        ),
        inverse,
      }
    }
    case 'head': {
      const keys = Object.keys(change.set) as (keyof typeof change.set)[]
      const back = Object.fromEntries(keys.map((key) => [key, doc[key]]))
      return { doc: { ...doc, ...change.set }, inverse: { do: 'head', set: back } }
    }
  }
}

export const listWords: Record<ListName, string> = {
  devices: 'devices',
  wiringCentres: 'wiring centres',
  connectors: 'connectors',
  cables: 'cables',
  links: 'links',
  places: 'places',
  pipes: 'pipes',
  tees: 'tees',
  types: 'device types',
  demands: 'demands',
  waivers: 'waivers',
}

const listOf = (doc: Installation, list: ListName): readonly { id: string }[] =>
  list === 'demands' ? doc.intent.demands : (doc[list] ?? [])

const withList = <L extends ListName>(doc: Installation, list: L, entries: readonly { id: string }[]): Installation =>
  list === 'demands'
    ? { ...doc, intent: { ...doc.intent, demands: entries as Entry<'demands'>[] } }
    : { ...doc, [list]: entries }

function coreOf(doc: Installation, cable: string, core: string): Core {
  const found = doc.cables.find((c) => c.id === cable)
  if (!found) throw new EditError(`there is no cable "${cable}" any more`)
  const one = found.cores.find((k) => k.id === core)
  if (!one) throw new EditError(`"${found.label}" has no conductor "${core}" any more`)
  return one
}

const withCore = (doc: Installation, cable: string, core: string, change: (core: Core) => Core): Installation => ({
  ...doc,
  cables: doc.cables.map((c) =>
    c.id === cable ? { ...c, cores: c.cores.map((k) => (k.id === core ? change(k) : k)) } : c,
  ),
})
