import { idSchema, nothingSeen } from '@nobbet/core'
import { newCable, ownId, readLine, readNearEnd, withTerminal } from './typed'

describe('a line typed at a box', () => {
  it.each([
    ['5', { colours: ['brown', 'blue', 'green-yellow', 'black', 'grey'] }],
    ['br bl gy', { colours: ['brown', 'blue', 'green-yellow'] }],
    ['Red, black', { colours: ['red', 'black'] }],
    ['3-4', { links: [['3', '4']] }],
    [
      '1-2-3',
      {
        links: [
          ['1', '2'],
          ['2', '3'],
        ],
      },
    ],
  ])('"%s" is a cable or links', (text, read) => expect(readLine(text)).toEqual(read))

  it('that is neither says what it could have been', () => {
    expect(readLine('purple')).toMatch(/neither 3, 4 or 5 cores/)
  })

  it.each([
    ['17', { at: 'terminal', terminal: '17' }],
    ['x', { at: 'cut-back' }],
    ['-', { at: 'loose' }],
    ['p5', { at: 'parked', terminal: '5' }],
    ['c2', { at: 'connector', connector: 'connector-2' }],
    ['', { at: 'unseen' }],
  ])('"%s" is where a conductor sits', (text, at) => expect(readNearEnd(text)).toEqual(at))

  it('that is no terminal says how one is written', () => {
    expect(readNearEnd('a.b')).toMatch(/no terminal/)
  })
})

describe('what is written down', () => {
  it('of a terminal with a number has those before it too, in their order', () => {
    const two = withTerminal(nothingSeen, '2')!
    expect(two.map(({ id }) => id)).toEqual(['1', '2'])
    const survey = { ...nothingSeen, terminals: two }
    expect(withTerminal(survey, '2')).toBeUndefined()
    expect(withTerminal(survey, 'L')!.map(({ id }) => id)).toContain('L')
    expect(withTerminal(survey, '10')!.map(({ id }) => id)).toEqual(Array.from({ length: 10 }, (_, i) => `${i + 1}`))
  })

  it('has a name of its own, and conductors at which nobody has looked', () => {
    const first = newCable(nothingSeen, ['brown', 'blue'])
    const next = newCable({ ...nothingSeen, cables: [first] }, ['red'], 'two-port-valve')
    expect([first.label, next.label]).toEqual(['Cable 1', 'Cable 2'])
    expect(first.id).not.toBe(next.id)
    expect(next).toMatchObject({ leadOf: 'two-port-valve', cores: [{ colour: 'red', at: { at: 'unseen' } }] })
    expect(idSchema.safeParse(ownId('cable')).success).toBe(true)
    // One that was taken out leaves its number free; another never gets the same twice.
    expect(newCable({ ...nothingSeen, cables: [next] }, ['red']).label).toBe('Cable 3')
  })
})
