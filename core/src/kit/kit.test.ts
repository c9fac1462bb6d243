import { deviceType, deviceTypes, type DeviceType } from '../catalogue'
import { measureText, noticedTexts, partWhenText, symptomTexts } from '../wording'
import { measuresOf } from '.'

const named = deviceTypes.map((t): [string, DeviceType] => [t.id, t])
const whole = (text: string) => expect(text).not.toMatch(/undefined|null|NaN|\[object/)
const shown = (type: string, failure: string) =>
  Object.fromEntries(
    symptomTexts(deviceType(type))
      .symptoms.find((s) => s.fault.endsWith(failure))!
      .shows.map(({ asked, lines }) => [asked, lines]),
  )

describe('what is said of every device type', () => {
  it.each(named)('%s: its parts, measurements and symptoms, in whole sentences', (_, type) => {
    type.primitives.forEach((part) => whole(partWhenText(type, part)))
    measuresOf(type, 230).forEach((m) => Object.values(measureText(type, m)).forEach(whole))
    const { example, symptoms } = symptomTexts(type)
    const failures = type.primitives.flatMap((p) => p.failures ?? [])
    // Only the suppressor, which cannot fail, has no system to be watched on.
    expect(example === undefined).toBe(type.id === 'suppressor')
    expect(symptoms).toHaveLength(failures.length)
    symptoms.flatMap((s) => s.shows).forEach(({ asked, lines }) => [asked, ...lines].forEach(whole))
  })
})

describe('a fault’s symptoms', () => {
  it('are told by what is asked, and only where something shows', () => {
    expect(shown('two-port-valve', 'end-switch.stuck-made')).toEqual({
      'nothing wanted': ['Boiler called, shows firing', 'Pump runs'],
      'programmer on, thermostats satisfied': ['Boiler called, shows firing', 'Pump runs'],
      'programmer off, thermostats calling': ['Boiler called, shows firing', 'Pump runs'],
      'everything off again': ['Boiler called, shows firing', 'Pump runs'],
    })
  })

  it('of a welded contact show where the other contact asks for nothing', () => {
    expect(Object.keys(shown('programmer-two-channel', 'heating.stuck-operated'))).toEqual([
      'programmer off, thermostats calling',
    ])
    expect(Object.keys(shown('room-thermostat-neutral', 'contact.stuck-made'))).toContain(
      'programmer on, thermostats satisfied',
    )
  })

  it('of a broken spring show only once the valve should have come back', () => {
    expect(Object.keys(shown('two-port-valve', 'travel.no-return'))).toEqual(['everything off again'])
  })
})

describe('what to measure', () => {
  const measures = (id: string) => measuresOf(deviceType(id), 230).map((m) => measureText(deviceType(id), m))

  it('of a valve is its winding, 2 to 3 kΩ, and its end switch', () => {
    const [winding, , contact] = measures('two-port-valve')
    expect(winding).toMatchObject({ where: 'M to N', expect: 'about 2.47 kΩ; open if it has failed' })
    expect(contact).toMatchObject({ where: 'SF to SO', expect: 'under 1 Ω while it is made, open otherwise' })
  })

  it('of a transformer is its secondary, unloaded and at full load', () => {
    expect(measures('switching-relay').find((m) => m.where === 'R to C')!.expect).toMatch(
      /^28.8 V unloaded, 24 V at full/,
    )
  })

  it('comes with what can be noticed without a tool', () => {
    expect(noticedTexts(deviceType('two-port-valve'))).toEqual([
      'hum of the motor',
      'its lever: resists, slack, latched, or does not move',
      'click of the end switch',
    ])
  })

  it('is no resistance of electronics', () => {
    expect(measures('wireless-receiver').every((m) => !m.expect.includes('open if it has failed'))).toBe(true)
  })
})
