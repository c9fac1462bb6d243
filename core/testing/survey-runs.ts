import type { Installation } from '../src/installation'
import { surveyed, type Survey, type Surveyed, type FarEnd, type SurveyLook } from '../src/survey'
import { Expected } from '../src/survey/expected'
import { walkMinutes } from '../src/looks'
import { surveyMinutes } from '../src/survey/next-look'
import type { HiddenWiring } from './hidden-survey'

export interface SurveyRun {
  looks: number
  minutes: number
  /** Conductors that are certain at the end, and how many there are. */
  certain: number
  conductors: number
  survey: Survey
  result: Surveyed
}

/** Conductors of a lead that have one colour cannot be told apart, and it makes no difference. */
const sameEnd = (expected: Expected, a: FarEnd | undefined, b: FarEnd | undefined): boolean => {
  if (JSON.stringify(a) === JSON.stringify(b)) return true
  if (a?.at !== 'terminal' || b?.at !== 'terminal') return false
  const [x, y] = [a, b].map(({ terminal }) => expected.terminals[expected.at(terminal)!])
  return x.device === y.device && x.lead !== undefined && x.lead === y.lead
}

/** Conductors told as certain that really end elsewhere. */
export function falselyCertain(hidden: HiddenWiring, { cores }: Surveyed): string[] {
  const expected = new Expected(hidden.truth)
  return cores.flatMap(({ cable, core, sure, to }) =>
    sure === 'certain' && !sameEnd(expected, to, hidden.endOf(cable, core)) ? [`${cable} ${core}`] : [],
  )
}

const mostLooks = 120

/** Looks as they are proposed, until all is certain or nothing is worth looking at any more. */
export function runProposed(hidden: HiddenWiring, expected: Installation, see?: (result: Surveyed) => void): SurveyRun {
  let survey = hidden.survey
  let [looks, minutes] = [0, 0]
  let result = surveyed(survey, expected)
  for (; looks < mostLooks; looks++) {
    see?.(result)
    const [next] = result.next
    if (!next) break
    minutes += next.minutes
    survey = { ...survey, facts: [...survey.facts, ...hidden.look(next.what)] }
    result = surveyed(survey, expected)
  }
  return { looks, minutes, ...counted(result), survey, result }
}

/** Leads followed, then every plate in turn, and each of its cables tried with those of the box that are left, in their order. */
export function runInTurn(hidden: HiddenWiring, installation: Installation): Omit<SurveyRun, 'survey' | 'result'> {
  const expected = new Expected(installation)
  let survey = hidden.survey
  let [looks, minutes] = [0, 0]
  const box = installation.wiringCentres[0].place
  const take = (look: SurveyLook, place: string) => {
    looks++
    const isCasing = look.look === 'plate' && expected.devices[expected.deviceAt(look.device)].isBoiler
    minutes += surveyMinutes[isCasing ? 'casing' : look.look] + walkMinutes(installation, box, place)
    const facts = hidden.look(look)
    survey = { ...survey, facts: [...survey.facts, ...facts] }
    return facts[0]
  }
  for (const { id, leadOf } of survey.cables) if (leadOf !== undefined) take({ look: 'follow', cable: id }, box)
  const known = new Set<string>()
  for (const { id, place, terminals, isSupply } of expected.devices) {
    if (isSupply || terminals.some((t) => expected.terminals[t].lead !== undefined)) continue
    const fact = take({ look: 'plate', device: id }, place)
    if (fact.see !== 'plate') continue
    for (const sheath of fact.sheaths) {
      const on = sheath.cores.find(({ at }) => at.at === 'terminal')
      if (on?.at.at !== 'terminal') continue
      for (const cable of survey.cables) {
        if (known.has(cable.id) || cable.leadOf !== undefined) continue
        const core = cable.cores.find(({ colour }) => colour === on.colour)
        if (!core) continue
        const rung = take({ look: 'ring', cable: cable.id, core: core.id, to: `${id}.${on.at.terminal}` }, box)
        if (rung.see === 'rung' && rung.joined) {
          known.add(cable.id)
          break
        }
      }
    }
  }
  return { looks, minutes, ...counted(surveyed(survey, installation)) }
}

const counted = ({ cores }: Surveyed) => ({
  certain: cores.filter(({ sure }) => sure === 'certain').length,
  conductors: cores.length,
})
