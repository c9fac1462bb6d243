import type { z } from 'zod'
import { boundsProblem, firstProblems } from '../installation'
import { leavesOf } from './conditions'
import { valueProblem, programmeValues } from './controls'
import { partKinds, type Field } from './parts'
import type { Amount, BehaviourPart, Condition, Control, DeviceType, Load, Primitive } from './primitives'
import { asDeviceType, deviceTypeSchema } from './type-schema'

/** One thing wrong with a device type, or missing from it: where, and why. */
export interface TypeProblem {
  field: string
  reason: string
}

/** Reads a device type from anything: the type, or everything that is wrong with it. */
export function readDeviceType(input: unknown): { type: DeviceType } | { problems: TypeProblem[] } {
  const beyond = boundsProblem(input)
  if (beyond) return { problems: [beyond] }
  const parsed = deviceTypeSchema.safeParse(input)
  if (!parsed.success) return { problems: firstProblems(parsed.error.issues.flatMap(problemsOfIssue)) }
  const type = asDeviceType(parsed.data)
  const problems = typeProblems(type)
  return problems.length > 0 ? { problems: firstProblems(problems) } : { type }
}

/** An issue at its field; of a union, those of the branch that came nearest. */
function problemsOfIssue(issue: z.core.$ZodIssue, _?: number, __?: unknown, base: PropertyKey[] = []): TypeProblem[] {
  const path = [...base, ...issue.path]
  if (issue.code === 'invalid_union' && issue.errors.length > 0) {
    const nearest = [...issue.errors].sort((x, y) => deepest(y) - deepest(x))[0]
    if (nearest.length > 0 && deepest(nearest) > 0) return nearest.flatMap((i) => problemsOfIssue(i, 0, 0, path))
  }
  return [{ field: path.join('.'), reason: issue.message }]
}
const deepest = (issues: readonly z.core.$ZodIssue[]) => Math.max(0, ...issues.map((i) => i.path.length))

/**
 * What a device type of the right shape names and does not have, and what it lacks to be of use: unique names, terminals,
 * parts, controls and settings that are there, figures within range, terminals that lead somewhere. Empty where it is whole.
 */
export function typeProblems(type: DeviceType): TypeProblem[] {
  const problems: TypeProblem[] = []
  const say = (field: string, reason: string) => problems.push({ field, reason })
  for (const list of ['terminals', 'controls', 'settings', 'primitives', 'inputs'] as const) {
    const ids = type[list].map((x) => x.id)
    ids.forEach((id, i) => ids.indexOf(id) !== i && say(`${list}.${i}.id`, `"${id}" is there twice`))
  }
  const names = namesOf(type)
  type.primitives.forEach((part, i) => partProblems(part, `primitives.${i}`, names, say))
  const joined = new Set(type.primitives.flatMap(terminalsOf))
  type.terminals.forEach((t, i) => {
    if (!joined.has(t.id) && t.role !== 'earth' && !t.bare) say(`terminals.${i}`, `nothing inside leads to "${t.id}"`)
  })
  type.inputs.forEach((input, i) => {
    if (!names.terminals.has(input.terminal)) say(`inputs.${i}.terminal`, `there is no terminal "${input.terminal}"`)
    if (names.parts.get(input.load)?.kind !== 'load') say(`inputs.${i}.load`, `there is no load "${input.load}"`)
  })
  type.settings.forEach((s, i) => {
    if (s.default < s.min || s.default > s.max) say(`settings.${i}.default`, `is not ${s.min} to ${s.max} ${s.unit}`)
  })
  type.controls.forEach((c, i) => controlProblems(type, c, `controls.${i}`, say))
  return problems
}

type Say = (field: string, reason: string) => void
type Names = ReturnType<typeof namesOf>

const namesOf = (type: DeviceType) => ({
  terminals: new Set(type.terminals.map((t) => t.id)),
  parts: new Map(type.primitives.map((p) => [p.id, p])),
  controls: new Map(type.controls.map((c) => [c.id, c])),
  settings: new Map(type.settings.map((s) => [s.id, s])),
})

const valueOf = (part: Primitive, field: Field): unknown => (part as unknown as Record<string, unknown>)[field.id]
/** The same where the field names something: a terminal, a part, a control. */
const nameIn = (part: Primitive, field: Field): string => valueOf(part, field) as string

/** The terminals a part is joined to. */
const terminalsOf = (part: Primitive): string[] =>
  partKinds[part.kind].fields.flatMap((field) => (field.is === 'terminal' ? [nameIn(part, field)] : []))

