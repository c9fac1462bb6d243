import type { z } from 'zod'
import { boundsProblem, firstProblems } from './bounds'
import type { DocumentProblem } from './document-problem'
import { plainText } from './plain-text'
import { installationSchema, type Installation, type TerminalRef } from './schema'

export class DocumentError extends Error {
  readonly problems: DocumentProblem[]
  constructor(problems: readonly DocumentProblem[]) {
    const first = firstProblems(problems)
    super(first.map((p) => (p.field ? `${p.field}: ${p.reason}` : p.reason)).join('; '))
    this.problems = first
    this.name = 'DocumentError'
  }
}

/** What a document may refer to: the terminals of the device types it uses. Supplied by the catalogue, which stands above. */
export interface TypeDirectory {
  /**
   * The directory as a document has it: with the types it brings itself, and those that ship in the versions it was made with.
   * And what is wrong with what it brings, by place in the list.
   */
  including(types: readonly { id: string; version: number; definition?: unknown }[]): {
    types: TypeDirectory
    problems: { at: number; field: string; reason: string }[]
  }
  /** Terminal ids a device of this type offers to conductors, or undefined where the type is not known. */
  terminalsOf(type: string): readonly string[] | undefined
  /** Version of the type that is at hand. */
  versionOf(type: string): number | undefined
  /** Ids of the contacts a device of this type has. */
  contactsOf(type: string): readonly string[]
  /** What pipes can be joined to on a device of this type. */
  connectionsOf(type: string): readonly string[]
  /** Why a setting cannot be this; undefined where it can. */
  settingProblem(type: string, setting: string, value: string | number | boolean): string | undefined
  /** Why a knob cannot stand at this value to begin with; undefined where it can. */
  positionProblem(type: string, control: string, value: string | number | boolean): string | undefined
  /** Why a clock cannot be given this value for a control; undefined where it can. */
  programmeProblem(type: string, control: string, value: string | number): string | undefined
  /** Ids of the inputs a device of this type can be called on. */
  inputsOf(type: string): readonly string[]
}

export function problemsOf({ issues }: Pick<z.ZodError, 'issues'>): DocumentProblem[] {
  return issues
    .flatMap((issue) => nearest(issue))
    .map(({ path, message }) => ({
      field: plainText(path.join('.')),
      reason: plainText(message),
    }))
}

/**
 * Of something that fits none of several forms: what is wrong with the one form that is right as far as its own fields go, and
 * wrong only within them.
 */
function nearest(issue: z.core.$ZodIssue): z.core.$ZodIssue[] {
  if (issue.code !== 'invalid_union') return [issue]
  const [within, ...others] = issue.errors.filter((form) => form.every(({ path }) => path.length > 0))
  if (!within || others.length > 0) return [issue]
  return within.flatMap((one) => nearest({ ...one, path: [...issue.path, ...one.path] }))
}

/**
 * Reads an installation from anything. Throws {@link DocumentError} naming every field that is wrong: shape first,
 * then references (two things of one id, a terminal or device that does not exist). What is badly wired is read as it is:
 * that is for the checks to say.
 */
export function parseInstallation(input: unknown, types: TypeDirectory): Installation {
  const beyond = boundsProblem(input)
  if (beyond) throw new DocumentError([beyond])
  const parsed = installationSchema.safeParse(input)
  if (!parsed.success) throw new DocumentError(problemsOf(parsed.error))
  const problems = referenceProblems(parsed.data, types)
  if (problems.length > 0) throw new DocumentError(problems)
  return parsed.data
}

