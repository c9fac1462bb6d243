import { circuitOf } from '../../testing'
import { examples } from '../examples'
import { answersTo, needsIsolation, thingsOf } from '../hunt'
import { lookAt, type WrittenLook } from '../looks'
import { Simulation } from '../simulation'
import { answerText, expectedText, hazardOf, lookText, methodText, questionText, shownText, toolText } from '.'

const ids = examples.map(({ id }) => id)
/** Everything that can be looked at, and where. */
const looksOf = (id: string) => {
  const circuit = circuitOf(id)
  return { circuit, looks: thingsOf(circuit).flatMap(({ looks }) => looks) }
}
/** An id as documents have it, which nobody on site has ever heard. */
const isRaw = (circuit: ReturnType<typeof circuitOf>, text: string): boolean => {
  const { devices, wiringCentres, cables } = circuit.installation
  return [...devices, ...wiringCentres, ...cables].some(
    ({ id }) => new RegExp(`(^|[ (])${id}[.,) ]`).test(text) && /[-0-9]/.test(id),
  )
}

describe.each(ids)('every look at %s', (id) => {
  const { circuit, looks } = looksOf(id)
  const healthy = new Simulation(circuit)

  it('is asked as a question, told in short, and how and with what it is made', () => {
    for (const look of looks) {
      const question = questionText(circuit, look)
      expect(question).toMatch(/^[A-Z].*\?$/)
      expect(lookText(circuit, look)).toMatch(/^[A-Z].*: \S/)
      expect(methodText(look)).toMatch(/\.$/)
      expect(toolText(look)).not.toBe('')
      for (const text of [question, lookText(circuit, look)]) {
        expect(text).not.toMatch(/undefined|null|NaN/)
        expect({ text, raw: isRaw(circuit, text) }).toEqual({ text, raw: false })
      }
    }
  })

  it('has its own question: no two looks are asked in the same words', () => {
    const asked = new Map<string, WrittenLook>()
    for (const look of looks) {
      const key = `${questionText(circuit, look)} ${methodText(look)}`
      expect({ key, before: asked.get(key) }).toEqual({ key, before: undefined })
      asked.set(key, look)
    }
  })

  it('can be answered in words, or in a number with its unit, and what is to be expected is one of them', () => {
    for (const look of looks) {
      const { words, unit } = answersTo(circuit, look)
      expect(words.length > 0 || unit !== undefined).toBe(true)
      const texts = words.map((word) => answerText(circuit, look, word))
      for (const text of texts) expect(text).toMatch(/^[A-Z]/)
      expect(new Set(texts).size).toBe(texts.length)
      const shown = lookAt(healthy, look.at === 'clicks' ? { ...look, since: 0 } : look, circuit.installation)
      expect(expectedText(circuit, look, shown)).not.toMatch(/undefined|NaN/)
      if ('word' in shown && look.at !== 'display' && look.at !== 'points')
        expect(texts.map((text) => text.toLowerCase())).toContain(expectedText(circuit, look, shown))
    }
  })

  it('says whether it is made isolated, live, or with nothing opened', () => {
    for (const look of looks) {
      expect(hazardOf(look, false)).toBe(needsIsolation(look) ? 'dead' : 'covers-on')
      if (look.at === 'points') expect(hazardOf(look, true)).toBe('live')
    }
  })
})

it('what may be one of several is told with the likelier first, and what hardly may is left out', () => {
  expect(shownText({ chances: { sound: 0.3, loose: 0.02, burnt: 0, water: 0.68 } })).toBe('water or sound')
  expect(shownText({ unknown: 'open-end' })).toBe('not known')
  expect(shownText({ value: null, unit: 'MΩ' })).toBe('more than the instrument shows')
  expect(shownText({ value: 2480, unit: 'Ω' })).toBe('2.48 kΩ')
})
