import { plainText } from '@nobbet/core'

/** Fields in which somebody writes in lines. */
const inLines = new Set(['symptom', 'earlier', 'text'])

const inOneLine = (text: string): string => {
  const plain = plainText(text)
  // Nothing but control characters: something has to stand there, since a name may not be blank.
  return plain !== text && plain.trim() === '' ? '-' : plain
}

/** Figures that have a least since then. What was below it broke whatever was worked out with it. */
const least: Record<string, number> = {
  lengthM: 0.05,
  areaMm2: 0.05,
  lossWPerK: 0.1,
  capacityWhPerK: 0.1,
  'supply.volts': 50,
}

/**
 * A value as it may stand since control characters are refused and figures are bounded; the very same where it was so already. `field` is
 * its own name, with that of what it stands in before it where that is an object.
 */
export function mended(value: unknown, field = '', within = ''): unknown {
  if (typeof value === 'number') return Math.max(value, least[field] ?? least[`${within}.${field}`] ?? value)
  if (typeof value === 'string')
    return inLines.has(field) ? value.replace(/\r\n?/g, '\n').split('\n').map(plainText).join('\n') : inOneLine(value)
  if (Array.isArray(value)) return value.map((one) => mended(one, field, within))
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [plainText(key), mended(one, key, field)]))
}
