import type { CheckResult, Finding, Severity } from '../checks'
import type { Circuit } from '../circuit'
import { deviceName, terminalName } from './names'

export const severityWords: Record<Severity, string> = {
  danger: 'Danger',
  'will-not-work': 'Will not work',
  'poor-practice': 'Poor practice',
  advice: 'Advice',
}

/** A finding in three lines: what, why it matters, what to do. */
export interface FindingText {
  title: string
  reason: string
  remedy: string
}

export function findingText(circuit: Circuit, finding: Finding): FindingText {
  const terminal = finding.terminals[0] ? terminalName(circuit, finding.terminals[0]) : ''
  const device = finding.devices[0] ? deviceName(circuit, finding.devices[0]) : ''
  const state = finding.demands ? demandText(circuit, finding.demands) : ''
  switch (finding.rule) {
    case 'no-neutral':
      return {
        title: `No neutral at ${terminal}`,
        reason: `${device} needs a neutral that no switch interrupts but the isolator's.`,
        remedy: 'Bring a conductor from a Neutral terminal.',
      }
    case 'no-permanent-live':
      return {
        title: `No permanent live at ${terminal}`,
        reason: `${device} must stay under supply whatever the controls do.`,
        remedy: 'Bring a conductor from a Line terminal.',
      }
    case 'no-earth':
      return {
        title: `No earth at ${terminal}`,
        reason: `A line conductor touching ${device} would leave it live.`,
        remedy: 'Bring the green-yellow conductor from an Earth terminal.',
      }
    case 'contact-without-feed':
      return {
        title: `Nothing feeds ${terminal}`,
        reason: 'The contact may make, but it has nothing to pass on.',
        remedy: 'Bring it its feed from the wiring centre.',
      }
    case 'line-neutral-joined':
      return {
        title: 'Line joined to neutral or earth',
        reason: finding.demands
          ? `Shows with ${state}: the fuse blows.`
          : 'With every control at rest: the fuse blows.',
        remedy: finding.terminals.length
          ? `Look at ${finding.terminals.map((t) => terminalName(circuit, t)).join(', ')}.`
          : 'Play it back in Trace and follow the live path.',
      }
    case 'demand-never-calls':
      return {
        title: `${demandText(circuit, finding.demands ?? [])}: does not end at ${terminal}`,
        reason: 'The demand is wanted and its circuit or its call does not come up.',
        remedy: 'Play it back in Trace: the first open point is named there.',
      }
    case 'call-without-demand':
      return {
        title: `${device} is called with no demand`,
        reason: `Shows with ${state}.`,
        remedy: 'Play it back in Trace: the chain of causes is named there.',
      }
    case 'never-settles':
      return {
        title: 'The installation never settles',
        reason: `Shows with ${state}.`,
        remedy: 'Play it back in Trace and watch which contact starts the round.',
      }
  }
}

/** "House and Hot water wanted", "nothing wanted". */
export function demandText(circuit: Circuit, ids: readonly string[]): string {
  const names = ids.map((id) => circuit.installation.intent.demands.find((d) => d.id === id)!.name)
  if (names.length === 0) return 'nothing wanted'
  const list = names.length === 1 ? names[0] : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`
  return `${list} wanted`
}

/** The verdict in three words, where there is room for no more. */
export function shortVerdictText(result: CheckResult): string {
  const grave = result.findings.filter((f) => f.severity === 'danger' || f.severity === 'will-not-work').length
  return grave > 0 ? `${grave} defect${grave === 1 ? '' : 's'} found` : 'No defect found'
}

/** The verdict in one sentence. Never says "safe". */
export const verdictText = (result: CheckResult): string => `${shortVerdictText(result)} in the wiring as recorded`

/** What the verdict rests on. */
export function basisText(result: CheckResult): string {
  const ends = (n: number) => `${n} end${n === 1 ? '' : 's'}`
  return `${result.combinations} combinations of demands run from rest. ${ends(result.unverifiedEnds)} not verified, ${ends(result.unknownEnds)} not found.`
}
