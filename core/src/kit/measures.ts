import type { Amount, DeviceType, Load } from '../catalogue'

/** What can be measured on a device of this type alone, between two of its terminals. */
export type Measure =
  /** Dead: ohms of a winding or heater. */
  | { kind: 'resistance'; part: string; between: [string, string]; ohms: number }
  /** Dead: a contact, by its throw. */
  | { kind: 'contact'; part: string; between: [string, string]; throw: 'made' | 'no' | 'nc' }
  /** Dead: a fuse. */
  | { kind: 'fuse'; part: string; between: [string, string]; amps: number }
  /** Live: what stands across a load; `always` where it hangs on the permanent live. */
  | { kind: 'volts'; part: string; between: [string, string]; volts: number; pullsIn: number; always: boolean }
  /** Live: what a secondary gives. */
  | { kind: 'secondary'; part: string; between: [string, string]; full: number; open: number }

/** A figure by the type's own defaults. */
export const usual = (type: DeviceType, amount: Amount): number =>
  typeof amount === 'number' ? amount : type.settings.find((s) => s.id === amount.setting)!.default

/** Per cent of nominal volts from which a load works where it does not say: as the circuit takes it. */
const usualPullIn = 75

/** Ohms for direct current: of a winding its wire alone, P = V² pf / |Z|. */
function dcOhms(type: DeviceType, load: Load, volts: number): number {
  if (load.ohms !== undefined) return usual(type, load.ohms)
  const whole = (volts * volts) / usual(type, load.watts!)
  if (load.dcPercent === undefined) return whole
  return (whole * usual(type, load.powerFactor ?? 1) * usual(type, load.dcPercent)) / 100
}

/** Does a load move an actuator? */
const drives = (type: DeviceType, load: string) =>
  type.primitives.some((p) => p.kind === 'actuator' && p.drivenBy === load)

/** The outer terminal that a point inside the device is joined to at rest, one contact, fuse or strap away. */
function outerAtRest(type: DeviceType, outside: ReadonlySet<string>, terminal: string): string {
  if (outside.has(terminal)) return terminal
  const joined = type.primitives.flatMap((p): [string, string][] => {
    if (p.kind === 'changeover') return [[p.common, p.nc]]
    return p.kind === 'strap' || p.kind === 'fuse' ? [[p.a, p.b]] : []
  })
  const ends = joined.flatMap(([a, b]) => (a === terminal ? [b] : b === terminal ? [a] : []))
  return ends.find((end) => outside.has(end)) ?? terminal
}

/** Everything that can be measured between terminals a probe reaches, on a supply of `supplyVolts`. */
export function measuresOf(type: DeviceType, supplyVolts: number): Measure[] {
  const outside = new Set(type.terminals.filter((t) => !t.internal).map((t) => t.id))
  const all = type.primitives.flatMap((p): Measure[] => {
    const part = p.id
    switch (p.kind) {
      case 'load': {
        const volts = p.volts === undefined ? supplyVolts : usual(type, p.volts)
        const between: [string, string] = [outerAtRest(type, outside, p.from), outerAtRest(type, outside, p.to)]
        const pullsIn = (usual(type, p.pullsIn ?? usualPullIn) / 100) * volts
        const always = type.terminals.find((t) => t.id === p.from)!.role === 'permanent-live'
        // Electronics have no resistance worth measuring: wire has.
        const wire = p.dcPercent !== undefined || p.work === 'heats' || drives(type, p.id)
        return [
          ...(wire ? [{ kind: 'resistance', part, between, ohms: dcOhms(type, p, volts) } as const] : []),
          ...(outside.has(p.from) ? [{ kind: 'volts', part, between, volts, pullsIn, always } as const] : []),
        ]
      }
      case 'contact':
        return [{ kind: 'contact', part, between: [p.a, p.b], throw: 'made' }]
      case 'changeover':
        return [
          { kind: 'contact', part, between: [p.common, p.no], throw: 'no' },
          { kind: 'contact', part, between: [p.common, p.nc], throw: 'nc' },
        ]
      case 'fuse':
        return [{ kind: 'fuse', part, between: [p.a, p.b], amps: usual(type, p.amps) }]
      case 'transformer': {
        const full = usual(type, p.volts)
        return [
          {
            kind: 'secondary',
            part,
            between: [p.fed, p.common],
            full,
            open: full * (1 + usual(type, p.regulation) / 100),
          },
        ]
      }
      default:
        return []
    }
  })
  return all.filter(({ between }) => between.every((t) => outside.has(t)))
}
