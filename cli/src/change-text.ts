import { backText, moveText, moveVerbs, noteText, type Move, type Tally } from '@nobbet/core'

const several = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`

/** A change of controls as lines: what it comes to, then the moves place by place; `back` reads them the other way round. */
export function changeText(moves: readonly Move[], tally: Tally, back: boolean): string[] {
  const { touched, conductors, links, cables, terminals, atMostLess } = tally
  const least =
    atMostLess === 0
      ? 'no other choice of terminals touches less'
      : `another choice of terminals could spare ${several(atMostLess, 'end or link')} at most`
  const lines = [
    `${touched} of ${several(conductors, 'conductor')} touched, ${several(links, 'link')}, ${several(cables, 'new cable')}` +
      `${terminals > 0 ? `, ${several(terminals, 'further terminal')}` : ''}: ${least}`,
    'Isolate and prove dead first.',
  ]
  const order = back ? [...moves].reverse() : moves
  let place: string | undefined
  order.forEach((move, i) => {
    if (move.place !== place) lines.push('', move.place)
    place = move.place
    lines.push(`${String(i + 1).padStart(4)}  ${back ? backText(move) : `${moveVerbs[move.do]}: ${moveText(move)}`}`)
    if (move.note && !back) lines.push(`      ${noteText(move.note)}`)
  })
  return lines
}
