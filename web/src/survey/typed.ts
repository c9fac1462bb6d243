import { typeIn, type Colour, type Installation, type NearEnd, type SeenCable, type Survey } from '@nobbet/core'
import { v4 as newId } from 'uuid'

/** Cables as they are sold, by their number of cores: the colours that a box is full of. */
export const usualCables: Record<string, Colour[]> = {
  '3': ['brown', 'blue', 'green-yellow'],
  '4': ['brown', 'black', 'grey', 'green-yellow'],
  '5': ['brown', 'blue', 'green-yellow', 'black', 'grey'],
}

const colourWords: Record<string, Colour> = {
  br: 'brown',
  bl: 'blue',
  gy: 'green-yellow',
  bk: 'black',
  gr: 'grey',
  r: 'red',
  y: 'yellow',
  gn: 'green',
  w: 'white',
  or: 'orange',
  ba: 'bare',
}
export const colourHelp = Object.entries(colourWords)
  .map(([short, colour]) => `${short} ${colour}`)
  .join(', ')

/** Leads that devices of this installation come with: a type, and its conductors' colours. */
export function leadTypes(doc: Installation): { type: string; name: string; colours: Colour[] }[] {
  const types = [...new Set(doc.devices.map(({ type }) => type))]
  return types.flatMap((id) => {
    const { name, terminals } = typeIn(doc, id)
    const colours = terminals.flatMap(({ lead }) => (lead ? [lead as Colour] : []))
    return colours.length > 0 ? [{ type: id, name, colours }] : []
  })
}

/** An id that nobody else gives, on whatever device they write down at the same time. */
export const ownId = (stem: string): string => `${stem}-${newId().slice(0, 13)}`

/** A cable that nobody has looked at yet. */
export function newCable(survey: Survey, colours: readonly Colour[], leadOf?: string): SeenCable {
  const labels = new Set(survey.cables.map(({ label }) => label))
  let n = survey.cables.length + 1
  while (labels.has(`Cable ${n}`)) n++
  return {
    id: ownId('cable'),
    label: `Cable ${n}`,
    ...(leadOf !== undefined && { leadOf }),
    cores: colours.map((colour, i) => ({ id: `k${i + 1}`, colour, at: { at: 'unseen' } })),
    by: '',
  }
}

/** What was typed where no conductor is waiting for a terminal: a cable, or links. A string says why it cannot be read. */
export function readLine(text: string): { colours: Colour[] } | { links: [string, string][] } | string {
  const line = text.trim().toLowerCase()
  if (line in usualCables) return { colours: usualCables[line] }
  if (/^[a-z0-9+]+(-[a-z0-9+]+)+$/.test(line)) {
    const chain = line.split('-')
    return { links: chain.slice(1).map((to, i) => [chain[i], to]) }
  }
  const words = line.split(/[\s,]+/).filter(Boolean)
  const colours = words.map((word) => colourWords[word] ?? Object.values(colourWords).find((colour) => colour === word))
  if (words.length > 0 && colours.every((colour) => colour !== undefined)) return { colours }
  return `"${text.trim()}" is neither 3, 4 or 5 cores, nor colours (br bl gy), nor a link (3-4)`
}

/** What was typed for where a conductor sits. A string says why it cannot be read. */
export function readNearEnd(text: string): NearEnd | string {
  const word = text.trim()
  if (word === '') return { at: 'unseen' }
  if (word.toLowerCase() === 'x') return { at: 'cut-back' }
  if (word === '-') return { at: 'loose' }
  const parked = /^p\s*([A-Za-z0-9][A-Za-z0-9+-]*)$/i.exec(word)
  if (parked) return { at: 'parked', terminal: parked[1] }
  const joint = /^c\s*([0-9]{1,3})$/i.exec(word)
  if (joint) return { at: 'connector', connector: `connector-${joint[1]}` }
  return /^[A-Za-z0-9][A-Za-z0-9+-]{0,39}$/.test(word)
    ? { at: 'terminal', terminal: word }
    : `"${word}" is no terminal: type its number, x cut back, - loose, p5 parked in 5, c1 in connector 1`
}

/** Terminals with one that was written down and is not among them: numbers in between are there too. */
export function withTerminal(survey: Survey, id: string): Survey['terminals'] | undefined {
  if (survey.terminals.some((t) => t.id === id)) return undefined
  const number = Number(id)
  const ids = new Set(survey.terminals.map((t) => t.id))
  const missing =
    Number.isInteger(number) && number > 0 && number <= 120
      ? Array.from({ length: number }, (_, i) => `${i + 1}`).filter((one) => !ids.has(one))
      : [id]
  return [...survey.terminals, ...missing.map((one) => ({ id: one, legend: '' }))].sort(
    (a, b) => Number(a.id) - Number(b.id) || (a.id < b.id ? -1 : 1),
  )
}
