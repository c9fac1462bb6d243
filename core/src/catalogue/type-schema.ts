import { z } from 'zod'
import { printable, printableLines } from '../installation'
import { amountSchema, conditionSchema, figureSchema, partKinds, type Field } from './parts'
import { families, type DeviceType, type Family, type Primitive } from './primitives'

/** The format a device type travels in. */
export const typeFormat = 'nobbet-device-type'

const id = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9+-]{0,39}$/, 'an id is 1 to 40 letters, digits, "+" or "-"')
const line = (what: string, most = 120) => printable(z.string().trim().min(1, `${what} is needed`).max(most))
const finite = figureSchema
const valueId = z.string().max(40)

function fieldSchema({ is }: Field): z.ZodType {
  if (typeof is === 'object') {
    if ('built' in is) return is.built
    if ('part' in is) return is.optional ? id.optional() : id
    if ('control' in is) return id
    const choice = z.enum(is.oneOf as [string, ...string[]])
    return is.optional ? choice.optional() : choice
  }
  switch (is) {
    case 'terminal':
    case 'connection':
      return id
    case 'amount':
      return amountSchema
    case 'optional-amount':
      return amountSchema.optional()
    case 'fraction':
      return z.number().min(0).max(1)
    case 'condition':
      return conditionSchema
    case 'optional-condition':
      return conditionSchema.optional()
    case 'flag':
      return z.boolean().optional()
  }
}

const kinds = Object.keys(partKinds) as [Primitive['kind'], ...Primitive['kind'][]]

const partSchemas = kinds.map((kind) => {
  const { fields, fails } = partKinds[kind]
  const failure = z
    .object({
      id,
      mode: fails.length > 0 ? z.enum(fails as [string, ...string[]]) : z.never('a part of this kind cannot fail'),
      label: line('what has failed, in words,'),
      prior: finite.positive().max(100),
      remedy: line('a remedy', 240),
    })
    .strict()
  return z
    .object({
      kind: z.literal(kind),
      id,
      label: line('a name'),
      failures: z.array(failure).max(12).optional(),
      ...Object.fromEntries(fields.map((field) => [field.id, fieldSchema(field)])),
    })
    .strict()
})

const programme = z
  .array(
    z
      .object({
        day: z.number().int().min(0).max(6),
        minute: z.number().int().min(0).max(1439),
        value: z.union([valueId, finite]),
      })
      .strict(),
  )
  .max(140)
const timed = z
  .object({
    usual: programme,
    turns: z.literal(true).optional(),
    leaves: z.array(valueId).max(12).optional(),
    while: z
      .object({ control: id, is: z.array(valueId).min(1).max(12) })
      .strict()
      .optional(),
  })
  .strict()

const controlSchema = z.discriminatedUnion('kind', [
  z
    .object({
      kind: z.literal('choice'),
      id,
      label: line('a name', 60),
      values: z
        .array(z.object({ id, label: line('a name', 60), seldom: z.literal(true).optional() }).strict())
        .min(2, 'a switch has at least two positions')
        .max(12),
      initial: valueId,
      ambient: z.boolean().optional(),
      timed: timed.optional(),
      returns: z
        .object({ from: valueId, minutes: finite.positive().max(10_080), to: valueId })
        .strict()
        .optional(),
    })
    .strict(),
  z
    .object({
      kind: z.literal('number'),
      id,
      label: line('a name', 60),
      unit: line('a unit', 20),
      min: finite,
      max: finite,
      step: finite.positive(),
      initial: finite,
      ambient: z.boolean().optional(),
      feels: z.enum(['room', 'outdoors', 'cylinder', 'water', 'return', 'emitter']).optional(),
      timed: timed.optional(),
    })
    .strict(),
])

/** A device type as it comes from outside: made in Kit, in a file, or in an installation that was made elsewhere. */
export const deviceTypeSchema = z
  .object({
    format: z.literal(typeFormat).optional(),
    id,
    version: z.number().int().positive().max(100_000),
    name: line('a name'),
    family: z.enum(Object.keys(families) as [Family, ...Family[]]),
    about: printableLines(z.string().trim().max(1200)).default(''),
    stands: printable(z.string().trim().max(240)).default(''),
    terminals: z
      .array(
        z
          .object({
            id,
            legend: line('a legend', 60),
            role: z.enum(['permanent-live', 'neutral', 'earth', 'contact-feed', 'output', 'input']),
            lead: z.enum(['brown', 'blue', 'green-yellow', 'grey', 'orange', 'white', 'red', 'yellow']).optional(),
            extraLow: z.boolean().optional(),
            internal: z.boolean().optional(),
            bare: z.boolean().optional(),
          })
          .strict(),
      )
      .max(40),
    controls: z.array(controlSchema).max(24),
    settings: z
      .array(
        z
          .object({
            id,
            label: line('a name', 120),
            unit: line('a unit', 40),
            min: finite,
            max: finite,
            default: finite,
            origin: line('where the figure comes from', 160),
            choices: z
              .array(z.object({ value: finite, label: line('a name', 80) }).strict())
              .max(12)
              .optional(),
            mayBe: z
              .object({ value: finite, label: line('a name', 120) })
              .strict()
              .optional(),
          })
          .strict(),
      )
      .max(40),
    primitives: z
      .array(z.discriminatedUnion('kind', partSchemas as never))
      .min(1, 'a device has at least one part')
      .max(60),
    inputs: z.array(z.object({ id, terminal: id, load: id }).strict()).max(8),
  })
  .strict()

/** The published schema of a device type: docs/formats/device-type.schema.json. */
export const deviceTypeJsonSchema = () => ({
  title: 'Nobbet device type',
  ...z.toJSONSchema(deviceTypeSchema, { io: 'input', unrepresentable: 'any' }),
})

/** What has been read by {@link deviceTypeSchema} and found whole is a device type. */
export const asDeviceType = (parsed: Record<string, unknown>): DeviceType => {
  const type = { ...parsed }
  delete type.format
  return type as unknown as DeviceType
}
