import fc from 'fast-check'
import { isEarthColour } from '../catalogue'
import { check, isGrave } from '../checks'
import { compile } from '../circuit'
import { colourSchema, type Colour } from '../installation'
import { planSystem } from './plan'
import { planBriefSchema } from './plan-brief'

const house = {
  scheme: 'two-port',
  circuits: [
    { kind: 'heating', name: 'House' },
    { kind: 'hot-water', name: 'Hot water' },
  ],
}
const withCable = (cable: string, colours: Colour[]) =>
  planBriefSchema.safeParse({ ...house, inWall: { [cable]: colours } })
const coresOf = (cable: string, colours: Colour[]) => {
  const plan = planSystem(withCable(cable, colours).data!, 'plan', 'Plan')
  return plan.cables
    .find(({ id }) => id === cable)!
    .cores.map(({ colour, sleeve, ends: [near] }) => [
      sleeve ? `${colour} sleeved ${sleeve}` : colour,
      'terminal' in near ? near.terminal.split('.')[1] : near.at,
    ])
}

describe('a cable that is in the wall', () => {
  it('is used as it is, with sleeves where a colour says something else', () => {
    expect(coresOf('cyl-stat-cable', ['brown', 'blue', 'green-yellow'])).toEqual([
      ['brown', 'C'],
      ['blue sleeved brown', 'DEMAND'],
      ['green-yellow', 'E'],
    ])
  })
  it('of an older house serves by the colours of its time', () => {
    expect(coresOf('stat-1-cable', ['red', 'black', 'yellow', 'green-yellow'])).toEqual([
      ['red', 'L'],
      ['black', 'N'],
      ['yellow', 'SL'],
      ['green-yellow', 'E'],
    ])
  })
  it('needs no earth for a plastic plate, and keeps what is left over', () => {
    expect(coresOf('programmer-cable', ['brown', 'blue', 'black', 'grey', 'red'])).toEqual([
      ['brown', 'L'],
      ['blue', 'N'],
      ['black', 'HTG-ON'],
      ['grey', 'HW-ON'],
      ['red', 'cut-back'],
    ])
  })
  it('with two cores of one colour has a name for each', () => {
    const plan = planSystem(withCable('programmer-cable', ['brown', 'brown', 'blue', 'black']).data!, 'plan', 'Plan')
    expect(plan.cables.find(({ id }) => id === 'programmer-cable')!.cores.map(({ id }) => id)).toEqual([
      'brown',
      'brown-2',
      'blue',
      'black',
    ])
  })
  it('with too few cores is refused: what is wanting is named, and green-yellow does not stand in', () => {
    const read = withCable('stat-1-cable', ['brown', 'blue', 'green-yellow'])
    expect(read.error!.issues[0].path).toEqual(['inWall', 'stat-1-cable'])
    expect(read.error!.issues[0].message).toContain('none is left for a switched live')
  })
  it('that the plan does not have is refused with those it has', () => {
    expect(withCable('stat-7-cable', ['brown', 'blue']).error!.issues[0].message).toMatch(
      /no cable "stat-7-cable": it has supply, programmer-cable,/,
    )
  })
  it('whatever its cores, is refused or laid out with earth on earth alone, and the plan breaks no rule', () => {
    const cables = ['supply', 'programmer-cable', 'stat-1-cable', 'cyl-stat-cable', 'boiler-cable']
    let laid = 0
    fc.assert(
      fc.property(
        fc.constantFrom(...cables),
        fc.array(fc.constantFrom(...colourSchema.options), { minLength: 2, maxLength: 7 }),
        (cable, colours) => {
          const read = withCable(cable, colours)
          if (!read.success) return
          laid++
          const plan = planSystem(read.data, 'plan', 'Plan')
          for (const { colour, ends } of plan.cables.find(({ id }) => id === cable)!.cores)
            if (isEarthColour(colour) && ends[0].at === 'terminal') expect(ends[0].terminal).toMatch(/\.E$/)
          if (laid % 10 === 0) expect(check(compile(plan)).findings.filter(isGrave)).toEqual([])
        },
      ),
      { numRuns: 150, seed: 4 },
    )
    expect(laid).toBeGreaterThan(20)
  })
})