/** What a document of the right shape refers to and does not have; empty where it makes sense as a whole. */
export function referenceProblems(doc: Installation, shipped: TypeDirectory): DocumentProblem[] {
  const problems: DocumentProblem[] = []
  const say = (field: string, reason: string) => problems.push({ field: plainText(field), reason: plainText(reason) })
  const brought = doc.types.flatMap((t, i) => (t.definition ? [{ i, t }] : []))
  const { types, problems: wrong } = shipped.including(doc.types)
  for (const { at, field, reason } of wrong) say(`types.${at}.${field}`, reason)
  for (const { i, t } of brought)
    if (t.definition!.id !== t.id || t.definition!.version !== t.version)
      say(`types.${i}.definition`, `is not version ${t.version} of "${t.id}"`)

  const owners = new Map<string, string>()
  const claim = (field: string, id: string) => {
    const before = owners.get(id)
    if (before) say(field, `"${id}" is already the id of ${before}`)
    else owners.set(id, field)
  }
  doc.devices.forEach((d, i) => claim(`devices.${i}.id`, d.id))
  doc.wiringCentres.forEach((w, i) => claim(`wiringCentres.${i}.id`, w.id))
  doc.connectors.forEach((c, i) => claim(`connectors.${i}.id`, c.id))
  doc.cables.forEach((c, i) => claim(`cables.${i}.id`, c.id))
  doc.links.forEach((l, i) => claim(`links.${i}.id`, l.id))

  const places = new Set(doc.places.map((p) => p.id))
  const terminals = new Set<TerminalRef>()
  doc.devices.forEach((device, i) => {
    if (!places.has(device.place)) say(`devices.${i}.place`, `there is no place "${device.place}"`)
    const offered = types.terminalsOf(device.type)
    if (!offered) return say(`devices.${i}.type`, `"${device.type}" is not a device type Nobbet knows`)
    if (!doc.types.some((t) => t.id === device.type)) say(`devices.${i}.type`, `"${device.type}" is missing from types`)
    for (const [setting, value] of Object.entries(device.settings)) {
      const problem = types.settingProblem(device.type, setting, value)
      if (problem) say(`devices.${i}.settings.${setting}`, problem)
    }
    for (const [control, value] of Object.entries(device.positions ?? {})) {
      const problem = types.positionProblem(device.type, control, value)
      if (problem) say(`devices.${i}.positions.${control}`, problem)
    }
    for (const [control, steps] of Object.entries(device.programme ?? {}))
      steps.forEach((step, k) => {
        const problem = types.programmeProblem(device.type, control, step.value)
        if (problem) say(`devices.${i}.programme.${control}.${k}.value`, problem)
      })
    for (const id of offered) terminals.add(`${device.id}.${id}`)
  })
  doc.types.forEach((t, i) => {
    const at = shipped.versionOf(t.id) ?? types.versionOf(t.id)
    if (at !== undefined && at < t.version)
      say(`types.${i}.version`, `version ${t.version} of "${t.id}" is newer than version ${at} known here`)
  })
  doc.wiringCentres.forEach((centre, i) => {
    if (!places.has(centre.place)) say(`wiringCentres.${i}.place`, `there is no place "${centre.place}"`)
    centre.terminals.forEach((t, k) => {
      const ref = `${centre.id}.${t.id}`
      if (terminals.has(ref)) say(`wiringCentres.${i}.terminals.${k}.id`, `terminal "${t.id}" stands twice`)
      terminals.add(ref)
    })
  })
  const connectors = new Set(doc.connectors.map((c) => c.id))

  doc.cables.forEach((cable, i) => {
    const ids = new Set<string>()
    cable.cores.forEach((core, k) => {
      const at = `cables.${i}.cores.${k}`
      if (ids.has(core.id)) say(`${at}.id`, `core "${core.id}" stands twice in this cable`)
      ids.add(core.id)
      core.ends.forEach((end, e) => {
        if (end.at === 'terminal' || end.at === 'parked') {
          if (!terminals.has(end.terminal)) say(`${at}.ends.${e}.terminal`, `there is no terminal "${end.terminal}"`)
        } else if (end.at === 'connector') {
          if (!connectors.has(end.connector))
            say(`${at}.ends.${e}.connector`, `there is no connector "${end.connector}"`)
        }
      })
    })
    if (cable.leadOf && !doc.devices.some((d) => d.id === cable.leadOf))
      say(`cables.${i}.leadOf`, `there is no device "${cable.leadOf}"`)
  })
  doc.links.forEach((link, i) =>
    link.between.forEach((ref, e) => {
      if (!terminals.has(ref)) say(`links.${i}.between.${e}`, `there is no terminal "${ref}"`)
    }),
  )
  pipeProblems(doc, types, say)
  intentProblems(doc, types, say)
  return problems
}

function pipeProblems(doc: Installation, types: TypeDirectory, say: (field: string, reason: string) => void): void {
  const connections = new Set(
    doc.devices.flatMap((d) => types.connectionsOf(d.type).map((connection) => `${d.id}.${connection}`)),
  )
  const ids = new Set(doc.devices.map((d) => d.id))
  doc.tees.forEach((tee, i) => {
    if (ids.has(tee.id)) say(`tees.${i}.id`, `"${tee.id}" is already the id of something else`)
    ids.add(tee.id)
    for (const branch of ['in', 'out', 'branch']) connections.add(`${tee.id}.${branch}`)
  })
  const pipes = new Set<string>()
  doc.pipes.forEach((pipe, i) => {
    if (pipes.has(pipe.id)) say(`pipes.${i}.id`, `pipe "${pipe.id}" stands twice`)
    pipes.add(pipe.id)
    for (const end of ['from', 'to'] as const)
      if (!connections.has(pipe[end])) say(`pipes.${i}.${end}`, `there is no water connection "${pipe[end]}"`)
  })
}

function intentProblems(doc: Installation, types: TypeDirectory, say: (field: string, reason: string) => void): void {
  const typeOf = new Map(doc.devices.map((d) => [d.id, d.type]))
  const demands = new Set<string>()
  doc.intent.demands.forEach((demand, i) => {
    const at = `intent.demands.${i}`
    if (demands.has(demand.id)) say(`${at}.id`, `demand "${demand.id}" stands twice`)
    demands.add(demand.id)
    for (const role of ['channel', 'thermostat'] as const) {
      const ref = demand[role]
      if (!ref) continue
      const { device, contact } = ref
      const type = typeOf.get(device)
      if (type === undefined) say(`${at}.${role}.device`, `there is no device "${device}"`)
      else if (!types.contactsOf(type).includes(contact))
        say(`${at}.${role}.contact`, `"${device}" has no contact "${contact}"`)
    }
    demand.circuit.valves.forEach(({ device }, k) => {
      if (!typeOf.has(device)) say(`${at}.circuit.valves.${k}.device`, `there is no device "${device}"`)
    })
    for (const list of ['runs', 'emitters'] as const)
      demand.circuit[list]?.forEach((id, k) => {
        if (!typeOf.has(id)) say(`${at}.circuit.${list}.${k}`, `there is no device "${id}"`)
      })
    const boiler = typeOf.get(demand.call.boiler)
    if (boiler === undefined) say(`${at}.call.boiler`, `there is no device "${demand.call.boiler}"`)
    else if (!types.inputsOf(boiler).includes(demand.call.input))
      say(`${at}.call.input`, `"${demand.call.boiler}" has no call input "${demand.call.input}"`)
  })
  doc.intent.demands.forEach((demand, i) =>
    demand.companions.forEach((id, k) => {
      if (!demands.has(id)) say(`intent.demands.${i}.companions.${k}`, `there is no demand "${id}"`)
    }),
  )
}
