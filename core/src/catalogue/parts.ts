import { z } from 'zod'
import { printable } from '../installation'
import type { FailureMode, Primitive } from './primitives'

/**
 * What every kind of part is made of: from this one table come the schema that a device type from outside is read with, the
 * check that what it names is there, and the form it is edited in.
 */
export type FieldIs =
  | 'terminal'
  | 'amount'
  | 'optional-amount'
  | 'fraction'
  | 'condition'
  | 'optional-condition'
  | 'connection'
  | 'flag'
  /** A part of the same type, of this kind. */
  | { part: Primitive['kind']; optional?: true }
  /** A control of the same type, a number. */
  | { control: 'number' }
  | { oneOf: readonly string[]; optional?: true }
  /** Built of more than one value: read and checked, and edited as JSON. */
  | { built: z.ZodType }

export interface Field {
  id: string
  label: string
  unit?: string
  is: FieldIs
  /** A figure that may be nought; others are above it. */
  zero?: true
}

const idText = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9-]{0,39}$/, 'letters, digits and hyphens, at most 40')
const valueId = z.string().max(40)
const words = printable(z.string().trim().min(1, 'a text is needed').max(160))
/**
 * A figure of a device: nought, or from a million-millionth (a picofarad, in farads) to a million million. What lies beyond is
 * no part of a house, and breaks the arithmetic long before it means anything.
 */
export const figureSchema = z
  .number()
  .min(-1e12)
  .max(1e12)
  .refine((figure) => figure === 0 || Math.abs(figure) >= 1e-12, 'is neither nought nor at least 1e-12')
export const amountSchema = z.union([figureSchema, z.object({ setting: idText }).strict()])

/** A condition within conditions, ten deep at most: deeper ones nobody reads. */
export const conditionSchema: z.ZodType = z.lazy(() =>
  z.union([
    z.object({ control: idText, is: z.array(valueId).min(1).max(12) }).strict(),
    z.object({ sensor: idText }).strict(),
    z.object({ actuator: idText, reached: amountSchema, releasedAt: amountSchema.optional() }).strict(),
    z.object({ energised: idText }).strict(),
    z.object({ works: idText }).strict(),
    z.object({ behaviour: idText, in: z.array(valueId).min(1).max(24) }).strict(),
    z.object({ setting: idText, is: figureSchema }).strict(),
    z.object({ linked: idText }).strict(),
    z.object({ hears: idText, request: z.enum(['heating', 'hot-water']) }).strict(),
    z.object({ flows: idText, from: amountSchema }).strict(),
    z.object({ timed: idText }).strict(),
    z.object({ all: z.array(conditionSchema).min(1).max(12) }).strict(),
    z.object({ any: z.array(conditionSchema).min(1).max(12) }).strict(),
    z.object({ not: conditionSchema }).strict(),
  ]),
)
const throwsSchema = z.object({ control: idText, to: valueId }).strict()

const f = (id: string, label: string, is: FieldIs, unit?: string, zero?: true): Field => ({ id, label, is, unit, zero })
const built = (id: string, label: string, schema: z.ZodType): Field => f(id, label, { built: schema })

/** Kinds of part in the trade's words, the fields of each, and the ways in which it can fail. */
export const partKinds: Record<
  Primitive['kind'],
  { name: string; about: string; fields: Field[]; fails: FailureMode[] }
