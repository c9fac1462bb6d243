/**
 * Two-ended linear elements by their impedance at multiples of the supply's frequency. Harmonic 0 is direct current.
 */
export type Element =
  | { kind: 'resistance'; ohms: number }
  /** DC resistance in series with an inductance that has a loss resistance beside it. */
  | { kind: 'winding'; dcOhms: number; lossOhms: number; henrys: number }
  | { kind: 'capacitance'; farads: number; ohms: number }

/** A complex number being worked on; reused so that nothing is allocated in a loop. */
export interface Complex {
  re: number
  im: number
}

/** Admittance in 1/Ω at `harmonic` times the angular frequency `omega` (rad/s), written into `out`. */
export function admittance(element: Element, harmonic: number, omega: number, out: Complex): Complex {
  switch (element.kind) {
    case 'resistance':
      out.re = 1 / element.ohms
      out.im = 0
      return out
    case 'capacitance': {
      if (harmonic === 0) out.re = out.im = 0
      else invert(element.ohms, -1 / (harmonic * omega * element.farads), out)
      return out
    }
    case 'winding': {
      const x = harmonic * omega * element.henrys
      const { dcOhms, lossOhms } = element
      // jx beside R: R x² / (R² + x²) + j R² x / (R² + x²).
      const d = lossOhms * lossOhms + x * x
      return invert(dcOhms + (lossOhms * x * x) / d, (lossOhms * lossOhms * x) / d, out)
    }
  }
}

function invert(r: number, x: number, out: Complex): Complex {
  const d = r * r + x * x
  out.re = r / d
  out.im = -x / d
  return out
}

/**
 * A winding that at nominal voltage draws `watts` at `powerFactor` and whose DC resistance is `dcPercent` per cent of
 * its impedance |Z| = V² · pf / P. What is left of Z after the DC resistance is split into inductance and loss beside
 * each other. Throws where the DC resistance is more than the running resistance: no such winding exists.
 */
export function winding(volts: number, watts: number, powerFactor: number, dcPercent: number, omega: number): Element {
  const ohms = (volts * volts * powerFactor) / watts
  const dcOhms = (ohms * dcPercent) / 100
  const r = ohms * powerFactor - dcOhms
  const x = ohms * Math.sqrt(1 - powerFactor * powerFactor)
  if (r <= 0 || x <= 0)
    throw new RangeError(`a winding of power factor ${powerFactor} cannot have a DC resistance of ${dcPercent} %`)
  const squared = r * r + x * x
  return { kind: 'winding', dcOhms, lossOhms: squared / r, henrys: squared / x / omega }
}
