import { centreKind, centreKindIds } from './centres'
import type { PlanBrief } from './brief'
import { planSystem } from './plan'
import { refusalsOf } from './refusals'
import {
  circuitKindIds,
  circuitKinds,
  circuitsTaken,
  countOf,
  fittingChoices,
  schemeIds,
  schemes,
  thermostatChoices,
  timedChoices,
  usualFittings,
  type CircuitKind,
  type Fittings,
} from './schemes'

/** One thing that a brief says, which could be said otherwise. */
export interface Answer {
  id: string
  /** The answer in words. */
  says: string
  /** The brief with this answer left open: every value it might have, the loosest among them. */
  open(brief: PlanBrief): PlanBrief[]
  /** The brief with another answer instead, the least change first, each with what to do in words. */
  instead(brief: PlanBrief): { says: string; brief: PlanBrief }[]
}

/** What a brief says, in the order in which it is asked. What is left as usual is no answer: it may be anything. */
export function answersOf(brief: PlanBrief): Answer[] {
  return [
    schemeAnswer(brief),
    ...circuitKindIds.map((kind) => countAnswer(brief, kind)),
    ...brief.circuits.flatMap(({ alongside }, i) => (alongside ? [alongsideAnswer(brief, i)] : [])),
    ...brief.circuits.flatMap(({ thermostat, timed }, i) => (thermostat || timed ? [thermostatAnswer(brief, i)] : [])),
    ...Object.keys(brief.types ?? {}).map((device) => typeAnswer(brief, device)),
    ...(Object.keys(fittingChoices) as (keyof Fittings)[]).flatMap((field) =>
      brief[field] === undefined ? [] : [fittingAnswer(brief, field)],
    ),
    ...(brief.offContact === false ? [offAnswer] : []),
    ...inWallAnswers(brief),
    ...(centreKind(brief.terminals).terminals === undefined ? [] : [centreAnswer(brief)]),
  ]
}

const schemeAnswer = (said: PlanBrief): Answer => ({
  id: 'scheme',
  says: `scheme: ${schemes[said.scheme].name}`,
  open: (brief) => [brief, ...schemeIds.filter((id) => id !== brief.scheme).map((scheme) => ({ ...brief, scheme }))],
  instead: (brief) =>
    schemeIds
      .filter((id) => id !== brief.scheme)
      .map((scheme) => ({ says: `Take the scheme ${schemes[scheme].name}`, brief: { ...brief, scheme } })),
})

const countAnswer = (said: PlanBrief, kind: CircuitKind): Answer => {
  const n = countOf(said, kind)
  return {
    id: kind,
    says: n === 0 ? `no ${circuitKinds[kind]}` : `${circuitKinds[kind]}: ${n === 1 ? 'one circuit' : `${n} circuits`}`,
    open: (brief) => {
      const [least, most] = circuitsTaken(brief.scheme, kind)
      const own = countOf(brief, kind)
      return [...new Set([Math.min(most, Math.max(least, own)), least, most])].map((to) => withCount(brief, kind, to))
    },
    instead: (brief) =>
      Array.from({ length: 9 }, (_, to) => to)
        // Nobody who asked for several zones is helped by none.
        .filter((to) => to !== n && Math.abs(to - n) <= 2 && (to > 0 || n <= 2))
        .sort((x, y) => Math.abs(x - n) - Math.abs(y - n))
        .map((to) => ({
          says:
            to < n
              ? `Leave out ${named(said, kind, to)}`
              : `Add ${to - n === 1 ? 'a' : to - n} ${circuitKinds[kind]} circuit${to - n === 1 ? '' : 's'}`,
          brief: withCount(brief, kind, to),
        })),
  }
}

/** Circuits that go where fewer of a kind are wanted. */
function named(brief: PlanBrief, kind: CircuitKind, left: number): string {
  const gone = brief.circuits.filter((c) => c.kind === kind).slice(left)
  return gone.map(({ name }) => `“${name}”`).join(', ')
}

const alongsideAnswer = (said: PlanBrief, index: number): Answer => {
  const { name } = said.circuits[index]
  const wait = (brief: PlanBrief): PlanBrief => ({
    ...brief,
    circuits: brief.circuits.map((c) => (c.name === name ? { ...c, alongside: undefined } : c)),
  })
  return {
    id: `alongside ${name}`,
    says: `“${name}” heats while hot water does`,
    open: (brief) => [wait(brief)],
    instead: (brief) => [{ says: `Let “${name}” wait for hot water`, brief: wait(brief) }],
  }
}

