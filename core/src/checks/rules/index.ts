import type { Circuit } from '../../circuit'
import { bySeverity, type CheckFinding } from '../finding'
import { colourFindings } from './colours'
import { endFindings } from './ends'
import { extraLowFindings } from './extra-low'
import { ratingFindings } from './ratings'
import { reachFindings } from './reach'
import { schemeFindings } from './scheme'
import { Survey } from './survey'

/** Every rule that needs no state, worst first. */
export function staticFindings(circuit: Circuit): CheckFinding[] {
  const survey = new Survey(circuit)
  return [
    ...reachFindings(survey),
    ...extraLowFindings(survey),
    ...endFindings(survey),
    ...colourFindings(survey),
    ...ratingFindings(survey),
    ...schemeFindings(survey),
  ].sort(bySeverity)
}
