import { EventLog } from './event-log'
import type { SimEvent } from './events'

const at = (time: number): SimEvent => ({ time, kind: 'short' })
const times = (log: EventLog) => log.all.map((e) => e.time)

describe('the log of events', () => {
  it('goes its own way from where it was copied', () => {
    const log = new EventLog()
    log.add(at(1))
    const copy = log.copy()
    log.add(at(2))
    copy.add(at(3))
    expect([times(log), times(copy)]).toEqual([
      [1, 2],
      [1, 3],
    ])
  })

  it('never grows without bound, and drops what is oldest', () => {
    const log = new EventLog()
    for (let time = 0; time < 250_000; time++) log.add(at(time))
    expect(log.all.length).toBeLessThanOrEqual(200_000)
    expect(log.all[log.all.length - 1].time).toBe(249_999)
    expect(log.all[0].time).toBe(100_000)
  })
})
