import type { Circuit, Potential } from '../circuit'
import type { Instrument, PolarityVerdict, Reading, Refusal } from '../instruments'
import { deviceName, terminalName } from './names'

export const instrumentWords: Record<Instrument, { name: string; what: string }> = {
  tester: { name: 'Tester', what: 'volts, 100 kΩ between the leads: draws induced volts down' },
  meter: { name: 'Meter', what: 'volts, 10 MΩ between the leads: shows induced volts too' },
  polarity: { name: 'Polarity', what: 'L–N, L–E and N–E at the device of the leads, red on L, black on N' },
  power: { name: 'Power', what: 'what the device of the red lead draws; at a spur, everything' },
  continuity: { name: 'Continuity', what: 'dead test: a whole conductor or a closed contact' },
  resistance: { name: 'Resistance', what: 'dead test: windings 2 to 3 kΩ' },
  insulation: { name: 'Insulation', what: 'dead test, 500 V: black lead on earth' },
  earth: { name: 'Earth', what: 'dead test: from the red lead back to the supply’s earth' },
}

/** Three figures that matter; nothing beyond a tenth of a volt. */
export function voltsText(volts: number): string {
  if (volts < 0.05) return '0 V'
  return `${volts < 99.95 ? volts.toFixed(1).replace(/\.0$/, '') : Math.round(volts)} V`
}

function ohmsText(ohms: number): string {
  const scaled = (value: number, unit: string) =>
    `${value < 9.995 ? value.toFixed(2) : value < 99.95 ? value.toFixed(1) : Math.round(value)} ${unit}`
  if (ohms < 1000) return scaled(ohms, 'Ω')
  return ohms < 1e6 ? scaled(ohms / 1e3, 'kΩ') : scaled(ohms / 1e6, 'MΩ')
}

/** The volts that stand on a terminal, with what they are against where that is not neutral, and the mean of half-waves. */
export function potentialText(circuit: Circuit, { volts, mean, against }: Potential): string {
  if (volts === null) return 'not known'
  const to = against === undefined ? '' : ` to ${deviceName(circuit, against)} common`
  return `${voltsText(volts)}${to}${mean === undefined ? '' : `, half-waves: mean ${voltsText(Math.abs(mean))}`}`
}

const polarityWords: Record<PolarityVerdict, string> = {
  correct: 'Correct',
  reversed: 'Line and neutral exchanged',
  'no-neutral': 'No neutral',
  'no-earth': 'No earth',
  dead: 'Dead',
  unclear: 'Unclear: something else shares these conductors',
}

function refusalText(circuit: Circuit, refusal: Refusal): string {
  const names = (ids: readonly string[]) => ids.map((id) => deviceName(circuit, id)).join(', ')
  switch (refusal.reason) {
    case 'live':
      return `This circuit is live from ${names(refusal.sources)}. Isolate it, prove dead, then test.`
    case 'neutral-joined':
      return `The neutral is still joined to the supply at ${names(refusal.sources)}. Isolate every pole first.`
    case 'live-beside':
      return `${terminalName(circuit, refusal.terminal)} is live beside the leads. Isolate it first.`
    case 'extra-low':
      return `500 V would reach ${terminalName(circuit, refusal.terminal)}, which is extra-low voltage. Disconnect it first.`
    case 'short':
      return 'Line is joined to neutral or earth at this moment. Let a protective device open first.'
  }
}

/** What the instrument shows, as large as it can be said: the figure, and a line beneath it. */
export function readingParts(circuit: Circuit, reading: Reading): { figure: string; note: string } {
  switch (reading.kind) {
    case 'volts': {
      const half =
        Math.abs(reading.mean) > 0.5 ? `half-waves: fundamental shown, mean ${voltsText(Math.abs(reading.mean))}` : ''
      return { figure: voltsText(reading.volts), note: half }
    }
    case 'ohms':
      if (reading.ohms === null) return { figure: 'Open', note: 'above 50 MΩ' }
      return { figure: ohmsText(reading.ohms), note: reading.closed ? 'closed: a conductor or a made contact' : '' }
    case 'insulation':
      if (reading.megohms === null) return { figure: '> 999 MΩ', note: 'sound' }
      return {
        figure: ohmsText(reading.megohms * 1e6),
        note: reading.megohms < leastMegohms ? `below ${leastMegohms} MΩ: find what lets current through` : '',
      }
    case 'polarity':
      return {
        figure: polarityWords[reading.verdict],
        note: `L–N ${voltsText(reading.lineNeutral)}, L–E ${voltsText(reading.lineEarth)}, N–E ${voltsText(reading.neutralEarth)}`,
      }
    case 'power':
      return {
        figure: `${reading.watts.toFixed(1)} W`,
        note: `${reading.va.toFixed(1)} VA, ${reading.amps < 1 ? `${Math.round(reading.amps * 1000)} mA` : `${reading.amps.toFixed(2)} A`}`,
      }
    case 'refused':
      return { figure: 'Refused', note: refusalText(circuit, reading.refusal) }
    case 'unknown':
      return { figure: 'Not known', note: 'A conductor here has an end nobody has found.' }
  }
}

/** Insulation below this is not accepted, MΩ: the usual least value at 500 V. */
const leastMegohms = 1

/** The reading in one line. */
export function readingText(circuit: Circuit, reading: Reading): string {
  const { figure, note } = readingParts(circuit, reading)
  return note ? `${figure} (${note})` : figure
}