function partProblems(part: Primitive, at: string, names: Names, say: Say): void {
  for (const field of partKinds[part.kind].fields) {
    const value = valueOf(part, field)
    const here = `${at}.${field.id}`
    if (value === undefined) continue
    const { is } = field
    const name = nameIn(part, field)
    if (is === 'terminal') {
      if (!names.terminals.has(name)) say(here, `there is no terminal "${name}"`)
    } else if (is === 'amount' || is === 'optional-amount')
      amountProblem(value as Amount, here, names, say, field.zero ? atLeastNought : aboveNought)
    else if (is === 'condition' || is === 'optional-condition') conditionProblems(value as Condition, here, names, say)
    else if (typeof is === 'object' && 'part' in is) {
      if (names.parts.get(name)?.kind !== is.part)
        say(here, `there is no ${partKinds[is.part].name.toLowerCase()} "${name}"`)
    } else if (typeof is === 'object' && 'control' in is) {
      if (names.controls.get(name)?.kind !== is.control) say(here, `there is no dial "${name}"`)
    }
  }
  const terminals = terminalsOf(part)
  if (new Set(terminals).size < terminals.length) say(at, 'both of its ends are on one terminal')
  if (part.kind === 'load' && (part.watts === undefined) === (part.ohms === undefined))
    say(at, 'a load has watts or ohms, one of the two')
  if (part.kind === 'load') windingProblem(part, at, names, say)
  if (part.kind === 'port' && part.openFrom >= part.openTo) say(`${at}.openTo`, 'is not above where it opens')
  for (const condition of builtConditions(part)) conditionProblems(condition, at, names, say)
  for (const amount of builtAmounts(part)) amountProblem(amount, at, names, say, atLeastNought)
  if (part.kind === 'behaviour') {
    const { watches, figures } = sequenceNeeds[part.behaviour]
    for (const role of watches) if (!(role in part.watches)) say(`${at}.watches`, `"${role}" is missing`)
    for (const role of figures) if (!(role in part.figures)) say(`${at}.figures`, `"${role}" is missing`)
  }
  for (const { kind, id } of builtNames(part)) {
    const there = kind === 'control' ? names.controls.has(id) : names.parts.get(id)?.kind === kind
    if (!there) say(at, `there is no ${kind} "${id}"`)
  }
}

/** What a named sequence watches and reckons with, by the roles it knows. */
const sequenceNeeds: Record<BehaviourPart['behaviour'], { watches: string[]; figures: string[] }> = {
  'boiler-sequence': {
    watches: ['powered', 'call'],
    figures: ['selfCheckSeconds', 'overrunMinutes', 'provingSeconds', 'ownWater', 'leastWatts', 'limit', 'aim'],
  },
  'circulator-call': { watches: ['powered', 'call'], figures: [] },
}

/** Conditions within what is built of more than one value. */
function builtConditions(part: Primitive): Condition[] {
  switch (part.kind) {
    case 'behaviour':
      return Object.values(part.watches)
    case 'bus':
      return Object.values(part.requests ?? {})
    case 'heat-source':
      return (part.aims ?? []).flatMap((a) => (a.when ? [a.when] : []))
    default:
      return []
  }
}
function builtAmounts(part: Primitive): Amount[] {
  switch (part.kind) {
    case 'behaviour':
      return Object.values(part.figures)
    case 'heat-source':
      return (part.aims ?? []).flatMap((a) => [a.celsius, ...(a.compensatedBy ? [{ setting: a.compensatedBy }] : [])])
    case 'waterway':
      return part.pump ? [part.pump.head, part.pump.most] : []
    case 'actuator':
      return part.latch ? [part.latch.at] : []
    case 'sensor':
      return part.accelerator ? [part.accelerator.differential] : []
    default:
      return []
  }
}
function builtNames(part: Primitive): { kind: 'control' | Primitive['kind']; id: string }[] {
  switch (part.kind) {
    case 'residual-trip':
      return [
        ...part.contacts.map((id) => ({ kind: 'contact' as const, id })),
        { kind: 'control', id: part.throws.control },
      ]
    case 'behaviour':
      return part.throws ? [{ kind: 'control', id: part.throws.control }] : []
    case 'actuator':
      return part.latch ? [{ kind: 'control', id: part.latch.control }] : []
    case 'sensor':
      return [
        ...(part.throws ? [{ kind: 'control' as const, id: part.throws.control }] : []),
        ...(part.accelerator ? [{ kind: 'load' as const, id: part.accelerator.load }] : []),
      ]
    case 'waterway':
      return part.pump ? [{ kind: 'load', id: part.pump.load }] : []
    case 'store':
      return [{ kind: 'control', id: part.draws.control }]
    case 'heat-source':
      return (part.aims ?? []).flatMap((a) => (a.overBus ? [{ kind: 'bus' as const, id: a.overBus }] : []))
    case 'bus':
      return part.flow === undefined ? [] : [{ kind: 'control', id: part.flow }]
    default:
      return []
  }
}