> = {
  contact: {
    name: 'Contact',
    about: 'Joins two terminals while its condition holds.',
    fields: [
      f('a', 'From', 'terminal'),
      f('b', 'To', 'terminal'),
      f('closedWhen', 'Made while', 'condition'),
      built('laterMs', 'Makes later by', z.number().min(0).max(3_600_000).optional()),
    ],
    fails: ['held-open', 'held-closed', 'makes-sometimes'],
  },
  changeover: {
    name: 'Changeover',
    about: 'One common, joined to one of two terminals.',
    fields: [
      f('common', 'Common', 'terminal'),
      f('no', 'Made while over', 'terminal'),
      f('nc', 'Made at rest', 'terminal'),
      f('operatedWhen', 'Over while', 'condition'),
      built('laterMs', 'Makes later by', z.number().min(0).max(3_600_000).optional()),
    ],
    fails: ['held-released', 'held-operated', 'made-throw-open', 'rest-throw-open', 'feed-open'],
  },
  strap: {
    name: 'Strap',
    about: 'Joins two terminals for good.',
    fields: [f('a', 'From', 'terminal'), f('b', 'To', 'terminal')],
    fails: [],
  },
  load: {
    name: 'Load',
    about: 'Draws current: a motor, coil, board, element or input. It has watts at nominal volts, or ohms.',
    fields: [
      f('from', 'From', 'terminal'),
      f('to', 'To', 'terminal'),
      f('watts', 'Power', 'optional-amount', 'W'),
      f('ohms', 'Resistance, in place of power', 'optional-amount', 'Ω'),
      f('volts', 'Nominal, where not the supply’s', 'optional-amount', 'V'),
      f('powerFactor', 'Power factor', 'optional-amount', ''),
      f('dcPercent', 'Winding: DC share of impedance', 'optional-amount', '%'),
      f('pullsIn', 'Works from', 'optional-amount', '% of volts'),
      f('dropsOut', 'Lets go below', 'optional-amount', '% of volts'),
      f('holdsOn', 'Mean that holds a rotor', 'optional-amount', '% of volts'),
      f('withstands', 'Burns out above', 'optional-amount', 'V'),
      f('ratedMinutes', 'Burns out after', 'optional-amount', 'min', true),
      f('work', 'Work that is noticed', { oneOf: ['runs', 'heats'], optional: true }),
      f('lights', 'A display hangs on it', 'flag'),
    ],
    fails: ['open-circuit', 'jammed', 'held-energised'],
  },
  actuator: {
    name: 'Actuator',
    about: 'Travel that a load drives, against a spring unless another load moves it both ways.',
    fields: [
      f('drivenBy', 'Driven by', { part: 'load' }),
      f('openSeconds', 'Driven end after', 'amount', 's'),
      f('returnSeconds', 'Back after', 'amount', 's'),
      f('movedBy', 'Moved both ways by', { part: 'load', optional: true }),
      f('reversed', 'Sense reversed while 1', 'optional-amount', '', true),
      f('lever', 'Has a lever', 'flag'),
      built(
        'latch',
        'Latch of the lever',
        z.object({ control: idText, latched: valueId, free: valueId, at: amountSchema }).strict().optional(),
      ),
      built(
        'ends',
        'Names of its ends',
        z.object({ shut: words, open: words, part: words.optional() }).strict().optional(),
      ),
    ],
    fails: ['seized-shut', 'seized-open', 'seized-part-way', 'no-return', 'turned'],
  },
  port: {
    name: 'Water port',
    about: 'Lets water by over a part of an actuator’s travel.',
    fields: [
      f('actuator', 'On the travel of', { part: 'actuator' }),
      f('from', 'From connection', 'connection'),
      f('to', 'To connection', 'connection'),
      f('kpa', 'Pressure lost at 1000 l/h', 'amount', 'kPa'),
      f('openFrom', 'Open from', 'fraction', 'of travel'),
      f('openTo', 'Open to', 'fraction', 'of travel'),
    ],
    fails: ['passes'],
  },
  sensor: {
    name: 'Sensor',
    about: 'Asks for heat below its set-point, is satisfied above it.',
    fields: [
      f('reads', 'Reads', { control: 'number' }),
      f('setPoint', 'Set-point', { control: 'number' }),
      f('differential', 'Differential', 'amount', 'K'),
      built('accelerator', 'Accelerator', z.object({ load: idText, differential: amountSchema }).strict().optional()),
      built('throws', 'Throws, as a limit', throwsSchema.optional()),
    ],
    fails: ['never-asks'],
  },
  fuse: {
    name: 'Fuse',
    about: 'Melts by the current through it.',
    fields: [f('a', 'From', 'terminal'), f('b', 'To', 'terminal'), f('amps', 'Rating', 'amount', 'A')],
    fails: ['blown'],
  },
  diode: {
    name: 'Diode and resistor',
    about: 'Passes half-waves from anode to cathode.',
    fields: [
      f('anode', 'Anode', 'terminal'),
      f('cathode', 'Cathode', 'terminal'),
      f('ohms', 'Resistor', 'amount', 'Ω'),
    ],
    fails: ['open-circuit', 'short-circuit'],
  },
  transformer: {
    name: 'Transformer',
    about: 'Feeds two terminals from a load that is its primary.',
    fields: [
      f('primary', 'Primary', { part: 'load' }),
      f('fed', 'Secondary, fed side', 'terminal'),
      f('common', 'Secondary, return', 'terminal'),
      f('volts', 'At full load', 'amount', 'V'),
      f('va', 'Full load', 'amount', 'VA'),
      f('regulation', 'Rise without load', 'amount', '%'),
    ],
    fails: ['open-circuit'],
  },
  insulation: {
    name: 'Insulation',
    about: 'A way for current that is there only once it has failed.',
    fields: [f('a', 'From', 'terminal'), f('b', 'To', 'terminal'), f('ohms', 'Once failed', 'amount', 'Ω')],
    fails: ['short-circuit'],
  },
  suppressor: {
    name: 'Suppressor',
    about: 'A resistor and a capacitor in series.',
    fields: [
      f('a', 'From', 'terminal'),
      f('b', 'To', 'terminal'),
      f('ohms', 'Resistor', 'amount', 'Ω'),
      f('microfarads', 'Capacitor', 'amount', 'µF'),
    ],
    fails: [],
  },
  'residual-trip': {
    name: 'Residual current trip',
    about: 'Throws a control when two contacts carry different currents.',
    fields: [
      built('contacts', 'Line and neutral contact', z.tuple([idText, idText])),
      f('milliamps', 'Rated', 'amount', 'mA'),
      built('throws', 'Throws', throwsSchema),
    ],
    fails: [],
  },
  source: {
    name: 'Supply',
    about: 'Where the mains comes from.',
    fields: [
      f('line', 'Line', 'terminal'),
      f('neutral', 'Neutral', 'terminal'),
      f('earth', 'Earth', 'terminal'),
      f('loopOhms', 'Loop resistance', 'amount', 'Ω'),
    ],
    fails: [],
  },
  bus: {
    name: 'Bus port',
    about: 'One end of a two-wire extra-low-voltage link.',
    fields: [
      f('a', 'Wire', 'terminal'),
      f('b', 'Wire', 'terminal'),
      f('powered', 'Awake by', { part: 'load' }),
      f('heard', 'Hears the boiler by', { part: 'load', optional: true }),
      f('role', 'Role', { oneOf: ['controller', 'boiler'] }),
      built('requests', 'Asks', z.partialRecord(z.enum(['heating', 'hot-water']), conditionSchema).optional()),
      built('flow', 'Control of the flow temperature', idText.optional()),
      f('answerSeconds', 'Answers take', 'optional-amount', 's', true),
    ],
    fails: ['silent'],
  },
  behaviour: {
    name: 'Sequence',
    about: 'A boiler’s own sequence, from call to overrun.',
    fields: [
      f('behaviour', 'Kind', { oneOf: ['boiler-sequence', 'circulator-call'] }),
      built('watches', 'Watches', z.record(valueId, conditionSchema)),
      built('figures', 'Figures', z.record(valueId, amountSchema)),
      built('throws', 'Throws on lockout', throwsSchema.optional()),
      built('words', 'Words of its phases', z.record(valueId, words).optional()),
    ],
    fails: ['locked-out'],
  },
  waterway: {
    name: 'Waterway',
    about: 'A way for water between two connections: open, pumped, one way, or a bypass.',
    fields: [
      f('from', 'From connection', 'connection'),
      f('to', 'To connection', 'connection'),
      f('kpa', 'Pressure lost at 1000 l/h', 'amount', 'kPa'),
      built('pump', 'Pump', z.object({ load: idText, head: amountSchema, most: amountSchema }).strict().optional()),
      f('oneWay', 'One way only', 'flag'),
      f('opensAt', 'Opens by itself from', 'optional-amount', 'kPa', true),
    ],
    fails: [],
  },
  'heat-source': {
    name: 'Heat source',
    about: 'Brings heat into a waterway, or into the cylinder it stands in.',
    fields: [
      f('way', 'Heats the water of', { part: 'waterway', optional: true }),
      f('when', 'Heats while', 'condition'),
      f('most', 'Most heat', 'amount', 'W'),
      f('least', 'Least heat', 'amount', 'W'),
      f('capacity', 'Holds', 'optional-amount', 'Wh/K'),
      f('limit', 'Its limit trips at', 'optional-amount', '°C'),
      built(
        'aims',
        'Flow temperatures',
        z
          .array(
            z
              .object({
                when: conditionSchema.optional(),
                celsius: amountSchema,
                compensatedBy: idText.optional(),
                overBus: idText.optional(),
              })
              .strict(),
          )
          .optional(),
      ),
      f('mindsItself', 'Measured where it is heated', 'flag'),
    ],
    fails: [],
  },
  emitter: {
    name: 'Emitter',
    about: 'Water gives off its heat to a room or a cylinder.',
    fields: [
      f('way', 'On the water of', { part: 'waterway' }),
      f('into', 'Warms', { oneOf: ['room', 'cylinder'] }),
      f('watts', 'Gives off', 'amount', 'W'),
      built('kelvin', 'with water and air apart by', z.number().positive().max(100)),
      f('capacity', 'Holds', 'amount', 'Wh/K'),
      f('when', 'Only while', 'optional-condition'),
      f('rise', 'Above the boiler', 'amount', 'm', true),
    ],
    fails: [],
  },
  store: {
    name: 'Hot water store',
    about: 'A body of hot water that is drawn off and filled up cold.',
    fields: [
      f('litres', 'Holds', 'amount', 'l'),
      f('loses', 'Loses', 'amount', 'W/K', true),
      built(
        'draws',
        'Drawn by',
        z.object({ control: idText, litresPerMinute: z.record(valueId, z.number().min(0).max(100)) }).strict(),
      ),
    ],
    fails: [],
  },
}
