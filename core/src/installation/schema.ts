import { z } from 'zod'
import { printable } from './printable'
import './said'

/**
 * The installation document, `nobbet-installation` version 1: what is fitted, how it is wired and what it is for.
 * It holds facts that stay until somebody alters the installation. What changes by itself (damage, blown fuses,
 * latches, temperatures, positions) belongs to the simulation's state and never stands here.
 */

/** Letters, digits and hyphens: ids stand in addresses such as `wc.7` and on command lines, so no dots or spaces. */
export const idSchema = z
  .string()
  .regex(
    /^[A-Za-z0-9][A-Za-z0-9+-]{0,39}$/,
    'an id is 1 to 40 letters, digits, "+" or "-", starting with a letter or digit',
  )

/** A terminal's address: `owner.terminal`, the owner being a device, a wiring centre or a connector. */
export const terminalRefSchema = z
  .string()
  .regex(/^[A-Za-z0-9+-]+\.[A-Za-z0-9+-]+$/, 'a terminal is written owner.terminal, for example wc.7')
export type TerminalRef = z.infer<typeof terminalRefSchema>

/** How a fact came to be in the document. The absence of a mark means the document's own `provenance`. */
export const provenanceSchema = z.enum(['assumed', 'planned', 'seen', 'tested'])
export type Provenance = z.infer<typeof provenanceSchema>

export const colourSchema = z.enum([
  'brown',
  'blue',
  'green-yellow',
  'black',
  'grey',
  'red',
  'yellow',
  'green',
  'white',
  'orange',
  'bare',
])
export type Colour = z.infer<typeof colourSchema>

const name = printable(z.string().trim().min(1, 'a name is needed').max(120))
const provenance = provenanceSchema.optional()

/** Where one end of a conductor is. `unknown` is a fact too: nobody has looked yet. */
export const endSchema = z.discriminatedUnion('at', [
  z.object({ at: z.literal('terminal'), terminal: terminalRefSchema, provenance }),
  z.object({ at: z.literal('connector'), connector: idSchema, provenance }),
  z.object({ at: z.literal('parked'), terminal: terminalRefSchema, provenance }),
  z.object({ at: z.literal('cut-back'), provenance }),
  z.object({ at: z.literal('loose'), provenance }),
  z.object({ at: z.literal('unknown'), provenance }),
])
export type End = z.infer<typeof endSchema>

/** A conductor. Its id is its own and says nothing of its colour: a cable may hold two browns. */
export const coreSchema = z.object({
  id: idSchema,
  colour: colourSchema,
  /** A sleeve or flag of another colour, worn where the conductor is used against its own colour. */
  sleeve: colourSchema.optional(),
  /** Cross-section in mm²; bell wire has 0.05 and more. */
  areaMm2: z.number().min(0.05).max(10).default(0.75),
  ends: z.tuple([endSchema, endSchema]),
})
export type Core = z.infer<typeof coreSchema>

export const cableSchema = z.object({
  id: idSchema,
  label: name,
  /** Length in metres, from a hand's breadth; left out where nobody knows. */
  lengthM: z.number().min(0.05).max(500).optional(),
  /** Capacitance between any two of its cores, pF per metre; left out where the usual value serves. */
  picofaradsPerM: z.number().min(0).max(1000).optional(),
  /** Whether its insulation may lie beside mains; extra-low voltage wants that where both share a way. */
  ratedForMains: z.boolean().default(true),
  /** Set where the cable is a device's own fixed lead: what its conductors do is known when nothing else is. */
  leadOf: idSchema.optional(),
  cores: z.array(coreSchema).min(1).max(24),
})
export type Cable = z.infer<typeof cableSchema>

/** What a room loses and holds, for the model of heat. */
export const roomSchema = z.object({
  /** Watts lost per kelvin between inside and outdoors; an airing cupboard loses one or two. */
  lossWPerK: z.number().min(0.1).max(5000),
  /** Heat held by its air, furniture and inner surfaces, Wh/K. */
  capacityWhPerK: z.number().min(0.1).max(100_000),
  /** Watts from people, light and appliances, day and night. */
  gainsW: z.number().min(0).max(5000).default(0),
})
export type Room = z.infer<typeof roomSchema>

/** Storeys above the ground floor; below it, less than nought. */
export const floorSchema = z.number().int().min(-5, 'a floor is -5 to 60').max(60, 'a floor is -5 to 60')
/** Minutes it takes to get to a place beside what any other takes: an outbuilding, a locked plant room. */
export const apartSchema = z.number().min(0, 'minutes are 0 to 120').max(120, 'minutes are 0 to 120')
export const placeSchema = z.object({
  id: idSchema,
  name,
  floor: floorSchema.optional(),
  apartMin: apartSchema.optional(),
  room: roomSchema.optional(),
})
export type Place = z.infer<typeof placeSchema>

export const settingValueSchema = z.union([z.number().min(-1e6).max(1e6), z.boolean(), printable(z.string().max(60))])
/** Fields of a device by the id of what they set: no type has more than this many. */
const byId = <T extends z.ZodType>(value: T) =>
  z.record(idSchema, value).refine((fields) => Object.keys(fields).length <= 60, 'at most 60 fields')

/** A week that repeats: from each step on, that value. */
export const programmeSchema = z
  .array(
    z.object({
      /** 0 Monday to 6 Sunday. */
      day: z.number().int().min(0).max(6),
      /** Minutes after midnight. */
      minute: z.number().int().min(0).max(1439),
      value: z.union([printable(z.string().max(40)), z.number().min(-1e6).max(1e6)]),
    }),
  )
  .max(140)

