import fc from 'fast-check'
import type { z } from 'zod'

/** The inside of a schema, as far as it is needed here. */
interface Def {
  type: string
  shape?: Record<string, z.ZodType>
  element?: z.ZodType
  innerType?: z.ZodType
  options?: z.ZodType[]
  items?: z.ZodType[]
  valueType?: z.ZodType
  entries?: Record<string, string>
  values?: unknown[]
  in?: z.ZodType
  getter?: () => z.ZodType
}
const defOf = (schema: z.ZodType): Def => (schema as unknown as { _zod: { def: Def } })._zod.def

/** Values of the shape that a schema wants; whether it takes them, with all its bounds and patterns, is its own affair. */
export function shaped(schema: z.ZodType, depth = 0): fc.Arbitrary<unknown> {
  // The same schema stands in many places, and conditions stand within conditions.
  const known = made.get(schema) ?? new Map<number, fc.Arbitrary<unknown>>()
  made.set(schema, known)
  let values = known.get(depth)
  if (!values) known.set(depth, (values = valuesOf(schema, depth)))
  return values
}
const made = new WeakMap<z.ZodType, Map<number, fc.Arbitrary<unknown>>>()

function valuesOf(schema: z.ZodType, depth: number): fc.Arbitrary<unknown> {
  const def = defOf(schema)
  const inner = (s: z.ZodType) => shaped(s, depth + 1)
  if (depth > 8) return fc.constant(null)
  switch (def.type) {
    case 'object':
      return fc.record(Object.fromEntries(Object.entries(def.shape!).map(([key, field]) => [key, inner(field)])), {
        requiredKeys: Object.keys(def.shape!).filter((key) => defOf(def.shape![key]).type !== 'optional'),
      })
    case 'array':
      return fc.array(inner(def.element!), { maxLength: 3 })
    case 'tuple':
      return fc.tuple(...def.items!.map(inner))
    case 'record':
      return fc.dictionary(fc.stringMatching(/^[a-z]{1,6}$/), inner(def.valueType!), { maxKeys: 3 })
    case 'union':
      return fc.oneof(...def.options!.map(inner))
    case 'enum':
      return fc.constantFrom(...Object.values(def.entries!))
    case 'literal':
      return fc.constantFrom(...def.values!)
    case 'number':
      return fc.oneof(fc.integer({ min: 0, max: 1500 }), fc.double({ noNaN: true }))
    case 'boolean':
      return fc.boolean()
    case 'string':
      return fc.oneof(
        fc.stringMatching(/^[a-z][a-z0-9-]{5,12}$/),
        fc.stringMatching(/^[a-z]{2,5}\.[0-9]{1,2}$/),
        fc.constant('2026-11-26T09:00:00.000Z'),
        fc.string({ unit: 'binary', maxLength: 20 }),
      )
    case 'optional':
    case 'default':
    case 'prefault':
    case 'readonly':
      return inner(def.innerType!)
    case 'nullable':
      return fc.option(inner(def.innerType!))
    case 'lazy':
      return inner(def.getter!())
    case 'pipe':
      return inner(def.in!)
    default:
      return fc.jsonValue({ maxDepth: 2 })
  }
}
