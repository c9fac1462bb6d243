import {
  farEndText,
  surveyBecauseText,
  surveyDepartureText,
  surveyFactText,
  surveyLookText,
  type Installation,
  type Survey,
  type Surveyed,
} from '@nobbet/core'

const percent = (share: number) => `${Math.round(share * 100)} %`
const mostLooks = 3

/** A survey as lines: each cable's conductors and how sure they are, what departs, what does not go together, what to look at next. */
export function surveyText(doc: Installation, survey: Survey, result: Surveyed): string[] {
  const { cores, departures, next, disputes, doubtful, unlisted } = result
  const count = (sure: string) => cores.filter((core) => core.sure === sure).length
  const lines = [
    `${cores.length} conductors: ${count('certain')} certain, ${count('likely')} likely, ${count('open')} open`,
  ]
  for (const cable of survey.cables) {
    lines.push('', cable.label)
    for (const { id, colour, at } of cable.cores) {
      const standing = cores.find((one) => one.cable === cable.id && one.core === id)!
      const where = 'terminal' in at ? at.terminal : at.at
      const sure = standing.sure === 'certain' ? 'certain' : `${standing.sure}, ${percent(standing.share)}`
      lines.push(
        `  ${colour.padEnd(13)} ${where.padEnd(9)} ${standing.to ? farEndText(doc, standing.to) : 'nowhere that goes together'} (${sure})`,
      )
      for (const because of standing.because) lines.push(`      ${surveyBecauseText(doc, survey, because)}`)
    }
  }
  if (departures.length > 0) lines.push('', 'Otherwise than a drawing would have it:')
  for (const departure of departures) {
    const { title, means } = surveyDepartureText(doc, survey, departure)
    lines.push(`  ${title} (${departure.sure})`, `      ${means}`)
  }
  const told = (id: string) => {
    const fact = survey.facts.find((one) => one.id === id)
    return fact ? surveyFactText(doc, survey, fact) : id
  }
  for (const ids of disputes) lines.push('', `These exclude each other: ${ids.map(told).join(' / ')}`)
  for (const { id, probability } of doubtful)
    lines.push('', `Perhaps mistaken: ${told(id)}, ${percent(probability)} likely after the rest`)
  if (unlisted > 0.1) lines.push('', `${percent(unlisted)} of the weight is on nothing that was looked at`)
  if (next.length > 0) lines.push('', 'Next:')
  for (const { what, minutes, settles } of next.slice(0, mostLooks)) {
    const { act, ask } = surveyLookText(doc, survey, what)
    lines.push(`  ${act}. ${ask} (${minutes} min, settles ${settles.toFixed(1)})`)
  }
  return lines
}
