import { circuitOf, installationOf, rigAfter } from '../../testing'
import { compile } from '../circuit'
import { signsOf } from '../trace'
import { formatAction, parseAction } from '.'

const circuit = circuitOf('two-port-heating')
const called = (...actions: string[]) =>
  signsOf(rigAfter(circuit, 'stat-1.set=25', ...actions, 'wait=1min').simulation).boilers[0].calls.length > 0

describe('a programmer', () => {
  it('whose own clock is wrong keeps its week at other times, until that is set right', () => {
    const lost = ['programmer.heating=timed', 'lost-time=programmer/360']
    expect([called(...lost, 'clock=mon-07:00'), called(...lost, 'clock=mon-12:00')]).toEqual([false, true])
    expect(called(...lost, 'clock=mon-07:00', 'lost-time=programmer/0')).toBe(true)
    // What comes next is come to at the right moment too.
    expect(called(...lost, 'clock=mon-09:00', 'wait=2h')).toBe(true)
    expect(called('programmer.heating=timed', 'lost-time=programmer/-60', 'clock=mon-07:30')).toBe(true)
    expect(() => rigAfter(circuit, 'lost-time=stat-1/720')).toThrow('"stat-1" has no clock')
  })

  it('timed is on and off as its week says, and off while no clock is set', () => {
    expect(called('programmer.heating=timed')).toBe(false)
    expect(called('programmer.heating=timed', 'clock=mon-07:00')).toBe(true)
    expect(called('programmer.heating=timed', 'clock=mon-12:00')).toBe(false)
    expect(called('programmer.heating=timed', 'clock=sat-12:00')).toBe(true)
    expect(called('programmer.heating=timed', 'clock=mon-12:00', 'wait=5h')).toBe(true)
  })

  it('once is on from the first on of the day to its last off', () => {
    expect(called('programmer.heating=once', 'clock=mon-12:00')).toBe(true)
    expect(called('programmer.heating=once', 'clock=mon-23:00')).toBe(false)
    expect(called('programmer.heating=once', 'clock=mon-05:00')).toBe(false)
  })

  it('boosted goes back to timed after an hour, clock or none', () => {
    expect(called('programmer.heating=boost', 'wait=58min')).toBe(true)
    const rig = rigAfter(circuit, 'programmer.heating=boost', 'wait=61min')
    expect(rig.simulation.control('programmer', 'heating')).toBe('timed')
  })

  it('follows a week that the document gives, past the end of the week', () => {
    const doc = installationOf('two-port-heating')
    doc.devices.find((d) => d.id === 'programmer')!.programme = {
      heating: [
        { day: 6, minute: 23 * 60, value: 'on' },
        { day: 0, minute: 60, value: 'off' },
      ],
    }
    const at = (time: string) =>
      rigAfter(
        compile(doc),
        'stat-1.set=25',
        'programmer.heating=timed',
        `clock=${time}`,
        'wait=1min',
      ).simulation.phase(0).phase
    expect([at('sun-22:30'), at('sun-23:30'), at('mon-00:30'), at('mon-01:30')]).toEqual([
      'idle',
      'firing',
      'firing',
      'idle',
    ])
  })

  it('comes to rest though its clock goes on', () => {
    const rig = rigAfter(circuit, 'stat-1.set=25', 'programmer.heating=timed', 'clock=mon-06:29')
    expect(rig.simulation.settle()).toBe('settled')
    expect(rig.simulation.time).toBeLessThan(60_000)
  })
})

describe('a hygiene run', () => {
  it('comes by the clock on Sunday night, unless it is switched off', () => {
    const on = (...actions: string[]) =>
      rigAfter(circuitOf('smart-receiver'), ...actions, 'clock=sun-01:59', 'wait=5min').simulation.phase(0).phase
    expect(on('cyl-stat.set=75')).toBe('firing')
    expect(on('cyl-stat.set=75', 'receiver.hygiene=off')).toBe('idle')
  })
})

it('actions on clock and heat are written as they are read', () => {
  for (const text of [
    'clock=mon-06:30',
    'clock=sun-23:59',
    'lost-time=programmer/-60',
    'heat=semi/cold-snap',
    'heat=off',
  ])
    expect(formatAction(parseAction(text))).toBe(text)
  expect(() => parseAction('clock=monday')).toThrow('for example mon-06:30')
  expect(() => parseAction('lost-time=programmer')).toThrow('write DEVICE/720')
  expect(() => parseAction('heat=castle/winter')).toThrow('write one of flat, semi, large')
})
