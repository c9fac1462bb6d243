import { colourMeaning } from '../../catalogue'
import { LINE, NEUTRAL } from '../../circuit'
import type { Colour } from '../../installation'
import type { CheckFinding } from '../finding'
import { earthColoured } from './remedies'
import { inUse, type Survey } from './survey'

/**
 * What a conductor's colour says against what it does. Leads are fixed to their devices and wear what their makers gave
 * them; thermostat wire for extra-low voltage has no meaning in its colours.
 */
export function colourFindings(survey: Survey): CheckFinding[] {
  const { circuit } = survey
  const findings: CheckFinding[] = []
  for (const cable of circuit.installation.cables)
    for (const core of cable.cores) {
      if (!core.ends.every(inUse)) continue
      const atom = survey.atomOf(cable, core, 0)
      const at = { terminals: [], devices: [], cores: [{ cable: cable.id, core: core.id }] }
      const earth = survey.isEarth(atom)
      if (earthColoured(core.colour) && (!earth || core.sleeve))
        findings.push({
          rule: 'green-yellow-misused',
          severity: 'danger',
          ...at,
          ...(earth && { detail: 'sleeved-earth' as const }),
        })
      const says = colourMeaning(cable.cores.map(({ colour }) => colour))
      // What is or looks like earth is never sleeved into something else, nor anything into earth.
      if (earth || earthColoured(core.colour)) continue
      if (!says || cable.leadOf !== undefined || survey.isExtraLow(atom)) continue
      const shown = core.sleeve ?? core.colour
      const [neutral, line] = [says.wanted.neutral[0], says.wanted.line[0]]
      const poles = survey.poles(survey.all, atom)
      const sleeve = (colour: Colour) => ({
        proposal: {
          deed: { do: 'sleeve' as const, core: { cable: cable.id, core: core.id }, colour, found: false },
          changes: [{ do: 'core' as const, cable: cable.id, core: core.id, set: { sleeve: colour } }],
        },
      })
      if (shown === neutral && poles & LINE && !(poles & NEUTRAL))
        findings.push({ rule: 'switched-not-identified', severity: 'poor-practice', ...at, ...sleeve(line) })
      if (shown !== neutral && survey.isNeutral(atom))
        findings.push({ rule: 'switched-not-identified', severity: 'poor-practice', ...at, ...sleeve(neutral) })
    }
  return findings
}
