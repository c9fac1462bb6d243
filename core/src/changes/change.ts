import { z } from 'zod'

const segment = z
  .string()
  .max(300)
  .refine((key) => key !== '__proto__', 'is no name of a field')

/** The way to a thing in a document: fields by name, entries of a list by id, values of a tuple by place. */
export const pathSchema = z.array(segment).min(1).max(10)
export type Path = z.infer<typeof pathSchema>

const entry = z.looseObject({ id: z.string().min(1).max(300) })
/** Id of the entry before it; null at the head of the list. */
const after = z.string().max(300).nullable()

/** One change of one thing, with what stood before it: enough to take it back, and to see whether somebody else was there. */
export const fieldChangeSchema = z.discriminatedUnion('do', [
  /** Another value; one that is left out was not there, or is no more. */
  z.strictObject({ do: z.literal('set'), path: pathSchema, was: z.unknown().optional(), now: z.unknown().optional() }),
  /** An entry more in the list at this path. */
  z.strictObject({ do: z.literal('add'), path: pathSchema, value: entry, after }),
  /** An entry out of the list at this path. */
  z.strictObject({ do: z.literal('drop'), path: pathSchema, was: entry, after }),
  /** The entries of the list at this path in another order, by id. */
  z.strictObject({
    do: z.literal('order'),
    path: pathSchema,
    was: z.array(z.string()).max(1000),
    now: z.array(z.string()).max(1000),
  }),
])
export type FieldChange = z.infer<typeof fieldChangeSchema>
export type ListChange = Extract<FieldChange, { do: 'add' | 'drop' }>

/** What takes changes back, in the order in which it has to be done. */
export const inverted = (changes: readonly FieldChange[]): FieldChange[] => [...changes].reverse().map(inverse)

function inverse(change: FieldChange): FieldChange {
  switch (change.do) {
    case 'add':
      return { do: 'drop', path: change.path, was: change.value, after: change.after }
    case 'drop':
      return { do: 'add', path: change.path, value: change.was, after: change.after }
    default:
      return { ...change, was: change.now, now: change.was } as FieldChange
  }
}

/** The thing a change is about. */
export function thingOf(change: FieldChange): Path {
  if (change.do === 'add') return [...change.path, change.value.id]
  if (change.do === 'drop') return [...change.path, change.was.id]
  return change.path
}
