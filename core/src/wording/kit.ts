import type { Condition, DeviceType, Primitive } from '../catalogue'
import type { Circuit } from '../circuit'
import { noticedOn, symptomsOf, usual, type Asked, type Measure, type Symptom } from '../kit'
import { demandText } from './findings'
import { signDifferences } from './signs'

const partLabel = (type: DeviceType, part: string) => type.primitives.find((p) => p.id === part)!.label

/** When a contact of this type makes, in words: "heating is on and relay coil has its supply". */
export function conditionText(type: DeviceType, condition: Condition, holds = true): string {
  const not = holds ? '' : 'not '
  if ('control' in condition) {
    const control = type.controls.find((c) => c.id === condition.control)!
    const values =
      control.kind === 'choice'
        ? condition.is.map((v) => control.values.find((x) => x.id === v)!.label.toLowerCase()).join(' or ')
        : ''
    return `${control.label.toLowerCase()} is ${not}${values}`
  }
  if ('sensor' in condition) {
    const sensor = type.primitives.find((p) => p.id === condition.sensor)!
    return `${sensor.label} ${holds ? 'is below its set-point' : 'has reached its set-point'}`
  }
  if ('actuator' in condition) return `travel has ${not}reached ${Math.round(usual(type, condition.reached) * 100)} %`
  if ('energised' in condition) return `${partLabel(type, condition.energised)} has ${holds ? 'its' : 'no'} supply`
  if ('works' in condition) return `${partLabel(type, condition.works)} ${holds ? 'works' : 'does not work'}`
  if ('behaviour' in condition) return `it is ${not}in ${condition.in.join(' or ')}`
  if ('setting' in condition) {
    const setting = type.settings.find((s) => s.id === condition.setting)!
    const value = setting.choices?.find((c) => c.value === condition.is)?.label ?? `${condition.is}`
    return `${setting.label.toLowerCase()} is ${not}“${value}”`
  }
  if ('linked' in condition) return `${partLabel(type, condition.linked)} is ${not}answered`
  if ('hears' in condition)
    return `${partLabel(type, condition.hears)} ${holds ? 'hears a call' : 'hears no call'} for ${condition.request === 'heating' ? 'heating' : 'hot water'}`
  if ('flows' in condition)
    return `${holds ? 'water' : 'no water'} goes through its ${partLabel(type, condition.flows)}`
  if ('timed' in condition) return `its clock says ${holds ? 'on' : 'off'}`
  if ('not' in condition) return conditionText(type, condition.not, !holds)
  const parts = 'all' in condition ? condition.all : condition.any
  const joiner = 'all' in condition === holds ? ' and ' : ' or '
  return parts
    .map((part) => {
      const text = conditionText(type, part, holds)
      return 'all' in part || 'any' in part ? `(${text})` : text
    })
    .join(joiner)
}

/** When a part works, or what it does: the words beside its symbol. */
export function partWhenText(type: DeviceType, part: Primitive): string {
  switch (part.kind) {
    case 'contact':
      return `made while ${conditionText(type, part.closedWhen)}`
    case 'changeover':
      return `over while ${conditionText(type, part.operatedWhen)}`
    case 'load':
      return part.ohms !== undefined ? ohmsText(usual(type, part.ohms)) : `${figure(usual(type, part.watts!))} W`
    case 'fuse':
      return `${figure(usual(type, part.amps))} A`
    case 'transformer':
      return `${figure(usual(type, part.volts))} V, ${figure(usual(type, part.va))} VA`
    case 'diode':
      return `passes half-waves through ${ohmsText(usual(type, part.ohms))}`
    case 'suppressor':
      return `${ohmsText(usual(type, part.ohms))} and ${figure(usual(type, part.microfarads))} µF`
    default:
      return ''
  }
}

const figure = (n: number) => String(Number(n.toPrecision(3)))
const ohmsText = (ohms: number) => (ohms >= 1000 ? `${figure(ohms / 1000)} kΩ` : `${figure(ohms)} Ω`)

/** What can be seen, heard and felt on a device, each once. */
export function noticedTexts(type: DeviceType): string[] {
  const words = noticedOn(type).map(({ kind, part }): string => {
    const name = partLabel(type, part)
    switch (kind) {
      case 'lever':
        return 'its lever: resists, slack, latched, or does not move'
      case 'travel':
        return 'where it stands'
      case 'hum':
        return `hum of the ${name}`
      case 'runs':
        return `${name} runs: by hand and ear`
      case 'heats':
        return `${name} heats`
      case 'click':
        return `click of the ${name}`
      case 'display':
        return 'its display and lamps'
      case 'fuse':
        return `${name}: whole or blown`
      case 'bus':
        return 'on the bus monitor: asked, answered'
    }
  })
  return [...new Set(words)]
}

export interface MeasureText {
  where: string
  how: string
  expect: string
}

/** What to measure on a device, where, and what is right. */
export function measureText(type: DeviceType, measure: Measure): MeasureText {
  const [a, b] = measure.between
  const name = partLabel(type, measure.part)
  const where = `${a} to ${b}`
  switch (measure.kind) {
    case 'resistance':
      return {
        where,
        how: `Dead and at rest, conductors lifted: ${name}`,
        expect: `about ${ohmsText(measure.ohms)}; open if it has failed`,
      }
    case 'contact': {
      const when = { made: 'while it is made', no: 'while it is over', nc: 'while it rests' }[measure.throw]
      return { where, how: `Dead, ${name}`, expect: `under 1 Ω ${when}, open otherwise` }
    }
    case 'fuse':
      return { where, how: `Dead, ${name}`, expect: `under 1 Ω; open if it has blown (${figure(measure.amps)} A)` }
    case 'volts':
      return {
        where,
        how: `Live, across the ${name}`,
        expect: `${figure(measure.volts)} V ${measure.always ? 'all the time' : 'while it is called'}; it acts from ${figure(measure.pullsIn)} V`,
      }
    case 'secondary':
      return {
        where,
        how: `Live, ${name}`,
        expect: `${figure(measure.open)} V unloaded, ${figure(measure.full)} V at full load; less is an overload`,
      }
  }
}

function askedText(circuit: Circuit, asked: Asked): string {
  switch (asked.ask) {
    case 'demands':
      return asked.demands.length > 2 && asked.demands.length === circuit.installation.intent.demands.length
        ? 'everything wanted'
        : demandText(circuit, asked.demands)
    case 'channels':
      return 'programmer on, thermostats satisfied'
    case 'thermostats':
      return 'programmer off, thermostats calling'
    case 'off-again':
      return 'everything off again'
  }
}

export interface SymptomText {
  failure: string
  remedy: string
  prior: number
  /** The fault's name in the system it was watched on. */
  fault: string
  /** By demand, what shows otherwise than on a whole system; empty where nothing shows. */
  shows: { asked: string; lines: string[] }[]
}

/** The faults of a device type with what they show, and the system they were watched on. */
export function symptomTexts(type: DeviceType): { example?: string; ships?: boolean; symptoms: SymptomText[] } {
  const { stand, circuit, symptoms } = symptomsOf(type)
  const texts = symptoms.map(({ fault, failure, shown }: Symptom): SymptomText => {
    const { label, remedy, prior } = failure
    const shows = shown.flatMap(({ asked, signs, healthy }) => {
      const lines = signDifferences(circuit!, signs, healthy)
      return lines.length > 0 ? [{ asked: askedText(circuit!, asked), lines }] : []
    })
    return { failure: label, remedy, prior, fault, shows }
  })
  return { example: stand?.example, ships: stand?.ships, symptoms: texts }
}