/** The figures an amount can come to: itself, or what its setting comes as and can be set to. */
function figuresOf(amount: Amount, { settings }: Names): number[] {
  if (typeof amount === 'number') return [amount]
  const setting = settings.get(amount.setting)
  return setting ? [setting.default, setting.min, setting.max] : []
}

interface Bounds {
  fits: (figure: number) => boolean
  words: string
}
/** More than any figure of the trade: beyond it equations lose their digits. */
const most = 1e7
const aboveNought: Bounds = { fits: (n) => n > 0 && n <= most, words: 'above 0' }
const atLeastNought: Bounds = { fits: (n) => n >= 0 && n <= most, words: '0 or more' }
const fraction: Bounds = { fits: (n) => n >= 0 && n <= 1, words: '0 to 1' }

function amountProblem(amount: Amount, at: string, names: Names, say: Say, bounds?: Bounds): void {
  if (typeof amount === 'object' && !names.settings.has(amount.setting))
    return say(at, `there is no setting "${amount.setting}"`)
  const wrong = bounds && figuresOf(amount, names).find((n) => !bounds.fits(n))
  if (wrong === undefined) return
  say(
    at,
    `${typeof amount === 'object' ? `setting "${amount.setting}" can be ${wrong}` : wrong} and must be ${bounds!.words}`,
  )
}

/** A winding is resistance and inductance: its resistance is a smaller share of its impedance than its power factor. */
function windingProblem(load: Load, at: string, names: Names, say: Say): void {
  if (load.dcPercent === undefined || load.watts === undefined) return
  const factors = load.powerFactor === undefined ? [1] : figuresOf(load.powerFactor, names)
  const shares = figuresOf(load.dcPercent, names)
  if (factors.some((f) => f >= 1)) say(`${at}.powerFactor`, 'of a winding is below 1')
  else if (shares.some((s) => factors.some((f) => s / 100 >= f)))
    say(`${at}.dcPercent`, 'is not below its power factor, in per cent')
}

function conditionProblems(condition: Condition, at: string, names: Names, say: Say): void {
  const part = (id: string, kind: Primitive['kind']) => {
    if (names.parts.get(id)?.kind !== kind) say(at, `there is no ${partKinds[kind].name.toLowerCase()} "${id}"`)
  }
  for (const leaf of leavesOf(condition)) {
    if ('control' in leaf) {
      const control = names.controls.get(leaf.control)
      if (control?.kind !== 'choice') say(at, `there is no switch "${leaf.control}"`)
      else
        for (const v of leaf.is)
          if (!control.values.some((x) => x.id === v)) say(at, `"${leaf.control}" has no position "${v}"`)
    } else if ('sensor' in leaf) part(leaf.sensor, 'sensor')
    else if ('actuator' in leaf) {
      part(leaf.actuator, 'actuator')
      amountProblem(leaf.reached, at, names, say, fraction)
      if (leaf.releasedAt !== undefined) amountProblem(leaf.releasedAt, at, names, say, fraction)
    } else if ('energised' in leaf) part(leaf.energised, 'load')
    else if ('works' in leaf) part(leaf.works, 'load')
    else if ('behaviour' in leaf) part(leaf.behaviour, 'behaviour')
    else if ('setting' in leaf) amountProblem({ setting: leaf.setting }, at, names, say)
    else if ('linked' in leaf) part(leaf.linked, 'bus')
    else if ('hears' in leaf) part(leaf.hears, 'bus')
    else if ('timed' in leaf) {
      if (!names.controls.get(leaf.timed)?.timed) say(at, `no clock works "${leaf.timed}"`)
    } else {
      const way = names.parts.get(leaf.flows)?.kind
      if (way !== 'waterway' && way !== 'port') say(at, `there is no waterway "${leaf.flows}"`)
      amountProblem(leaf.from, at, names, say)
    }
  }
}

function controlProblems(type: DeviceType, control: Control, at: string, say: Say): void {
  const initial = valueProblem(control, control.id, control.initial)
  if (initial) say(`${at}.initial`, initial)
  if (control.kind === 'number' && control.min >= control.max) say(`${at}.max`, 'is not above the least')
  control.timed?.usual.forEach((step, i) => {
    if (programmeValues(control).includes(step.value)) return
    const problem = valueProblem(control, control.id, step.value)
    if (problem) say(`${at}.timed.usual.${i}.value`, problem)
  })
  const follows = control.timed?.while?.control
  if (follows !== undefined && !type.controls.some((c) => c.id === follows))
    say(`${at}.timed.while`, `there is no control "${follows}"`)
}
