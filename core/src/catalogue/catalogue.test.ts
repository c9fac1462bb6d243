import {
  deviceTypes,
  leavesOf,
  typeDirectory,
  type Condition,
  type DeviceType,
  type FailureMode,
  type Primitive,
} from '.'

const conditionsOf = (p: Primitive): Condition[] => {
  switch (p.kind) {
    case 'contact':
      return [p.closedWhen]
    case 'changeover':
      return [p.operatedWhen]
    case 'behaviour':
      return Object.values(p.watches)
    case 'bus':
      return Object.values(p.requests ?? {})
    default:
      return []
  }
}

/** Which ways of failing a kind of part can have at all. */
const modes: Record<Primitive['kind'], FailureMode[]> = {
  contact: ['held-open', 'held-closed', 'makes-sometimes'],
  changeover: ['held-released', 'held-operated', 'made-throw-open', 'rest-throw-open'],
  load: ['open-circuit', 'jammed', 'held-energised'],
  actuator: ['seized-shut', 'seized-open', 'seized-part-way', 'no-return', 'turned'],
  fuse: ['blown'],
  diode: ['open-circuit', 'short-circuit'],
  transformer: ['open-circuit'],
  insulation: ['short-circuit'],
  'residual-trip': [],
  suppressor: [],
  port: ['passes'],
  strap: [],
  sensor: ['never-asks'],
  source: [],
  bus: ['silent'],
  behaviour: ['locked-out'],
  waterway: [],
  'heat-source': [],
  emitter: [],
  store: [],
}

describe.each(deviceTypes.map((t): [string, DeviceType] => [t.id, t]))('device type %s', (_, type) => {
  const parts = new Map(type.primitives.map((p) => [p.id, p]))
  const terminals = new Set(type.terminals.map((t) => t.id))
  const controls = new Map(type.controls.map((c) => [c.id, c]))

  it('names each terminal, part, control and setting once', () => {
    for (const list of [type.terminals, type.primitives, type.controls, type.settings]) {
      const ids = list.map((x) => x.id)
      expect(new Set(ids).size).toBe(ids.length)
    }
  })

  it('joins its parts only to terminals it has', () => {
    const used = type.primitives.flatMap((p): string[] => {
      switch (p.kind) {
        case 'contact':
        case 'strap':
        case 'fuse':
        case 'insulation':
        case 'suppressor':
          return [p.a, p.b]
        case 'diode':
          return [p.anode, p.cathode]
        case 'transformer':
          return [p.fed, p.common]
        case 'changeover':
          return [p.common, p.no, p.nc]
        case 'load':
          return [p.from, p.to]
        case 'bus':
          return [p.a, p.b]
        case 'source':
          return [p.line, p.neutral, p.earth]
        default:
          return []
      }
    })
    for (const id of used) expect(terminals).toContain(id)
  })

  it('moves its contacts by controls, sensors, loads and travel that it has', () => {
    for (const leaf of type.primitives.flatMap(conditionsOf).flatMap(leavesOf)) {
      if ('control' in leaf) {
        const control = controls.get(leaf.control)
        if (control?.kind !== 'choice') throw new Error(`${leaf.control} is no switch`)
        for (const value of leaf.is) expect(control.values.map((v) => v.id)).toContain(value)
      } else if ('sensor' in leaf) expect(parts.get(leaf.sensor)?.kind).toBe('sensor')
      else if ('actuator' in leaf) expect(parts.get(leaf.actuator)?.kind).toBe('actuator')
      else if ('energised' in leaf) expect(parts.get(leaf.energised)?.kind).toBe('load')
      else if ('setting' in leaf) expect(type.settings.map((s) => s.id)).toContain(leaf.setting)
      else if ('linked' in leaf) expect(parts.get(leaf.linked)?.kind).toBe('bus')
      else if ('hears' in leaf) expect(parts.get(leaf.hears)?.kind).toBe('bus')
      else if ('behaviour' in leaf) expect(parts.get(leaf.behaviour)?.kind).toBe('behaviour')
    }
  })

  it('lets its parts fail only as such parts can, each failure with a weight and a remedy', () => {
    for (const part of type.primitives)
      for (const failure of part.failures ?? []) {
        expect(modes[part.kind]).toContain(failure.mode)
        expect(failure.prior).toBeGreaterThan(0)
        expect(failure.remedy).toMatch(/\.$/)
      }
  })

  it('starts every control and setting within its range, and says where the figure comes from', () => {
    for (const s of type.settings) {
      expect(s.default).toBeGreaterThanOrEqual(s.min)
      expect(s.default).toBeLessThanOrEqual(s.max)
      expect(s.unit).not.toBe('')
      expect(s.origin).not.toBe('')
    }
    for (const c of type.controls) {
      if (c.kind === 'choice') expect(c.values.map((v) => v.id)).toContain(c.initial)
      else expect([c.initial >= c.min, c.initial <= c.max]).toEqual([true, true])
    }
  })

  it('can be called only on terminals and loads it has', () => {
    for (const input of type.inputs) {
      expect(terminals).toContain(input.terminal)
      expect(parts.get(input.load)?.kind).toBe('load')
    }
  })
})

describe('the catalogue', () => {
  it('does not let an end switch be set to make before 85 % of travel', () => {
    const setting = deviceTypes.find((t) => t.id === 'two-port-valve')!.settings.find((s) => s.id === 'makes')!
    expect(setting.min).toBe(0.85)
  })

  it('offers conductors no terminal inside a device', () => {
    expect(typeDirectory.terminalsOf('fused-spur')).toEqual(['L', 'N', 'E'])
    expect(typeDirectory.terminalsOf('toaster')).toBeUndefined()
  })
})
