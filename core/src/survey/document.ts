import { z } from 'zod'
import { colourSchema, idSchema, printable, terminalRefSchema } from '../installation'

/**
 * What somebody saw of wiring that is already there: a document of evidence, beside the installation. It holds what was seen, rung out,
 * read, said and guessed, and by whom. What follows from it is never written in it: it is worked out anew each time.
 */

/** Where a conductor sits in the wiring centre. `unseen`: nobody has looked. A connector of its own is called by a name. */
export const nearEndSchema = z.discriminatedUnion('at', [
  z.object({ at: z.literal('terminal'), terminal: idSchema }),
  z.object({ at: z.literal('parked'), terminal: idSchema }),
  z.object({ at: z.literal('connector'), connector: idSchema }),
  z.object({ at: z.literal('cut-back') }),
  z.object({ at: z.literal('loose') }),
  z.object({ at: z.literal('unseen') }),
])
export type NearEnd = z.infer<typeof nearEndSchema>

export const seenCoreSchema = z.object({
  id: idSchema,
  colour: colourSchema,
  sleeve: colourSchema.optional(),
  at: nearEndSchema,
})
export type SeenCore = z.infer<typeof seenCoreSchema>

const text = (most: number) => printable(z.string().trim().max(most))
const who = text(120).default('')

/** A cable that comes into the wiring centre, with its conductors as they are seen there. */
export const seenCableSchema = z.object({
  id: idSchema,
  /** What it is called until it is known: what is written on it, or a number. */
  label: printable(z.string().trim().min(1, 'a name is needed').max(120)),
  /** The type of device whose own fixed lead it is seen to be. */
  leadOf: idSchema.optional(),
  cores: z.array(seenCoreSchema).min(1, 'a cable has at least one conductor').max(24),
  by: who,
})
export type SeenCable = z.infer<typeof seenCableSchema>

/** Where a conductor is behind a plate: on a terminal, cut back, or in a joint with others, which has a number there. */
const behindPlateSchema = z.discriminatedUnion('at', [
  z.object({ at: z.literal('terminal'), terminal: idSchema }),
  z.object({ at: z.literal('joint'), joint: z.number().int().min(1).max(9) }),
  z.object({ at: z.literal('cut-back') }),
])
export type BehindPlate = z.infer<typeof behindPlateSchema>

/** A cable as it comes out behind a plate: it is not known yet which one it is. */
export const sheathSchema = z.object({
  cores: z
    .array(z.object({ colour: colourSchema, at: behindPlateSchema }))
    .min(1)
    .max(24),
})
export type Sheath = z.infer<typeof sheathSchema>

/** Who or what says where a cable goes, without its having been looked at. */
export const sayings = ['label', 'drawing', 'earlier-visit', 'guess'] as const

const cable = idSchema
const device = idSchema
const note = { id: idSchema, by: who, note: text(500).optional() }

export const surveyFactSchema = z.discriminatedUnion('see', [
  /** The far end of a conductor was seen, the conductor followed or pulled through by hand. */
  z.object({ see: z.literal('far-end'), cable, core: idSchema, to: terminalRefSchema, ...note }),
  /** The cable was followed by eye, all the way. */
  z.object({ see: z.literal('follows'), cable, device, ...note }),
  /** It goes into a wall or floor and was not found again. */
  z.object({ see: z.literal('not-found'), cable, ...note }),
  /** It goes to another box, or ends where nothing of this is. */
  z.object({ see: z.literal('leaves'), cable, ...note }),
  /** Moved at one end, and felt at a device. */
  z.object({ see: z.literal('felt'), cable, device, moved: z.boolean(), ...note }),
  /** Rung out with the supply isolated: open, then joined at the far end, both times as they should read. */
  z.object({
    see: z.literal('rung'),
    cable,
    core: idSchema,
    to: terminalRefSchema,
    joined: z.boolean(),
    ...note,
  }),
  /** A device's plate is off: every cable that comes out behind it. */
  z.object({ see: z.literal('plate'), device, sheaths: z.array(sheathSchema).max(12), ...note }),
  /** Continuity between two devices with the conductors of the wiring centre lifted. */
  z.object({
    see: z.literal('through'),
    between: z.tuple([terminalRefSchema, terminalRefSchema]),
    joined: z.boolean(),
    ...note,
  }),
  z.object({ see: z.literal('said'), cable, device, from: z.enum(sayings), ...note }),
  /** A terminal of the wiring centre with just these demands on. */
  z.object({
    see: z.literal('reads'),
    terminal: idSchema,
    wanted: z.array(idSchema).max(40),
    live: z.boolean(),
    ...note,
  }),
])
export type SurveyFact = z.infer<typeof surveyFactSchema>

export const seenLinkSchema = z.object({ id: idSchema, between: z.tuple([idSchema, idSchema]) })
export type SeenLink = z.infer<typeof seenLinkSchema>

export const seenTerminalSchema = z.object({ id: idSchema, legend: text(60).default('') })
export type SeenTerminal = z.infer<typeof seenTerminalSchema>

export const surveySchema = z.object({
  terminals: z.array(seenTerminalSchema).max(240).default([]),
  links: z.array(seenLinkSchema).max(400).default([]),
  cables: z.array(seenCableSchema).max(200).default([]),
  facts: z.array(surveyFactSchema).max(600).default([]),
  /** Every cable that comes in is written down: only then does one that is not there tell anything. */
  complete: z.boolean().default(false),
})
export type Survey = z.infer<typeof surveySchema>

/** Nothing has been looked at yet. */
export const nothingSeen: Survey = surveySchema.parse({})