/** What asks for a zone's heat, and what times it: one answer, since the one decides what the other may be. */
const thermostatAnswer = (said: PlanBrief, index: number): Answer => {
  const { name, thermostat, timed } = said.circuits[index]
  const usual = (brief: PlanBrief): PlanBrief => ({
    ...brief,
    circuits: brief.circuits.map((c) => (c.name === name ? { ...c, thermostat: undefined, timed: undefined } : c)),
  })
  const words = [thermostat && thermostatChoices[thermostat].toLowerCase(), timed && timedChoices[timed].toLowerCase()]
  return {
    id: `thermostat ${name}`,
    says: `“${name}”: ${words.filter(Boolean).join(', ')}`,
    open: (brief) => [usual(brief)],
    instead: (brief) => [{ says: `Take the usual thermostat for “${name}”`, brief: usual(brief) }],
  }
}

const typeAnswer = (said: PlanBrief, device: string): Answer => {
  const without = (brief: PlanBrief): PlanBrief => {
    const others = Object.entries(brief.types ?? {}).filter(([id]) => id !== device)
    return { ...brief, types: others.length > 0 ? Object.fromEntries(others) : undefined }
  }
  return {
    id: `types ${device}`,
    says: `${device}: ${said.types![device]}`,
    open: (brief) => [without(brief)],
    instead: (brief) => [{ says: `Take the usual type for ${device}`, brief: without(brief) }],
  }
}

const fittingAnswer = (said: PlanBrief, field: keyof Fittings): Answer => {
  const choices = fittingChoices[field] as Record<string, string>
  const others = (brief: PlanBrief) =>
    Object.keys(choices)
      .filter((id) => id !== said[field])
      .map((id) => ({ says: `${upperFirst(field)}: ${choices[id]}`, brief: { ...brief, [field]: id } }))
  const usual = (brief: PlanBrief): PlanBrief => ({ ...brief, [field]: undefined })
  return {
    id: field,
    says: `${field}: ${choices[said[field] ?? '']}`,
    open: (brief) => [usual(brief), brief, ...others(brief).map((other) => other.brief)],
    instead: (brief) => [
      ...others(brief),
      ...(usualFittings(brief.scheme)
        ? []
        : [{ says: `Leave the ${field} as the scheme has it`, brief: usual(brief) }]),
    ],
  }
}

const offAnswer: Answer = {
  id: 'offContact',
  says: 'the programmer has no OFF contact for hot water',
  open: (brief) => [{ ...brief, offContact: undefined }],
  instead: (brief) => [{ says: 'Take a programmer with an OFF contact', brief: { ...brief, offContact: undefined } }],
}

function inWallAnswers(brief: PlanBrief): Answer[] {
  const cables = Object.keys(brief.inWall ?? {})
  if (cables.length === 0) return []
  const bare: PlanBrief = { ...brief, inWall: undefined, terminals: 'separate' }
  const laid = refusalsOf(bare).length === 0 ? planSystem(bare, 'plan', 'Plan').cables : []
  return cables.map((id) =>
    inWallAnswer(brief, id, laid.find((cable) => cable.id === id)?.label ?? upperFirst(id.replaceAll('-', ' '))),
  )
}

const inWallAnswer = (said: PlanBrief, cable: string, label: string): Answer => {
  const without = (brief: PlanBrief): PlanBrief => {
    const others = Object.entries(brief.inWall ?? {}).filter(([id]) => id !== cable)
    return { ...brief, inWall: others.length > 0 ? Object.fromEntries(others) : undefined }
  }
  return {
    id: `inWall ${cable}`,
    says: `${label} in the wall: ${said.inWall![cable].join(', ')}`,
    open: (brief) => [without(brief)],
    instead: (brief) => [{ says: `Lay a new cable: ${label}`, brief: without(brief) }],
  }
}

const centreAnswer = (said: PlanBrief): Answer => ({
  id: 'terminals',
  says: `wiring centre: ${centreKind(said.terminals).name}`,
  // As many terminals as it takes: what does not go into this goes into nothing.
  open: (brief) => [{ ...brief, terminals: 'separate' }],
  instead: (brief) =>
    centreKindIds
      .filter((id) => id !== said.terminals)
      .map((terminals) => ({ says: `Wiring centre: ${centreKind(terminals).name}`, brief: { ...brief, terminals } })),
})

/** A brief with so many circuits of a kind: the last ones go, new ones are named by their kind. */
export function withCount(brief: PlanBrief, kind: CircuitKind, count: number): PlanBrief {
  let left = count
  const kept = brief.circuits.filter((c) => c.kind !== kind || left-- > 0)
  const names = new Set(kept.map(({ name }) => name.toLowerCase()))
  const added: PlanBrief['circuits'] = []
  for (let n = 1; countOf({ circuits: [...kept, ...added] }, kind) < count; n++) {
    const name = upperFirst(n === 1 ? circuitKinds[kind] : `${circuitKinds[kind]} ${n}`)
    if (!names.has(name.toLowerCase())) added.push({ kind, name })
  }
  return { ...brief, circuits: [...kept, ...added] }
}

const upperFirst = (text: string) => text[0].toUpperCase() + text.slice(1)
