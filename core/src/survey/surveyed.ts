import { contradictions, weighed, type Contradiction } from '../inference'
import type { Installation } from '../installation'
import { certainOf } from './certain'
import { departuresIn, type Departure } from './departures'
import type { Survey } from './document'
import { Expected } from './expected'
import { nextLooks, type SurveyNext } from './next-look'
import { Predicted } from './predicted'
import { settleTwins } from './twins'
import type { Ground } from './routes'
import { leaning, softEvidence } from './soft-evidence'
import { cableStandings, coreStandings, type CableStanding, type CoreStanding } from './standing'
import { suspectsOf } from './suspects'
import { unlistedShare } from './weights'

/** What follows from a survey. */
export interface Surveyed {
  cables: CableStanding[]
  /** Every conductor, cable by cable. */
  cores: CoreStanding[]
  departures: Departure[]
  /** The best looks to make next, the best first. */
  next: SurveyNext[]
  /** Facts that cannot all be so: their ids; nothing is certain by them. */
  disputes: string[][]
  /** Of what may be mistaken: what the rest makes improbable. */
  doubtful: Contradiction[]
  /** Share of all weight that is on no list, 0 to 1: none of the ways looked at explains what was found. */
  unlisted: number
}

/**
 * What follows from what was seen, held against the devices that are there and what would be joined with what. Suspects are the ways in
 * which all cables and conductors together may go; what was said, felt and read weighs them. Everything is worked out from the document.
 */
export function surveyed(survey: Survey, installation: Installation): Surveyed {
  const expected = new Expected(installation)
  const certain = certainOf(survey, expected)
  const disputed = new Set(certain.disputes.flat())
  const sound = { ...survey, facts: survey.facts.filter(({ id }) => !disputed.has(id)) }
  const supply = installation.supply.volts < 200 ? '120-60' : '230-50'
  const ground: Ground = { survey: sound, expected, certain, supply }
  const predicted = new Predicted(expected)
  const { suspects, lost } = suspectsOf(ground, leaning(sound, expected))
  const sum = suspects.reduce((all, { weight }) => all + weight, 0) || 1
  // What was not followed is on no list as well.
  const listed = (1 - unlistedShare) * (1 - lost)
  const priors = [...suspects.map(({ weight }) => weight), listed > 0 ? ((1 - listed) / listed) * sum : 1]
  const evidence = softEvidence(sound, expected, suspects, predicted)
  const { shares } = weighed(priors, evidence)
  settleTwins(ground, suspects, shares)
  const cables = cableStandings(ground, suspects, shares)
  const cores = coreStandings(ground, suspects, shares)
  const departures = departuresIn(ground, cores)
  return {
    cables,
    cores,
    departures,
    next: nextLooks(ground, suspects, shares, cables, cores, departures, predicted),
    disputes: certain.disputes,
    doubtful: contradictions(priors, evidence),
    unlisted: shares[suspects.length],
  }
}
