import { exampleById } from '../examples'
import { pagesOf, wiringCentreSvg } from './wiring-centre-svg'

describe('a wiring centre drawn on pages', () => {
  const large = exampleById('more-zones')!.installation
  it('has every terminal on one page, none longer than it may be', () => {
    const pages = pagesOf(large, 'wc', 20)
    const count = large.wiringCentres[0].terminals.length
    expect(pages.flatMap(([from, to]) => Array.from({ length: to - from }, (_, i) => from + i))).toEqual(
      Array.from({ length: count }, (_, i) => i),
    )
    expect(Math.max(...pages.map(([from, to]) => to - from))).toBe(20)
  })
  it('says which terminals they are, and shows a link that runs over the edge on both pages', () => {
    const [first, second] = pagesOf(large, 'wc', 3)
    expect(wiringCentreSvg(large, 'wc', first)).toContain(
      `terminals 1 to 3 of ${large.wiringCentres[0].terminals.length}`,
    )
    // Line 3 is linked to line 4.
    const paths = (svg: string) => svg.split('<path').length - 1
    expect(paths(wiringCentreSvg(large, 'wc', first))).toBe(3)
    expect(paths(wiringCentreSvg(large, 'wc', second))).toBe(4)
  })
})
