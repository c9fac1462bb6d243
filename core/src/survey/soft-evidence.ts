import type { Evidence } from '../inference'
import { Box } from './box'
import type { Survey, SurveyFact } from './document'
import type { Expected } from './expected'
import type { Predicted } from './predicted'
import type { Suspect } from './suspects'
import { feltRight, readRight, saidRight } from './weights'

/** Does a cable go to a device, as a suspect has it: as its own, or with one of its conductors? */
export const goesTo = ({ devices, ends }: Suspect, { terminals }: Expected, cable: number, device: number): boolean =>
  devices[cable] === device || ends[cable].some((end) => end >= 0 && terminals[end].device === device)

/** What a terminal of the box would read, as a suspect has it: of what it means, else what nobody expects: dead. */
export function readsLive({ means }: Suspect, box: Box, terminal: string, live: readonly boolean[]): boolean {
  const net = means[box.netAt(terminal)] ?? -1
  return net >= 0 && live[net]
}

/** What was found that may be mistaken, as each suspect and, last, what is on no list would have it. */
export function softEvidence(
  survey: Survey,
  expected: Expected,
  suspects: readonly Suspect[],
  predicted: Predicted,
): Evidence[] {
  const box = new Box(survey)
  const cableAt = (id: string) => survey.cables.findIndex((cable) => cable.id === id)
  const evidence = (fact: SurveyFact, source: string, hit: number, miss: number, is: (one: Suspect) => boolean) => {
    const likelihood = new Float64Array(suspects.length + 1).fill((hit + miss) / 2)
    suspects.forEach((one, i) => (likelihood[i] = is(one) ? hit : miss))
    return [{ id: fact.id, source, hit, miss, likelihood }]
  }
  return survey.facts.flatMap((fact): Evidence[] => {
    switch (fact.see) {
      case 'said': {
        const [cable, device] = [cableAt(fact.cable), expected.deviceAt(fact.device)]
        if (cable < 0 || device < 0) return []
        const right = saidRight[fact.from]
        const miss = (1 - right) / Math.max(1, expected.devices.length - 1)
        return evidence(fact, `said ${fact.cable} ${fact.from}`, right, miss, (one) =>
          goesTo(one, expected, cable, device),
        )
      }
      case 'felt': {
        const [cable, device] = [cableAt(fact.cable), expected.deviceAt(fact.device)]
        if (cable < 0 || device < 0) return []
        return evidence(
          fact,
          `felt ${fact.cable} ${fact.device}`,
          feltRight,
          1 - feltRight,
          (one) => goesTo(one, expected, cable, device) === fact.moved,
        )
      }
      case 'not-found': {
        const cable = cableAt(fact.cable)
        if (cable < 0) return []
        return evidence(fact, `not found ${fact.cable}`, 0.5, 0.1, ({ devices }) => devices[cable] < 0)
      }
      case 'reads': {
        const live = predicted.live(fact.wanted)
        return evidence(
          fact,
          `reads ${fact.terminal}`,
          readRight,
          1 - readRight,
          (one) => readsLive(one, box, fact.terminal, live) === fact.live,
        )
      }
      default:
        return []
    }
  })
}

/** What was said and felt of a cable, as the logarithm of what speaks for a device: it keeps the search from losing what fits it. */
export function leaning(survey: Survey, expected: Expected): (cable: number, device: number) => number {
  const leans = survey.cables.map(() => new Map<number, number>())
  const add = (id: string, device: number, log: number) => {
    const own = leans[survey.cables.findIndex((cable) => cable.id === id)]
    own?.set(device, (own.get(device) ?? 0) + log)
  }
  const logit = (right: number) => Math.log(right / (1 - right))
  for (const fact of survey.facts) {
    if (fact.see === 'said') add(fact.cable, expected.deviceAt(fact.device), logit(saidRight[fact.from]))
    if (fact.see === 'felt') add(fact.cable, expected.deviceAt(fact.device), (fact.moved ? 1 : -1) * logit(feltRight))
    if (fact.see === 'not-found') add(fact.cable, -1, Math.log(5))
  }
  return (cable, device) => leans[cable].get(device) ?? 0
}
