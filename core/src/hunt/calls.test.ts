import { called, circuitOf, showingOf } from '../../testing'
import { Hunt, type HuntEntry } from '.'

/** Calls that are gone to the end: the customer speaks, the hunt leads, what it comes to is mended, and that it cured is seen. */
describe('a call led by the hunt', () => {
  const cases: [example: string, truth: string][] = [
    ['two-port-heating', 'zv-1.end-switch.never-makes'],
    ['mid-position', 'valve.s2.never-operates'],
    ['low-voltage', 'zv-2.motor.open'],
    ['diverter', 'valve.motor.open'],
    ['single-zone', 'call-cable.white.open'],
    ['single-zone-bus', 'nothing-wrong'],
    ['two-port-heating-hot-water', 'start programmer clock'],
    ['hot-water-priority', 'zv-hw.motor.open'],
    ['gravity', 'stat-1-cable.black.open'],
  ]
  it.each(cases)(
    '%s, %s: ends with it mended, and with nothing changed for nothing but what reads alike',
    (id, name) => {
      const hunt = new Hunt(circuitOf(id))
      const truth = hunt.suspects.find((s) => s.id === name)!.hypothesis!
      const { found, wrongParts, looks, log } = called(hunt, { truth: [truth], seed: 4, exact: true })
      expect({ found, wrongParts }).toEqual({ found: true, wrongParts: 0 })
      expect(looks).toBeLessThan(20)
      // Whatever was put right was looked at afterwards; one link is in at a time, the last of which he is told to put back.
      const mended = log.findLastIndex((e) => 'mended' in e)
      if (mended >= 0) expect(log.slice(mended).some((e) => 'see' in e)).toBe(true)
      const acts = log.flatMap((e) => ('do' in e ? [e.do] : []))
      const count = (verb: string) => acts.filter((act) => act.startsWith(`${verb}=`)).length
      expect(count('link') - count('unlink')).toBeLessThanOrEqual(1)
    },
  )

  it('tells what a customer would notice from what only a look shows, and from what nothing does', () => {
    const hunt = new Hunt(circuitOf('two-port-heating'))
    const showing = showingOf(hunt)
    const of = (id: string) => showing[hunt.suspects.findIndex((s) => s.id === id)]
    expect(of('zv-1.motor.open')).toBe('noticed')
    expect(of('pump-cable.green-yellow.open')).toBe('latent')
    expect(of('programmer.heating.rest-contact-open')).toBe('silent')
  })
})

describe('what the customer says', () => {
  const twoPort = new Hunt(circuitOf('two-port-heating-hot-water'))
  const after = (...log: HuntEntry[]) => {
    const hunt = twoPort.again()
    hunt.follow(log)
    const { shares } = hunt.ranking()
    return (id: string) => shares[hunt.suspects.findIndex((s) => s.id === id)]
  }
  const says = (what: string, demand?: string): HuntEntry =>
    ({ id: `${what} ${demand}`.replace(/ /g, '-'), says: { what, ...(demand && { demand }) } }) as HuntEntry
  const nothing = after()

  it.each([
    ['does-not-come-on', 'heating-1', 'zv-1.motor.open', 'zv-hw.motor.open'],
    ['never-goes-off', 'hot-water', 'zv-hw.end-switch.stuck-made', 'zv-1.motor.open'],
    ['warms-with-another', 'heating-1', 'zv-1.outlet.passes', 'pump.motor.open'],
    ['gets-too-hot', 'hot-water', 'cyl-stat.contact.stuck-operated', 'stat-1.contact.never-makes'],
    ['blows-the-fuse', 'heating-1', 'boiler.casing.leak', 'zv-1.motor.open'],
    ['comes-on-at-wrong-times', 'hot-water', 'start programmer clock', 'zv-1.motor.open'],
  ])('"%s" of %s speaks for %s, and against %s', (what, demand, likelier, less) => {
    const told = after(says(what, demand))
    expect(told(likelier)).toBeGreaterThan(nothing(likelier))
    expect(told(less)).toBeLessThan(nothing(less))
    // They are right three times in four: nobody is out for it.
    expect(told(less)).toBeGreaterThan(nothing(less) / 100)
  })

  it('is one of many things that could have been said, but that a service is fine is yes or no', () => {
    const likeliest = (told: (id: string) => number) =>
      twoPort.suspects.map(({ id }) => id).reduce((x, y) => (told(y) > told(x) ? y : x))
    expect(likeliest(after(says('comes-on-at-wrong-times', 'heating-1')))).toBe('start programmer clock')
    const fine = after(says('is-fine', 'heating-1'))
    expect(fine('zv-1.motor.open') / nothing('zv-1.motor.open')).toBeGreaterThan(0.3)
  })

  it('of one service that is fine and another that is not tells more than either', () => {
    const one = after(says('does-not-come-on', 'heating-1'))
    const both = after(says('does-not-come-on', 'heating-1'), says('is-fine', 'hot-water'))
    expect(both('zv-1.motor.open')).toBeGreaterThan(one('zv-1.motor.open'))
    expect(both('boiler.sequence.lockout')).toBeLessThan(one('boiler.sequence.lockout'))
  })

  it('somebody was here before and held the pump to be at fault: for it, and not much', () => {
    const told = after({ id: 'earlier', blamed: 'pump' })
    const ratio = told('pump.motor.open') / nothing('pump.motor.open')
    expect(ratio).toBeGreaterThan(1)
    expect(ratio).toBeLessThan(3)
    expect(told('zv-1.motor.open')).toBeGreaterThan(0.5 * nothing('zv-1.motor.open'))
    // Nor for what is on no list.
    expect(told('not-on-the-list')).toBeLessThanOrEqual(nothing('not-on-the-list'))
  })

  it('of a service or a device that is not there is refused', () => {
    expect(() => twoPort.again().follow([says('is-fine', 'sauna')])).toThrow('there is no demand "sauna"')
    expect(() => twoPort.again().follow([{ id: 'x', blamed: 'sauna' }])).toThrow('there is no device "sauna"')
  })
})
