import type { Remedy } from '../inference'
import { nth } from '../lists'
import type { Hunt } from './hunt'
import { minutesOfRemedy } from './minutes'

/** What could be mended, the remedies of suspects that are cured by the same one together. */
export interface HuntRemedy {
  /** Empty where there is nothing to mend but to say how it works. */
  text: string
  /** Of all weight, from 0 to 1. */
  share: number
  /** Ids of the suspects that it would cure. */
  suspects: string[]
}

/** The remedies of some suspects, each as it is weighed among them and as it is told. */
export function remediesOf(hunt: Hunt, suspects: readonly number[]): { remedy: Remedy; told: HuntRemedy }[] {
  const { shares } = hunt.ranking()
  const found = new Map<string, { remedy: Remedy & { cures: boolean[] }; told: HuntRemedy }>()
  suspects.forEach((suspect, i) => {
    const { id, hypothesis, remedy: text } = nth(hunt.suspects, suspect)
    if (!hypothesis) return
    const owner = hypothesis.kind === 'part' ? id.split('.')[0] : text === '' ? '' : id
    const key = `${owner}|${text}`
    let one = found.get(key)
    if (!one) {
      const minutes = minutesOfRemedy(hunt.circuit, hypothesis)
      one = { remedy: { ...minutes, cures: suspects.map(() => false) }, told: { text, share: 0, suspects: [] } }
      found.set(key, one)
    }
    one.remedy.cures[i] = true
    one.told.suspects.push(id)
    one.told.share += nth(shares, suspect)
  })
  return [...found.values()]
}