export const deviceSchema = z.object({
  id: idSchema,
  name,
  type: idSchema,
  place: idSchema,
  settings: byId(settingValueSchema).default({}),
  /** What is printed beside a terminal, by its id, where it differs from the catalogue's legend. */
  legends: byId(printable(z.string().trim().min(1).max(60))).optional(),
  /** Where its knobs stand to begin with, by the control; left out, where the type has them. */
  positions: byId(settingValueSchema).optional(),
  /** What its clock has been given, by the control it works; left out, what the type comes with. */
  programme: byId(programmeSchema).optional(),
  provenance,
})
export type Device = z.infer<typeof deviceSchema>

export const wiringCentreTerminalSchema = z.object({
  id: idSchema,
  /** What the engineer reads beside the terminal, for example "Heating ON". */
  legend: printable(z.string().max(60)),
  /** How many conductors it takes. */
  ways: z.number().int().min(1).max(8).default(2),
})
export type WiringCentreTerminal = z.infer<typeof wiringCentreTerminalSchema>

export const wiringCentreSchema = z.object({
  id: idSchema,
  name,
  place: idSchema,
  terminals: z.array(wiringCentreTerminalSchema).min(1).max(240),
})
export type WiringCentre = z.infer<typeof wiringCentreSchema>

/** A link between two terminals of one owner: fitted by hand, by the factory, or a factory link that has been cut. */
export const linkSchema = z.object({
  id: idSchema,
  kind: z.enum(['fitted', 'factory', 'cut']),
  between: z.tuple([terminalRefSchema, terminalRefSchema]),
  provenance,
})
export type Link = z.infer<typeof linkSchema>

/** A connector of its own: a joint made outside every device and wiring centre. */
export const connectorSchema = z.object({ id: idSchema, name, place: idSchema, ways: z.number().int().min(2).max(12) })

/** A pipe between two connections: of a device (`device.flow`) or of a tee (`tee.in`, `tee.out`, `tee.branch`). */
export const pipeSchema = z.object({ id: idSchema, from: terminalRefSchema, to: terminalRefSchema })
export const teeSchema = z.object({ id: idSchema, place: idSchema })

const contactRefSchema = z.object({ device: idSchema, contact: idSchema })
export type ContactRef = z.infer<typeof contactRefSchema>

/** What a demand is for and what it must bring about. Every verdict is judged by this, never by guesswork. */
export const demandSchema = z.object({
  id: idSchema,
  name,
  kind: z.enum(['heating', 'hot-water']),
  /** The programmer contact that allows it; null where nothing times it but its own thermostat. */
  channel: contactRefSchema.nullable(),
  /** The thermostat contact that asks for it; null where it is timed only, or its thermostat comes later. */
  thermostat: contactRefSchema.nullable(),
  /**
   * The valves that open its circuit, and at which port of a three-port one; none where nothing shuts it. The pumps and fans
   * that have to run for it, besides what the boiler runs itself. And what it warms.
   */
  circuit: z.object({
    valves: z.array(z.object({ device: idSchema, port: idSchema.optional() })).max(6),
    runs: z.array(idSchema).max(6).optional(),
    /** What it warms: radiators, a cylinder. */
    emitters: z.array(idSchema).max(12).optional(),
  }),
  /** The boiler input it must end at. */
  call: z.object({ boiler: idSchema, input: idSchema }),
  /** Demands whose circuits may open with this one without a demand of their own. */
  companions: z.array(idSchema).default([]),
  /** Lower runs first where the scheme cannot serve all at once. */
  priority: z.number().int().min(0).max(9).default(0),
})
export type Demand = z.infer<typeof demandSchema>

/** A finding that somebody has looked at and lets stand, and why. */
export const waiverSchema = z.object({
  /** What names the finding: its rule, and what it is about. */
  id: printable(z.string().min(1).max(300)),
  reason: printable(z.string().trim().min(3, 'write why it may stand').max(500)),
})
export type Waiver = z.infer<typeof waiverSchema>

export const installationSchema = z.object({
  format: z.literal('nobbet-installation'),
  version: z.literal(1),
  id: idSchema,
  name,
  /** The scheme in the trade's words; for people, never for the model. */
  scheme: printable(z.string().max(80)).default(''),
  supply: z.object({
    /** Volts line to neutral, r.m.s.: every public supply lies well within, and a mains of a few volts is a slip of the pen. */
    volts: z.number().min(50).max(400),
    /** Hertz. */
    frequency: z.union([z.literal(50), z.literal(60)]),
  }),
  provenance: provenanceSchema,
  /** The device types it was made with, so that a file means the same elsewhere. */
  types: z
    .array(
      z.object({
        id: idSchema,
        version: z.number().int().positive(),
        /** The whole type, where it is not one that ships: the installation keeps the one it was made with. */
        definition: z.record(z.string(), z.unknown()).optional(),
      }),
    )
    .max(120),
  places: z.array(placeSchema).min(1).max(60),
  devices: z.array(deviceSchema).max(200),
  wiringCentres: z.array(wiringCentreSchema).max(12),
  connectors: z.array(connectorSchema).max(60).default([]),
  cables: z.array(cableSchema).max(200),
  links: z.array(linkSchema).max(400),
  pipes: z.array(pipeSchema).max(200).default([]),
  tees: z.array(teeSchema).max(60).default([]),
  intent: z.object({ demands: z.array(demandSchema).max(40) }),
  waivers: z.array(waiverSchema).max(200).optional(),
})
export type Installation = z.infer<typeof installationSchema>
