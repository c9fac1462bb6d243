import { calendarOf } from './calendar'
import { dueText, isOver } from './due-text'

const now = new Date('2026-11-27T15:00:00Z')

describe('a day', () => {
  it.each([
    ['2026-11-20', '7 days over', true],
    ['2026-11-26', 'a day over', true],
    ['2026-11-27', 'today', false],
    ['2026-11-28', 'tomorrow', false],
    ['2026-12-02', 'in 5 days', false],
  ])('%s is %s', (on, words, over) => {
    expect([dueText(on, now), isOver(on, now)]).toEqual([words, over])
  })
})

describe('the calendar', () => {
  const due = { id: 'due-1', job: 'job-1', kind: 'measure' as const, what: 'Link, out; again', on: '2026-12-01' }

  it('has an event of a whole day for each, which stays the same event when it is made again', () => {
    const text = calendarOf([{ ...due, site: 'Mill House', at: 'https://nobbet.local/jobs/job-1/visit' }])
    expect(text).toMatch(/^BEGIN:VCALENDAR\r\n/)
    expect(text).toContain('DTSTART;VALUE=DATE:20261201')
    expect(text).toContain('UID:job-1-due-1@nobbet')
    expect(text).toContain('SUMMARY:Temporary measure ends: Mill House')
    expect(text).toContain('DESCRIPTION:Link\\, out\\; again')
  })
})
