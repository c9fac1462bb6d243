import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { wired } from '../../testing'
import { compile } from '../circuit'
import {
  deviceType,
  deviceTypeJsonSchema,
  deviceTypes,
  readDeviceType,
  typeDirectory,
  typeFormat,
  typeProblems,
  type DeviceType,
} from '.'

describe.each(deviceTypes.map((t): [string, DeviceType] => [t.id, t]))('device type %s', (_, type) => {
  it('is whole: everything it names is there, within its range, and leads somewhere', () => {
    expect(typeProblems(type)).toEqual([])
  })

  it('is read back as it was written', () => {
    expect(readDeviceType(JSON.parse(JSON.stringify({ format: typeFormat, ...type })))).toEqual({
      type: JSON.parse(JSON.stringify(type)),
    })
  })

  it('lets every contact and every throw between its terminals fail open, stick, and lose its feed', () => {
    const inside = new Set(type.terminals.flatMap((t) => (t.internal ? [t.id] : [])))
    for (const p of type.primitives) {
      const modes = new Set(p.failures?.map((f) => f.mode))
      // What lies within a device shows as the failure of what it feeds.
      const wanted =
        p.kind === 'contact' && !inside.has(p.a) && !inside.has(p.b)
          ? ['held-open', 'held-closed']
          : p.kind === 'changeover' && ![p.common, p.no, p.nc].every((t) => inside.has(t))
            ? ['held-released', 'held-operated', 'made-throw-open', 'rest-throw-open']
            : []
      expect([p.id, wanted.filter((mode) => !modes.has(mode as never))]).toEqual([p.id, []])
    }
  })

  it('compiles at every corner of its settings', () => {
    const { settings } = type
    for (let corner = 0; corner < 2 ** Math.min(settings.length, 9); corner++) {
      const at = settings.map((s, i): [string, number] => [s.id, (corner >> i) & 1 ? s.max : s.min])
      compile(wired({ devices: { it: [type.id, Object.fromEntries(at)] }, wires: [] }))
    }
  })

  it('says what cures each failure, in a sentence', () => {
    for (const failure of type.primitives.flatMap((p) => p.failures ?? [])) expect(failure.remedy).toMatch(/\.$/)
  })
})

describe('a device type from outside', () => {
  const valve = () => JSON.parse(JSON.stringify(deviceType('two-port-valve')))
  const wrong = (spoil: (type: ReturnType<typeof valve>) => void) => {
    const type = valve()
    spoil(type)
    const read = readDeviceType(type)
    return 'problems' in read ? read.problems.map((p) => `${p.field}: ${p.reason}`) : []
  }

  it.each<[string, (type: ReturnType<typeof valve>) => void, RegExp]>([
    [
      'a part on a terminal that is not there',
      (t) => (t.primitives[0].from = 'X'),
      /primitives.0.from: there is no terminal "X"/,
    ],
    ['a setting that is not there', (t) => (t.settings = []), /there is no setting "open"/],
    ['a switch on travel that is not there', (t) => t.primitives.splice(1, 1), /there is no actuator "travel"/],
    [
      'a terminal that leads nowhere',
      (t) => t.terminals.push({ id: 'Z', legend: 'Spare', role: 'output' }),
      /nothing inside leads to "Z"/,
    ],
    [
      'a failure its part cannot have',
      (t) => (t.primitives[0].failures[0].mode = 'blown'),
      /primitives.0.failures.0.mode/,
    ],
    ['no name', (t) => (t.name = ' '), /name: a name is needed/],
    ['a field nobody knows', (t) => (t.colour = 'red'), /nothing is known here of "colour"/],
    ['a load of neither watts nor ohms', (t) => delete t.primitives[0].watts, /watts or ohms/],
    ['two parts of one name', (t) => t.primitives.push(t.primitives[0]), /"motor" is there twice/],
    ['a default out of range', (t) => (t.settings[0].default = 900), /settings.0.default: is not 5 to 60 s/],
    ['a position the lever has not', (t) => (t.controls[0].initial = 'up'), /controls.0.initial: "up" is not one of/],
    [
      'a condition that is none',
      (t) => (t.primitives.find((p: { id: string }) => p.id === 'end-switch').closedWhen = {}),
      /closedWhen/,
    ],
  ])('is refused for %s, with field and reason', (_, spoil, reason) => {
    expect(wrong(spoil).join('; ')).toMatch(reason)
  })

  it('has a published schema that is the one it is read by', () => {
    const published = readFileSync(join(process.cwd(), 'docs/formats/device-type.schema.json'), 'utf8')
    expect(JSON.parse(published)).toEqual(JSON.parse(JSON.stringify(deviceTypeJsonSchema())))
  })

  it('is taken when it is whole', () => {
    expect(wrong(() => undefined)).toEqual([])
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
