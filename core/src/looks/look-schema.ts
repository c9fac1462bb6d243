import { z } from 'zod'
import { idSchema, terminalRefSchema } from '../installation'
import { instruments } from '../instruments'

const ofThing = <At extends string>(at: At) => z.strictObject({ at: z.literal(at), thing: idSchema })
const ofDevice = <At extends string>(at: At) => z.strictObject({ at: z.literal(at), device: idSchema })

/** A look as it is written down. Clicks are those heard since the last act. */
export const lookSchema = z.discriminatedUnion('at', [
  z.strictObject({
    at: z.literal('points'),
    with: z.enum(instruments),
    red: terminalRefSchema,
    black: terminalRefSchema.optional(),
  }),
  ofDevice('valve'),
  ofDevice('lever'),
  ofDevice('motor'),
  ofDevice('clicks'),
  ofDevice('pump'),
  ofDevice('boiler'),
  ofDevice('display'),
  ofDevice('lamps'),
  ofDevice('clock'),
  ofDevice('flow-temperature'),
  z.strictObject({ at: z.literal('pipe'), connection: terminalRefSchema }),
  ofDevice('warmth'),
  ofDevice('fuse'),
  ofDevice('trip'),
  ofDevice('spindle'),
  ofThing('eyes'),
  ofThing('wiring'),
])
export type WrittenLook = z.infer<typeof lookSchema>

/**
 * What was found: a word, of wiring that lies otherwise with the terminals and set-up choices where it does; or a number with its unit,
 * null where the instrument showed more than it can.
 */
export const foundSchema = z.union([
  z.strictObject({
    word: z.string().min(1).max(40),
    at: z.array(terminalRefSchema).min(1).max(60).optional(),
  }),
  z.strictObject({ value: z.number().min(-1e4).max(1e4), unit: z.literal('V') }),
  z.strictObject({ value: z.number().min(0).max(1e9).nullable(), unit: z.enum(['Ω', 'MΩ', 'W', '°C']) }),
])
export type Found = z.infer<typeof foundSchema>
